package org.ysthmos.core.rule;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** A rule made into functions. One code path serves plain and explained mode. */
public record CompiledValue(ValueRule rule, CompiledSource source, Chain chain) {

  public ValueType gives() {
    return chain.gives();
  }

  /** The source fields it reads, each once. */
  public List<BoundField> reads() {
    return source.reads();
  }

  /** Whether nothing stands in any of the fields that it reads; false if it reads none. */
  public boolean readsNothing(Reading reading) {
    return !reads().isEmpty()
        && reads().stream()
            .allMatch(
                field -> field.read(reading) instanceof Value value && Operator.isBlank(value));
  }

  /** A value or a problem, never a warned value. */
  public Computed compute(Reading reading, Chain.Warnings warnings, Chain.@Nullable Trail trail) {
    return chain.run(source.read(reading, warnings, trail), reading, warnings, trail);
  }
}
