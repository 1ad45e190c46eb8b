package org.ysthmos.core.step;

import java.util.List;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.ValueType;

/** Makes a list of one value, where a list is wanted. */
public record InList() implements Step {

  static final StepKind KIND =
      StepKind.of("in-list", StepKind.Family.LIST, "Makes a list of the one value.")
          .example("in-list", "Rui", "Rui")
          .reads(options -> new InList());

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public String sentence() {
    return "as a list of one";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needs(in.isSimple(), in, "one value", "it is a list already");
    return Compiled.of(ValueType.listOf(in), (value, reading) -> new ListValue(in, List.of(value)));
  }
}
