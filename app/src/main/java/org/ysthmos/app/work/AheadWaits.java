package org.ysthmos.app.work;

import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * Finds what waits because a clock was ahead when its wait was written down. It is looked for now
 * and then, as all that waits rightly for long is looked through for it. Used by one thread.
 */
public final class AheadWaits {

  /** Clocks of several machines differ by less; what is written down meanwhile is no later. */
  private static final Duration TOLERANCE = Duration.ofMinutes(1);

  private static final Duration BETWEEN_LOOKS = Duration.ofSeconds(5);

  /** Where waits are written down. */
  @FunctionalInterface
  public interface Store {

    /**
     * @param far waits that end before this are short, whoever wrote them down
     * @param ahead what was written down after this was written by a clock that was ahead
     */
    List<Long> pausedAhead(Instant far, Instant ahead);
  }

  private final Store store;
  private final Duration longest;
  private long looked = System.nanoTime() - BETWEEN_LOOKS.toNanos();

  /**
   * @param longest the longest wait that is usual
   */
  public AheadWaits(Duration longest, Store store) {
    this.longest = longest;
    this.store = store;
  }

  /** Whether a time that was written down is one that no clock here could have told by now. */
  public static boolean isAhead(Instant written, Instant now) {
    return written.isAfter(now.plus(TOLERANCE));
  }

  /** What waits so; empty where it was looked for just before. */
  public List<Long> look(Instant now) {
    long moment = System.nanoTime();
    if (moment - looked < BETWEEN_LOOKS.toNanos()) {
      return List.of();
    }
    looked = moment;
    return store.pausedAhead(now.plus(longest), now.plus(TOLERANCE));
  }
}
