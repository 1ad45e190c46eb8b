package org.ysthmos.core.load;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;

/**
 * The limiter of all calls to one system, whoever makes them: at most as many within any span as
 * its limit allows, and none while it asked us to wait. Safe for several threads.
 */
public final class RateLimiter {

  /**
   * How much of the limit is used.
   *
   * @param made the calls made within the span that ends now
   * @param closedFor how long no call is made at all; zero if calls may be made
   */
  public record Use(int made, Duration closedFor) {}

  /**
   * A call counts over there a little later than here, so it leaves the span later too. Common
   * practice, no source.
   */
  static final Duration ON_THE_WAY = Duration.ofMillis(200);

  private final Optional<RateLimit> limit;
  private final Deque<Instant> made = new ArrayDeque<>();
  private Instant closedAt = Instant.MIN;
  private Instant closedUntil = Instant.MIN;

  /**
   * @param limit empty if the system names none
   */
  public RateLimiter(Optional<RateLimit> limit) {
    this.limit = limit;
  }

  /**
   * How long it is until so many calls can be made one after the other.
   *
   * @param calls more than the limit counts as the limit
   * @return zero if they can be made now
   */
  public synchronized Duration wait(int calls, Instant now) {
    settle(now);
    Duration wait = closedUntil.isAfter(now) ? Duration.between(now, closedUntil) : Duration.ZERO;
    if (limit.isEmpty()) {
      return wait;
    }
    int over = made.size() + Math.min(calls, limit.get().calls()) - limit.get().calls();
    if (over <= 0) {
      return wait;
    }
    // The call that must have left the span: the one before which only the surplus stands.
    Instant leaves = made.stream().skip(over - 1L).findFirst().orElse(now);
    Duration room = Duration.between(now, leaves.plus(limit.get().per()).plus(ON_THE_WAY));
    return room.compareTo(wait) > 0 ? room : wait;
  }

  /**
   * Takes room for one call.
   *
   * @return zero if the call may be made and counts as made; otherwise how long it has to wait
   */
  public synchronized Duration take(Instant now) {
    Duration wait = wait(1, now);
    if (wait.isZero() && limit.isPresent()) {
      made.addLast(now);
    }
    return wait;
  }

  /** The system asked for no call in the time to come. */
  public synchronized void close(Duration time, Instant now) {
    settle(now);
    Instant until = now.plus(time);
    if (until.isAfter(closedUntil)) {
      closedAt = now;
      closedUntil = until;
    }
  }

  public synchronized Use use(Instant now) {
    settle(now);
    return new Use(
        made.size(), closedUntil.isAfter(now) ? Duration.between(now, closedUntil) : Duration.ZERO);
  }

  /** Forgets what left the span, and what a clock that was set back has made future. */
  private void settle(Instant now) {
    limit.ifPresent(
        most ->
            made.removeIf(
                at -> at.isAfter(now) || !at.plus(most.per()).plus(ON_THE_WAY).isAfter(now)));
    if (closedAt.isAfter(now)) {
      closedAt = Instant.MIN;
      closedUntil = Instant.MIN;
    }
  }
}
