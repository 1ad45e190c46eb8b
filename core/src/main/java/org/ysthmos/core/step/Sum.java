package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.util.List;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** What the numbers of a list come to; an absent list comes to 0. */
public record Sum() implements Step {

  static final StepKind KIND =
      StepKind.of(
              "sum",
              StepKind.Family.LIST,
              "What the numbers of a list come to, exactly; 0 if it is absent.")
          .example(
              "sum",
              new ListValue(ValueType.NUMBER, List.of(Decimal.parse("0.1"), Decimal.parse("0.2"))),
              "0.3")
          .reads(options -> new Sum());

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public String sentence() {
    return "added up";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(
        in.equals(ValueType.listOf(ValueType.NUMBER)),
        in,
        "a list of number",
        in.isList() ? "read each as a number first (for-each)" : "make it a list first (in-list)");
    return Compiled.of(
        ValueType.NUMBER,
        (value, reading) -> {
          BigDecimal sum = BigDecimal.ZERO;
          if (value instanceof ListValue list) {
            for (Value item : list.items()) {
              sum = sum.add(((Decimal) item).number());
            }
          }
          return Decimal.checked(sum);
        });
  }

  @Override
  public boolean takesNothing() {
    return true;
  }
}
