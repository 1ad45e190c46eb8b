package org.ysthmos.app.work;

import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;
import java.util.function.LongSupplier;
import org.ysthmos.app.store.AfterCommit;

/**
 * Which queues need not be asked whether anything in them is ready: those that were empty and that
 * nothing came to since. As another node may add to a queue, each is asked again after a while.
 *
 * @param <Q> a queue
 */
public final class EmptyQueues<Q> {

  private static final long ASKED_AGAIN = Duration.ofMillis(250).toNanos();

  /** A queue that was empty, and how often something had come to it by then. */
  private record Empty(long came, long at) {}

  private final LongSupplier nanoTime;
  private final Map<Q, Empty> empty = new ConcurrentHashMap<>();
  private final Map<Q, AtomicLong> came = new ConcurrentHashMap<>();
  private final AtomicLong cameToAny = new AtomicLong();

  public EmptyQueues() {
    this(System::nanoTime);
  }

  EmptyQueues(LongSupplier nanoTime) {
    this.nanoTime = nanoTime;
  }

  /** Something of a queue becomes ready by the change under way. */
  public void comesTo(Q queue) {
    AfterCommit.run(() -> came.computeIfAbsent(queue, any -> new AtomicLong()).incrementAndGet());
  }

  /** Something of some queue becomes ready by the change under way. */
  public void comesToAny() {
    AfterCommit.run(cameToAny::incrementAndGet);
  }

  /**
   * Whether anything of a queue is ready.
   *
   * @param asked asks the database
   */
  public boolean anyReady(Q queue, BooleanSupplier asked) {
    long now = nanoTime.getAsLong();
    long before = times(queue);
    Empty known = empty.get(queue);
    if (known != null && known.came() == before && now - known.at() < ASKED_AGAIN) {
      return false;
    }
    boolean any = asked.getAsBoolean();
    if (any) {
      empty.remove(queue);
    } else {
      // What came while it was asked makes the number another, so that it is asked again.
      empty.put(queue, new Empty(before, now));
    }
    return any;
  }

  private long times(Q queue) {
    AtomicLong ofIt = came.get(queue);
    return cameToAny.get() + (ofIt == null ? 0 : ofIt.get());
  }
}
