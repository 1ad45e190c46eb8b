package org.ysthmos.core.step;

import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/** Replaces every occurrence of a text by another. */
public record Replace(String each, String by) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "replace", StepKind.Family.TEXT, "Replaces every occurrence of a text by another.")
          .with(Option.required("each", Option.Plain.TEXT, "what is replaced"))
          .with(Option.required("by", Option.Plain.TEXT, "what stands there instead; may be empty"))
          .example("replace: { each: \"_\", by: \" \" }", "north_palm_house", "north palm house")
          .reads(
              options -> {
                if (options.text("each").isEmpty()) {
                  throw options.refuse("an empty text cannot be replaced");
                }
                return new Replace(options.text("each"), options.text("by"));
              });

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.of("each", each);
    options.put("by", by);
    return options;
  }

  @Override
  public String sentence() {
    return by.isEmpty()
        ? "without any “" + each + "”"
        : "each “" + each + "” replaced by “" + by + "”";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    return Compiled.of(ValueType.TEXT, (value, reading) -> replaced(value.display()));
  }

  private Computed replaced(String text) {
    long times = 0;
    for (int at = text.indexOf(each); at >= 0; at = text.indexOf(each, at + each.length())) {
      times++;
    }
    return text.length() + times * (by.length() - each.length()) > Text.LONGEST
        ? Text.tooLong()
        : Text.of(text.replace(each, by));
  }
}
