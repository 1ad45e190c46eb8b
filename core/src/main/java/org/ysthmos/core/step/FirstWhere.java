package org.ysthmos.core.step;

import java.util.SequencedMap;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** The first item of a list that passes a test; nothing if none does. */
public record FirstWhere(Operator operator) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "first-where",
              StepKind.Family.LIST,
              "The first item of a list that passes a test; nothing if none does.")
          .testing()
          .example(
              "first-where: { ends-with: \"@tidewrack.example\" }",
              ListValue.ofTexts("a@mail.example", "rui@tidewrack.example"),
              "rui@tidewrack.example")
          .reads(options -> new FirstWhere(options.operator()));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.testing(operator);
  }

  @Override
  public String sentence() {
    return "the first that " + operator.sentence();
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType element = Step.needsList(in);
    Operator.Compiled test = operator.compile(element, scope);
    return Compiled.of(
        element,
        (value, reading) -> {
          for (Value item : ((ListValue) value).items()) {
            Computed answer = test.ask(item, reading);
            if (Flag.isYes(answer)) {
              return item;
            }
            if (answer instanceof Problem problem) {
              return problem;
            }
          }
          return Nothing.NOTHING;
        });
  }
}
