package org.ysthmos.standins.groundsboard;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayDeque;
import org.ysthmos.standins.http.Refusal;

/** So many calls in any span of a minute, then 429 until the oldest is a minute old. */
final class CallLimit {

  static final int CALLS = 90;
  private static final Duration SPAN = Duration.ofMinutes(1);

  private final ArrayDeque<Instant> calls = new ArrayDeque<>();
  private final InstantSource clock;

  CallLimit(InstantSource clock) {
    this.clock = clock;
  }

  synchronized void take() {
    Instant now = clock.instant();
    // Where the clock was set back, what lies ahead counts no more.
    calls.removeIf(now::isBefore);
    while (!calls.isEmpty() && !calls.getFirst().isAfter(now.minus(SPAN))) {
      calls.removeFirst();
    }
    if (calls.size() >= CALLS) {
      long wait = Duration.between(now, calls.getFirst().plus(SPAN)).toSeconds() + 1;
      throw Refusal.tooMany(CALLS + " calls a minute are taken", wait);
    }
    calls.addLast(now);
  }

  /** As if no call had been made in the last minute. */
  synchronized void forget() {
    calls.clear();
  }
}
