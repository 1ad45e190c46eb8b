package org.ysthmos.core.step;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.LinearPattern;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/**
 * Replaces every occurrence of a pattern.
 *
 * @param pattern RE2 syntax; takes time linear in the text
 * @param by what stands there instead, as it is; no sign of it has a meaning of its own
 */
public record ReplacePattern(String pattern, String by) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "replace-pattern",
              StepKind.Family.TEXT,
              "Replaces every occurrence of a pattern (RE2 syntax, linear time) by a text.")
          .with(Option.required("pattern", Option.Plain.PATTERN, "what is replaced"))
          .with(Option.required("by", Option.Plain.TEXT, "what stands there instead; may be empty"))
          .example(
              "replace-pattern: { pattern: \"\\\\s+\", by: \" \" }",
              "palm \t house,\n north",
              "palm house, north")
          .reads(
              options -> {
                options.parsed("pattern", LinearPattern::compile);
                return new ReplacePattern(options.text("pattern"), options.text("by"));
              });

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.of("pattern", pattern);
    options.put("by", by);
    return options;
  }

  @Override
  public String sentence() {
    return "each that matches “%s” replaced by “%s”".formatted(pattern, by);
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    Pattern compiled = LinearPattern.compile(pattern);
    return Compiled.of(ValueType.TEXT, (value, reading) -> replaced(value.display(), compiled));
  }

  private Computed replaced(String text, Pattern compiled) {
    StringBuilder out = new StringBuilder(text.length());
    Matcher matcher = compiled.matcher(text);
    int kept = 0;
    while (matcher.find()) {
      out.append(text, kept, matcher.start()).append(by);
      kept = matcher.end();
      if (out.length() > Text.LONGEST) {
        return Text.tooLong();
      }
    }
    return Text.checked(out.append(text, kept, text.length()).toString());
  }
}
