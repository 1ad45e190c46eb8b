package org.ysthmos.core.step;

import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.ValueType;

/** Takes the white space off both ends of a text. */
public record Trim() implements Step {

  static final StepKind KIND =
      StepKind.of("trim", StepKind.Family.TEXT, "Takes the white space off both ends.")
          .example("trim", "  Fern gully \n", "Fern gully")
          .reads(options -> new Trim());

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public String sentence() {
    return "without the white space around it";
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    Step.needsText(in);
    return Compiled.of(
        ValueType.TEXT,
        (value, reading) -> {
          String text = value.display();
          String stripped = WhiteSpace.strip(text);
          return stripped.length() == text.length() ? value : Text.of(stripped);
        });
  }
}
