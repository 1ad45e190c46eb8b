package org.ysthmos.core.rule;

import java.util.List;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * A field rule made into functions. One code path serves plain and explained mode.
 *
 * @param sentences the steps in words, made once
 */
public record CompiledField(
    FieldShape target, FieldRule rule, CompiledSource source, Chain chain, List<String> sentences) {

  public CompiledField {
    sentences = List.copyOf(sentences);
  }

  static CompiledField of(FieldShape target, FieldRule rule, CompiledSource source, Chain chain) {
    return new CompiledField(
        target, rule, source, chain, rule.steps().stream().map(Step::sentence).toList());
  }

  public List<BoundField> reads() {
    return source.reads();
  }

  /** Computes the field: a value that the target will take, or a problem. */
  public Computed compute(Reading reading, Chain.Trail trail) {
    Computed computed = chain.run(source.read(reading), trail);
    return computed instanceof Value value ? fitting(value) : computed;
  }

  /** Refuses here what the target would refuse later, where the remedy can still name the rule. */
  private Computed fitting(Value value) {
    return switch (value) {
      case Nothing nothing when target.required() ->
          new Problem(
              "it is required and there is no value",
              "",
              "Fill the field at its source, or add a step “if nothing, use …”, then send again");
      case Text text
          when target.longest().isPresent() && text.text().length() > target.longest().getAsInt() ->
          new Problem(
              "the text has %d characters and the target keeps %d"
                  .formatted(text.text().length(), target.longest().getAsInt()),
              text.text(),
              "Add a step that shortens it, then send again");
      default -> value;
    };
  }
}
