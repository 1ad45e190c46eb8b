package org.ysthmos.core.sync;

import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * What values of one side are on the other. Pure: the same value always becomes the same. The way
 * back need not be the inverse: where a side cannot say all that the other can, several values
 * stand for one.
 */
@FunctionalInterface
public interface Way {

  /** The same value on both sides. */
  Way SAME = (from, value) -> new Crossing.Becomes(value);

  Crossing across(Side from, Value value);

  /**
   * Whether two values stand for each other, in either direction: then neither is touched, so that
   * what only one side can say is not lost (the put-back rule, see {@link StatusTable}).
   */
  default boolean agree(Value left, Value right) {
    return across(Side.LEFT, left).equals(new Crossing.Becomes(right))
        || across(Side.RIGHT, right).equals(new Crossing.Becomes(left));
  }

  /** Statuses by a table; one that is not mapped changes nothing across. */
  static Way of(StatusTable table) {
    return (from, value) ->
        table
            .across(from, value.display())
            .<Crossing>map(status -> new Crossing.Becomes(Text.of(status)))
            .orElseGet(() -> new Crossing.Stays("“%s” is not mapped".formatted(value.display())));
  }
}
