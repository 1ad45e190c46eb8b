package org.ysthmos.core.step;

import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** Joins a list into one text, with a stated text between its items. */
public record Join(String between) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "join",
              StepKind.Family.LIST,
              "Joins a list into one text, with a text between items.")
          .bare(Option.required("between", Option.Plain.TEXT, "what stands between two items"))
          .example("join: \" and \"", ListValue.ofTexts("Rui", "Inês"), "Rui and Inês")
          .reads(options -> new Join(options.text("between")));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.of("between", between);
  }

  @Override
  public String sentence() {
    return switch (between) {
      case "\n" -> "each on its own line";
      case "\n\n" -> "with an empty line between";
      default -> "joined by “" + between + "”";
    };
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType element = Step.needsList(in);
    Step.needs(
        element.isSimple() && !element.equals(ValueType.MOMENT),
        in,
        "a list of what can stand in a text",
        "write each moment out first (for-each with write)");
    return Compiled.of(ValueType.TEXT, (value, reading) -> join(((ListValue) value).items()));
  }

  private Computed join(List<Value> items) {
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < items.size(); i++) {
      text.append(i == 0 ? "" : between).append(items.get(i).display());
      if (text.length() > Text.LONGEST) {
        return Text.tooLong();
      }
    }
    return Text.of(text.toString());
  }
}
