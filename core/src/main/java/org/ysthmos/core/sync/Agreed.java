package org.ysthmos.core.sync;

import java.util.HashMap;
import java.util.Map;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What both sides held when they last agreed, each as that side stored it: what a side trims,
 * shortens or rounds is then no change.
 *
 * @param one by the name of the field
 * @param other the same
 */
public record Agreed(Map<String, Value> one, Map<String, Value> other) {

  public Agreed {
    one = Map.copyOf(one);
    other = Map.copyOf(other);
  }

  public Value of(Side side, String field) {
    return all(side).getOrDefault(field, Nothing.NOTHING);
  }

  Map<String, Value> all(Side side) {
    return side == Side.ONE ? one : other;
  }

  /** The same with other values in some fields. */
  Agreed with(Map<String, Value> newOnes, Map<String, Value> newOthers) {
    return new Agreed(plus(one, newOnes), plus(other, newOthers));
  }

  private static Map<String, Value> plus(Map<String, Value> before, Map<String, Value> more) {
    Map<String, Value> all = new HashMap<>(before);
    all.putAll(more);
    return all;
  }
}
