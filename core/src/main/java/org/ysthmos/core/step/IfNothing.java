package org.ysthmos.core.step;

import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/** Uses a stated text where there is no value, or only an empty or blank text. */
public record IfNothing(String instead) implements Step {

  static final StepKind KIND =
      new StepKind(
          "if-nothing",
          "Uses a stated text where there is no value or a blank one.",
          "if-nothing: not given",
          (DocumentNode node) -> new IfNothing(node.text()));

  @Override
  public String sentence() {
    return "if nothing, “" + instead + "”";
  }

  @Override
  public Typing typing(ValueType in) {
    return Typing.of(ValueType.TEXT, in, ValueType.TEXT, "the stated value is a text");
  }

  @Override
  public Function compile() {
    Text fallback = Text.of(instead);
    return in -> in == Nothing.NOTHING || in.display().isBlank() ? fallback : in;
  }

  @Override
  public boolean takesNothing() {
    return true;
  }
}
