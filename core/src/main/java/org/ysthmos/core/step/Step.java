package org.ysthmos.core.step;

import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * One step of a chain. A step is a description; {@link #compile} makes the function once, so that
 * running it parses nothing. The function is pure and total over its input type, and is never given
 * {@link org.ysthmos.core.value.Nothing}, unless {@link #takesNothing} says so: an absent value
 * stays absent through the chain.
 */
public sealed interface Step
    permits Trim, Shorten, ReadDay, Move, AtTime, ReadNumber, Bands, IfNothing, Join {

  /** The step as it reads in a rule, for example {@code moved 7 days later}. */
  String sentence();

  /** What type comes out if {@code in} goes in, or why it cannot. */
  Typing typing(ValueType in);

  Function compile();

  default boolean takesNothing() {
    return false;
  }

  /** A compiled step. */
  @FunctionalInterface
  interface Function {
    Computed apply(Value in);
  }
}
