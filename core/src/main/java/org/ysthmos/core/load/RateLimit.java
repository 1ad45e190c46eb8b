package org.ysthmos.core.load;

import java.time.Duration;

/**
 * The most calls a system answers in a span of time; it refuses more of them until the span is
 * over.
 *
 * @param calls at least 1
 * @param per longer than nothing
 */
public record RateLimit(int calls, Duration per) {

  public RateLimit {
    if (calls < 1 || per.isNegative() || per.isZero()) {
      throw new IllegalArgumentException("a rate limit is at least one call in a span of time");
    }
  }

  /** How many calls a day this allows. */
  public long callsPerDay() {
    return calls * Duration.ofDays(1).toMillis() / per.toMillis();
  }

  /** How long so many calls take at least, if there is room for a whole span of them now. */
  public Duration timeFor(long calls) {
    return calls == 0 ? Duration.ZERO : per.multipliedBy((calls - 1) / this.calls);
  }
}
