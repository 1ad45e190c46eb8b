package org.ysthmos.core.step;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.ArrayList;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.LinearPattern;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Finds a pattern in a text and takes it, or one of its groups.
 *
 * @param pattern RE2 syntax; takes time linear in the text
 * @param group which group is taken, counted from 1; 0 for all that was found
 * @param all whether every occurrence is taken, as a list; otherwise the first
 * @param missing what there is if the pattern is not found; a list is empty then
 */
public record FindPattern(String pattern, int group, boolean all, PartOf.Missing missing)
    implements Step {

  static final StepKind KIND =
      StepKind.of(
              "find-pattern",
              StepKind.Family.TEXT,
              "Finds a pattern (RE2 syntax, linear time) and takes it or one of its groups.")
          .bare(Option.required("pattern", Option.Plain.PATTERN, "what is looked for"))
          .with(
              Option.optional(
                  "group", Option.Plain.WHOLE_NUMBER, "the group taken, counted from 1"))
          .with(Option.optional("all", Option.Plain.FLAG, "every occurrence, as a list"))
          .with(
              Option.optional(
                  "missing",
                  Option.Words.of(PartOf.Missing.class),
                  "if it is not found; empty if not said"))
          .example("find-pattern: \"F-[0-9]+\"", "Heating off, F-204, again", "F-204")
          .example(
              "find-pattern: { pattern: \"bed ([A-Z])\", group: 1, all: true }",
              "bed A and bed C",
              "A, C")
          .example(
              "find-pattern: { pattern: \"F-[0-9]+\", missing: fail }",
              "Heating off",
              "the pattern “F-[0-9]+” was not found")
          .reads(FindPattern::read);

  private static Step read(StepOptions options) {
    Pattern compiled = options.parsed("pattern", LinearPattern::compile);
    int group = options.has("group") ? options.whole("group", 1, compiled.groupCount()) : 0;
    return new FindPattern(
        options.text("pattern"),
        group,
        options.flag("all"),
        options.word("missing", PartOf.Missing.class, PartOf.Missing.EMPTY));
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.of("pattern", pattern);
    Written.and(options, "group", group, 0);
    Written.and(options, "all", all, false);
    return Written.and(options, "missing", missing, PartOf.Missing.EMPTY);
  }

  @Override
  public String sentence() {
    return "%s the pattern “%s”%s"
        .formatted(
            all ? "each that matches" : "the first that matches",
            pattern,
            group == 0 ? "" : ", its group " + group);
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    Pattern compiled = LinearPattern.compile(pattern);
    return all
        ? Compiled.of(
            ValueType.listOf(ValueType.TEXT),
            (value, reading) -> every(compiled.matcher(value.display())))
        : Compiled.of(
            ValueType.TEXT,
            (value, reading) -> {
              Matcher matcher = compiled.matcher(value.display());
              String found = matcher.find() ? matcher.group(group) : null;
              return found == null ? without(value) : Text.of(found);
            });
  }

  private Computed every(Matcher matcher) {
    List<Value> found = new ArrayList<>();
    while (matcher.find() && found.size() < ListValue.MOST) {
      String one = matcher.group(group);
      if (one != null) {
        found.add(Text.of(one));
      }
    }
    return new ListValue(ValueType.TEXT, found);
  }

  private Computed without(Value value) {
    return switch (missing) {
      case EMPTY -> Nothing.NOTHING;
      case WHOLE -> value;
      case FAIL ->
          new Problem(
              "the pattern “" + pattern + "” was not found",
              value.display(),
              "Correct the text at its source, or the pattern in the rule, then send again");
    };
  }
}
