package org.ysthmos.core.sync;

import java.util.HashMap;
import java.util.Map;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What both sides held when they last agreed, each as that side stored it: what a side trims,
 * shortens or rounds is then no change.
 *
 * @param left by the name of the field
 * @param right the same
 */
public record Agreed(Map<String, Value> left, Map<String, Value> right) {

  public Agreed {
    left = Map.copyOf(left);
    right = Map.copyOf(right);
  }

  public Value of(Side side, String field) {
    return all(side).getOrDefault(field, Nothing.NOTHING);
  }

  Map<String, Value> all(Side side) {
    return side == Side.LEFT ? left : right;
  }

  /** The same with other values in some fields. */
  public Agreed with(Map<String, Value> newLeft, Map<String, Value> newRight) {
    return new Agreed(plus(left, newLeft), plus(right, newRight));
  }

  private static Map<String, Value> plus(Map<String, Value> before, Map<String, Value> more) {
    Map<String, Value> all = new HashMap<>(before);
    all.putAll(more);
    return all;
  }
}
