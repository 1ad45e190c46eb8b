package org.ysthmos.core.step;

import java.util.SequencedMap;
import org.ysthmos.core.compare.Operand;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/** Uses a stated value or another field where the value passes a test; else the value stays. */
public record If(Operator operator, Operand use) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "if",
              StepKind.Family.ANY,
              "Uses a stated value, or another field `{ value: address }`, where the value passes a"
                  + " test; else the value stays.")
          .testing()
          .with(Option.required("use", Option.Plain.OPERAND, "what is used then"))
          .example("if: { equal-ignoring-case: n/a, use: unknown }", "N/A", "unknown")
          .example("if: { more-than: 9, use: 9 }", Decimal.of(7), "7")
          .reads(options -> new If(options.operator(), options.operand("use")));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.testing(operator);
    options.put("use", use.toDocument());
    return options;
  }

  @Override
  public String sentence() {
    return "if it " + operator.sentence() + ", " + use.sentence();
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(in.isSimple(), in, "one value", "do it to each item (for-each)");
    Operator.Compiled test = operator.compile(in, scope);
    Operand.Compiled then = use.compile(in, scope);
    return Compiled.of(
        in,
        (value, reading) -> {
          Computed answer = test.ask(value, reading);
          if (answer instanceof Problem problem) {
            return problem;
          }
          return Flag.isYes(answer) ? then.read(reading) : value;
        });
  }

  @Override
  public boolean takesNothing() {
    return true;
  }
}
