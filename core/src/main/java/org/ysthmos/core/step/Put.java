package org.ysthmos.core.step;

import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.reading.SlotText;
import org.ysthmos.core.reading.Template;
import org.ysthmos.core.value.ValueType;

/**
 * Puts the value into a text with slots: {@code {value}} is the value in hand, other slots hold
 * addresses.
 */
public record Put(String written) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "put",
              StepKind.Family.TEXT,
              "Puts the value into a text with slots; `{value}` is the value in hand, other slots"
                  + " hold addresses.")
          .bare(Option.required("into", Option.Plain.TEXT, "the text with its slots"))
          .example("put: \"Fault {value}\"", "F-204", "Fault F-204")
          .reads(
              options -> {
                options.parsed("into", Template::parse);
                return new Put(options.text("into"));
              });

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.of("into", written);
  }

  @Override
  public String sentence() {
    return "put into “" + written + "”";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.isSimple() && !in.equals(ValueType.MOMENT),
        in,
        "one value",
        in.equals(ValueType.MOMENT)
            ? "a moment reads differently in each zone, so write it out first (write)"
            : "join the list first (join)");
    SlotText slots = SlotText.compile(Template.parse(written), scope);
    return Compiled.of(ValueType.TEXT, slots::fill);
  }
}
