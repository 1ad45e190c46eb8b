package org.ysthmos.core.step;

import java.util.SequencedMap;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/** Fails with a stated message where the value passes a test; else the value stays. */
public record FailIf(Operator operator, String message) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "fail-if",
              StepKind.Family.ANY,
              "Fails with a stated message where the value passes a test; else the value stays.")
          .testing()
          .with(Option.required("message", Option.Plain.TEXT, "what a person is told"))
          .example(
              "fail-if: { is: empty, message: the form was sent without a place }",
              "",
              "the form was sent without a place")
          .example("fail-if: { more-than: 9, message: out of scale }", Decimal.of(7), "7")
          .reads(options -> new FailIf(options.operator(), options.text("message")));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.testing(operator);
    options.put("message", message);
    return options;
  }

  @Override
  public String sentence() {
    return "fails if it " + operator.sentence() + " (“" + message + "”)";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Operator.Compiled test = operator.compile(in, scope);
    return Compiled.of(
        in,
        (value, reading) -> {
          Computed answer = test.ask(value, reading);
          if (answer instanceof Problem problem) {
            return problem;
          }
          return Flag.isYes(answer)
              ? new Problem(message, value.display(), "Correct it at its source, then send again")
              : value;
        });
  }

  @Override
  public boolean takesNothing() {
    return true;
  }
}
