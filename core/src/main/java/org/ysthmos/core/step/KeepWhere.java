package org.ysthmos.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** The items of a list that pass a test. */
public record KeepWhere(Operator operator) implements Step {

  static final StepKind KIND =
      StepKind.of("keep-where", StepKind.Family.LIST, "Keeps the items of a list that pass a test.")
          .testing()
          .example(
              "keep-where: { not: { starts-with: \"#\" } }",
              ListValue.ofTexts("water the ferns", "# done last week", "sweep"),
              "water the ferns, sweep")
          .reads(options -> new KeepWhere(options.operator()));

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
    return "those that " + operator.sentence();
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType element = Step.needsList(in);
    Operator.Compiled test = operator.compile(element, scope);
    return Compiled.of(
        in,
        (value, reading) -> {
          List<Value> kept = new ArrayList<>();
          for (Value item : ((ListValue) value).items()) {
            Computed answer = test.ask(item, reading);
            if (answer instanceof Problem problem) {
              return problem;
            }
            if (Flag.isYes(answer)) {
              kept.add(item);
            }
          }
          return new ListValue(element, kept);
        });
  }
}
