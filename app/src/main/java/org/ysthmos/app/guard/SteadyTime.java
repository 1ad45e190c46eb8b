package org.ysthmos.app.guard;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.function.LongSupplier;

/**
 * Time that only goes by while the application runs, so that no step of a clock and no pause makes
 * a span seem to be over. Where the clock can be set, for practice, it goes by with each step ahead
 * as well, as days are lived through in minutes there.
 */
final class SteadyTime {

  private final InstantSource clock;
  private final boolean settable;
  private final LongSupplier nanos;
  private final long base;
  private final long began;
  private Instant last;
  private long steps;

  /**
   * @param nanos nanoseconds that go by, from any origin
   * @param base from where it goes on, in milliseconds
   */
  SteadyTime(InstantSource clock, boolean settable, LongSupplier nanos, long base) {
    this.clock = clock;
    this.settable = settable;
    this.nanos = nanos;
    this.base = base;
    this.began = nanos.getAsLong();
    this.last = clock.instant();
  }

  /** In milliseconds, never less than before. */
  synchronized long now() {
    if (!settable) {
      return base + (nanos.getAsLong() - began) / 1_000_000;
    }
    Instant now = clock.instant();
    steps += Math.max(0, Duration.between(last, now).toMillis());
    last = now;
    return base + steps;
  }
}
