package org.ysthmos.core.load;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.ysthmos.core.failure.BackOff;
import org.ysthmos.core.failure.Failure;

/**
 * Keeps a system that does not work from being called for everything that waits for it. After some
 * failures in a row, none of which says anything about what was asked, it opens: nothing is called
 * but one probe at a time, after doubling waits. The first call that is answered closes it again.
 * Safe for several threads. Nygard, "Release It!", 2007, names the pattern; from memory.
 */
public final class CircuitBreaker {

  /** A probe whose result never came counts as lost after this time. */
  private static final Duration LONGEST_PROBE = Duration.ofMinutes(2);

  /**
   * A system that does not work just now.
   *
   * @param since when the first of the failures in a row was
   * @param nextProbe when it is called again
   * @param last the failure of the last call
   */
  public record Outage(Instant since, Instant nextProbe, Failure last) {}

  private final int most;
  private final BackOff waits;
  private final Runnable changed;
  private int failures;
  private int probes;
  private Instant since = Instant.MIN;
  private Instant openedAt = Instant.MIN;
  private Instant nextProbe = Instant.MIN;
  private Optional<Instant> probing = Optional.empty();
  private Optional<Failure> last = Optional.empty();

  /**
   * @param most how many failures in a row open it
   * @param first the wait before the first probe; each later wait is twice as long
   * @param longest the longest wait
   */
  public CircuitBreaker(int most, Duration first, Duration longest) {
    this(most, first, longest, () -> {});
  }

  /**
   * @param changed called whenever it has opened or closed; must not wait for anything
   */
  public CircuitBreaker(int most, Duration first, Duration longest, Runnable changed) {
    this.most = most;
    this.waits = new BackOff(first, longest, Integer.MAX_VALUE);
    this.changed = changed;
  }

  /** Whether calls go freely. */
  public synchronized boolean isClosed() {
    return failures < most;
  }

  /** Whether a call could be made now: freely, or as a probe. */
  public synchronized boolean admits(Instant now) {
    return isClosed() || mayProbe(now);
  }

  /** Takes the probe, if one is due. Always true while it is closed. */
  public synchronized boolean take(Instant now) {
    if (isClosed()) {
      return true;
    }
    if (!mayProbe(now)) {
      return false;
    }
    probing = Optional.of(now);
    return true;
  }

  private boolean mayProbe(Instant now) {
    // A clock that was set back must not keep a system closed off.
    boolean due = !now.isBefore(nextProbe) || now.isBefore(openedAt);
    boolean free =
        probing.filter(at -> !now.isBefore(at) && now.isBefore(at.plus(LONGEST_PROBE))).isEmpty();
    return due && free;
  }

  /** A call was answered, well or not: the system works. */
  public synchronized void answered() {
    boolean wasOpen = !isClosed();
    failures = 0;
    probes = 0;
    probing = Optional.empty();
    last = Optional.empty();
    if (wasOpen) {
      changed.run();
    }
  }

  /** Gives a probe back that made no call. */
  public synchronized void unused() {
    probing = Optional.empty();
  }

  /** A call failed in a way that says nothing of what was asked. */
  public synchronized void failed(Failure failure, Instant now) {
    boolean wasClosed = isClosed();
    if (failures == 0) {
      since = now;
    }
    failures = Math.min(failures + 1, most);
    last = Optional.of(failure);
    if (isClosed()) {
      return;
    }
    // What was under way when it opened says nothing new.
    if (wasClosed || probing.isPresent()) {
      probes++;
      openedAt = now;
      nextProbe = now.plus(waits.after(probes, failure).orElseThrow());
      probing = Optional.empty();
    }
    if (wasClosed) {
      changed.run();
    }
  }

  /** What is known of it while it does not work; empty while it does. */
  public synchronized Optional<Outage> outage() {
    return isClosed()
        ? Optional.empty()
        : last.map(failure -> new Outage(since, nextProbe, failure));
  }
}
