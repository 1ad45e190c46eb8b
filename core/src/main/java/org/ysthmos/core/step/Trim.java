package org.ysthmos.core.step;

import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/** Takes the white space off both ends of a text. */
public record Trim() implements Step {

  static final StepKind KIND =
      new StepKind("trim", "Takes the white space off both ends.", "trim", node -> new Trim());

  @Override
  public String sentence() {
    return "without the white space around it";
  }

  @Override
  public Typing typing(ValueType in) {
    return Typing.of(ValueType.TEXT, in, ValueType.TEXT, "only a text has white space around it");
  }

  @Override
  public Function compile() {
    return in -> Text.of(in.display().strip());
  }
}
