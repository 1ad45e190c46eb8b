package org.ysthmos.core.step;

import java.util.SequencedMap;
import org.ysthmos.core.compare.Operand;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.ValueType;

/** Uses a stated value or another field where there is no value, or a blank one. */
public record IfNothing(Operand instead) implements Step {

  static final StepKind KIND =
      StepKind.of(
              "if-nothing",
              StepKind.Family.ANY,
              "Uses a stated value, or another field `{ value: address }`, where there is no value"
                  + " or a blank one.")
          .bare(Option.required("use", Option.Plain.OPERAND, "what is used instead"))
          .example("if-nothing: not given", "", "not given")
          .example("if-nothing: not given", "Rui", "Rui")
          .reads(IfNothing::read);

  private static Step read(StepOptions options) {
    DocumentNode node = options.node("use");
    return new IfNothing(Operand.read(node));
  }

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    return Written.of("use", instead.toDocument());
  }

  @Override
  public String sentence() {
    return "if nothing, " + instead.sentence();
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(in.isSimple(), in, "one value", "take one of the list first (take)");
    Operand.Compiled otherwise = instead.compile(in, scope);
    return Compiled.of(
        in, (value, reading) -> Operator.isBlank(value) ? otherwise.read(reading) : value);
  }

  @Override
  public boolean takesNothing() {
    return true;
  }
}
