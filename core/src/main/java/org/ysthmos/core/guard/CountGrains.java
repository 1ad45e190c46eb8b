package org.ysthmos.core.guard;

import java.time.Duration;

/**
 * In which grains of time effects are counted, so that a sliding span is a sum of few numbers. A
 * grain counts until the newest of it has left the span: what is counted may be a sixtieth of a
 * span too old, and is never too young, whatever grains there were before.
 *
 * @param millis how long a grain is
 * @param span how long the span is, in milliseconds
 */
public record CountGrains(long millis, long span) {

  private static final int IN_A_SPAN = 60;

  public static CountGrains of(Duration per) {
    return new CountGrains(Math.max(1, per.toMillis() / IN_A_SPAN), per.toMillis());
  }

  /** The grain that a moment lies in, by its first millisecond. */
  public long at(long moment) {
    return Math.floorDiv(moment, millis) * millis;
  }

  /** What was at this moment or before counts no more. */
  public long over(long moment) {
    return moment - span;
  }
}
