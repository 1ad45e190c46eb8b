package org.ysthmos.core.step;

import java.util.LinkedHashSet;
import java.util.List;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.ValueType;

/** The items of a list, each once, in the order in which they first stand. */
public record Distinct() implements Step {

  static final StepKind KIND =
      StepKind.of(
              "distinct", StepKind.Family.LIST, "Keeps each item of a list once, the first one.")
          .example("distinct", ListValue.ofTexts("Rui", "Inês", "Rui"), "Rui, Inês")
          .reads(options -> new Distinct());

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public String sentence() {
    return "each once";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType element = Step.needsList(in);
    return Compiled.of(
        in,
        (value, reading) ->
            new ListValue(element, List.copyOf(new LinkedHashSet<>(((ListValue) value).items()))));
  }
}
