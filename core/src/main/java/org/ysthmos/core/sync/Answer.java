package org.ysthmos.core.sync;

import org.ysthmos.core.value.Value;

/** What a person says of a field on which both sides disagree. */
public sealed interface Answer {

  /** One side is right. */
  record Wins(Side side) implements Answer {}

  /** Both are: all items of both lists, or one text after the other. */
  record Both() implements Answer {}

  /**
   * Neither is.
   *
   * @param left what it is, as {@link Side#LEFT} says it
   */
  record Typed(Value left) implements Answer {}
}
