package org.ysthmos.core.step;

import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.ValueType;

/** How many items a list has; an absent list has none. */
public record Count() implements Step {

  static final StepKind KIND =
      StepKind.of("count", StepKind.Family.LIST, "How many items a list has; none if it is absent.")
          .example("count", ListValue.ofTexts("Rui", "Inês"), "2")
          .reads(options -> new Count());

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public String sentence() {
    return "how many there are";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    var unused = Step.needsList(in);
    return Compiled.of(
        ValueType.NUMBER,
        (value, reading) -> Decimal.of(value instanceof ListValue list ? list.items().size() : 0));
  }

  @Override
  public boolean takesNothing() {
    return true;
  }
}
