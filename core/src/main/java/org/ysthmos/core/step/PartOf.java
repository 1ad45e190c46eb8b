package org.ysthmos.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.Part;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Takes the part of a text that stands between labels, or on a label's line.
 *
 * @param missing what there is if a label is not there
 * @param repeated which one is meant if the label before the part stands there more than once
 */
public record PartOf(Part part, Missing missing, Repeated repeated) implements Step {

  /** The answer if a label is missing. */
  public enum Missing {
    EMPTY("there is none"),
    WHOLE("the whole text is taken"),
    FAIL("it fails");

    private final String words;

    Missing(String words) {
      this.words = words;
    }
  }

  /** The answer if the label before the part stands there more than once. */
  public enum Repeated {
    FIRST("the first counts"),
    LAST("the last counts"),
    FAIL("it fails");

    private final String words;

    Repeated(String words) {
      this.words = words;
    }
  }

  private static final String TICKET = "Place: Palm house\\nFault code: F-204\\nSeen by: Rui";

  static final StepKind KIND =
      StepKind.of(
              "part",
              StepKind.Family.TEXT,
              "Takes the part of a text that stands between labels, or on a label's line.")
          .with(Option.optional("after", Option.Plain.TEXT, "the label before the part"))
          .with(Option.optional("before", Option.Plain.TEXT, "the label behind the part"))
          .with(Option.optional("line", Option.Plain.FLAG, "the part ends with the line"))
          .with(Option.optional("ignoring-case", Option.Plain.FLAG, "labels in any case"))
          .with(
              Option.required("missing", Option.Words.of(Missing.class), "if a label is not there"))
          .with(
              Option.optional(
                  "repeated",
                  Option.Words.of(Repeated.class),
                  "if the label before stands there more than once; the first if not said"))
          .example(
              "part: { after: \"Fault code:\", line: true, missing: fail }",
              TICKET.replace("\\n", "\n"),
              "F-204")
          .example("part: { before: \" (\", missing: whole }", "Palm house (north)", "Palm house")
          .example(
              "part: { after: \"Stop:\", missing: empty, repeated: last }", "Stop: 1 Stop: 2", "2")
          .example("part: { after: \"Fault:\", missing: fail }", "no label", "“Fault:” is missing")
          .reads(PartOf::read);

  private static Step read(StepOptions options) {
    Part part =
        new Part(
            options.text("after", ""),
            options.text("before", ""),
            options.flag("line"),
            options.flag("ignoring-case"));
    if (part.after().isEmpty() && part.before().isEmpty() && !part.line()) {
      throw options.refuse("say what the part stands after or before, or that it is a line");
    }
    return new PartOf(
        part,
        options.node("missing").word(Missing.class),
        options.word("repeated", Repeated.class, Repeated.FIRST));
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.nothing();
    Written.and(options, "after", part.after(), "");
    Written.and(options, "before", part.before(), "");
    Written.and(options, "line", part.line(), false);
    Written.and(options, "ignoring-case", part.ignoreCase(), false);
    options.put("missing", DocumentNode.wordOf(missing));
    return Written.and(options, "repeated", repeated, Repeated.FIRST);
  }

  @Override
  public String sentence() {
    List<String> where = new ArrayList<>();
    if (!part.after().isEmpty()) {
      where.add("after “" + part.after() + "”");
    }
    if (!part.before().isEmpty()) {
      where.add("before “" + part.before() + "”");
    }
    if (part.line()) {
      where.add("to the end of the line");
    }
    return "the part %s; if missing, %s; if repeated, %s"
        .formatted(String.join(" and ", where), missing.words, repeated.words);
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    Part.Repeated which = repeated == Repeated.LAST ? Part.Repeated.LAST : Part.Repeated.FIRST;
    return Compiled.of(
        ValueType.TEXT,
        (value, reading) -> {
          String text = value.display();
          if (repeated == Repeated.FAIL && part.times(text) > 1) {
            return new Problem(
                "“%s” stands %d times in the text".formatted(part.after(), part.times(text)),
                text,
                "Say which one counts, or correct the text at its source, then send again");
          }
          Optional<String> found = part.in(text, which);
          return found.isPresent() ? Text.of(found.get()) : without(value);
        });
  }

  private Computed without(Value value) {
    return switch (missing) {
      case EMPTY -> Nothing.NOTHING;
      case WHOLE -> value;
      case FAIL ->
          new Problem(
              "“" + missingLabel(value.display()) + "” is missing",
              value.display(),
              "Correct the text at its source, or the label in the rule, then send again");
    };
  }

  private String missingLabel(String text) {
    boolean afterIsThere = part.after().isEmpty() || part.times(text) > 0;
    return afterIsThere ? part.before() : part.after();
  }
}
