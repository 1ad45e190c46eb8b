package org.ysthmos.core.step;

import java.util.stream.Collectors;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** Joins a list of texts into one, with a stated text between them. */
public record Join(String between) implements Step {

  static final StepKind KIND =
      new StepKind(
          "join",
          "Joins a list of texts into one text, with a stated text between them.",
          "join: \", \"",
          node -> new Join(node.text()));

  @Override
  public String sentence() {
    return between.equals("\n") ? "each on its own line" : "joined by “" + between + "”";
  }

  @Override
  public Typing typing(ValueType in) {
    return Typing.of(
        ValueType.listOf(ValueType.TEXT), in, ValueType.TEXT, "only a list of texts is joined");
  }

  @Override
  public Function compile() {
    return in ->
        Text.of(
            ((ListValue) in)
                .items().stream().map(Value::display).collect(Collectors.joining(between)));
  }
}
