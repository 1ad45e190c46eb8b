package org.ysthmos.app.work;

import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * One claimer and several workers: the claimer claims what is ready, queue by queue in order, and
 * hands it to workers; each group of queues has its own. What a worker could not finish is given
 * back. A worker or claimer that ends in any other way gives its pieces back by time, as nobody
 * renews their claims.
 *
 * @param <Q> a queue of pieces
 * @param <W> a piece of work
 */
public final class Stage<Q, W> {

  private static final Logger LOG = LoggerFactory.getLogger(Stage.class);
  private static final Duration LONGEST_SLEEP = Duration.ofMillis(100);
  private static final Duration BETWEEN_WAKES = Duration.ofMillis(10);
  private static final Duration PATIENCE = Duration.ofMillis(8);
  private static final int FEW = 4;
  private static final Duration AFTER_A_FAULT = Duration.ofSeconds(1);

  private final String name;
  private final Claims claims;
  private final WorkSignals.Signal signal;
  private final WorkSource<Q, W> source;
  private final Duration drain;
  private final Map<String, W> running = new ConcurrentHashMap<>();
  private final Map<Object, Integer> busy = new ConcurrentHashMap<>();
  private final Map<Q, Long> claimed = new HashMap<>();

  /** Until when queues are left alone whose claims failed. */
  private final Map<Q, Long> left = new HashMap<>();

  private final ExecutorService pool;
  private volatile boolean open;
  private boolean patient;
  private long woken = System.nanoTime() - BETWEEN_WAKES.toNanos();
  private Thread claimer = new Thread();

  /**
   * @param drain how long a stop waits for what is under way
   */
  public Stage(
      String name,
      Claims claims,
      WorkSignals.Signal signal,
      WorkSource<Q, W> source,
      Duration drain) {
    this.name = name;
    this.claims = claims;
    this.signal = signal;
    this.source = source;
    this.drain = drain;
    this.pool =
        Executors.newCachedThreadPool(
            Thread.ofPlatform().name(name + "-worker-", 1).daemon().factory());
  }

  public void start() {
    open = true;
    claimer = Thread.ofPlatform().name(name).daemon().start(this::claimAll);
    Thread unused = Thread.ofPlatform().name(name + "-renewer").daemon().start(this::renewAll);
  }

  private void claimAll() {
    while (open) {
      try {
        if (!claims.mayBeMade()) {
          // Neither what is due nor what was lost could be written down.
          signal.await(LONGEST_SLEEP);
          continue;
        }
        // What is ready goes first, but what waits for a time is not left for long.
        if (round() > 0 && hasWoken(LONGEST_SLEEP)) {
          continue;
        }
        boolean woke = wake();
        if ((!woke || round() == 0) && open) {
          signal.await(patient ? PATIENCE : woke ? LONGEST_SLEEP : BETWEEN_WAKES);
        }
      } catch (InterruptedException unwanted) {
        LOG.warn("{} was interrupted and goes on", name);
      } catch (Throwable e) {
        // What does not work now may work later; everything is still written down.
        LOG.error("{} could not look for work", name, e);
        pause();
      }
    }
  }

  /** However often it is signalled, what waits for a time is looked for only so often. */
  private boolean wake() {
    if (hasWoken(BETWEEN_WAKES)) {
      return false;
    }
    long now = System.nanoTime();
    woken = now;
    if (!attempt("look for what is due", () -> source.wake(Set.copyOf(running.keySet())))) {
      woken = now + AFTER_A_FAULT.toNanos();
    }
    return true;
  }

  /** Whether what waits for a time was looked for within this time, or is left after a fault. */
  private boolean hasWoken(Duration within) {
    return System.nanoTime() - woken < within.toNanos();
  }

  /**
   * Does one part of what the claimer does; that it fails keeps the other parts from nothing.
   *
   * @return whether it need not be left for a while
   */
  private boolean attempt(String what, Runnable part) {
    try {
      part.run();
      return true;
    } catch (ClaimLost lost) {
      // Another node was quicker; nothing of it was claimed here.
      LOG.info("{}: {}", name, lost.getMessage());
      return true;
    } catch (Throwable e) {
      LOG.error("{} could not {}", name, what, e);
      return false;
    }
  }

  private void pause() {
    try {
      TimeUnit.MILLISECONDS.sleep(AFTER_A_FAULT.toMillis());
    } catch (InterruptedException unwanted) {
      LOG.warn("{} was interrupted and goes on", name);
    }
  }

  private int round() {
    AtomicInteger taken = new AtomicInteger();
    patient = false;
    for (Q queue : source.queues()) {
      if (!open) {
        break;
      }
      Long until = left.get(queue);
      if (until != null && System.nanoTime() - until < 0) {
        continue;
      }
      left.remove(queue);
      if (!attempt("claim from " + queue, () -> taken.addAndGet(claim(queue)))) {
        left.put(queue, System.nanoTime() + AFTER_A_FAULT.toNanos());
      }
    }
    return taken.get();
  }

  private int claim(Q queue) {
    Object group = source.group(queue);
    int room = source.room(queue, busy.getOrDefault(group, 0));
    List<W> pieces = room > 0 && mayClaim(queue, room) ? source.claim(queue, room) : List.of();
    pieces.forEach(piece -> hand(group, piece));
    return pieces.size();
  }

  /**
   * A little patience makes one claim of several pieces out of several claims of one: where few
   * workers are free just after a claim, others are about to be.
   */
  private boolean mayClaim(Q queue, int room) {
    long now = System.nanoTime();
    Long last = claimed.get(queue);
    if (last != null && room < FEW && now - last < PATIENCE.toNanos()) {
      patient = true;
      return false;
    }
    claimed.put(queue, now);
    return true;
  }

  private void hand(Object group, W piece) {
    String claim = source.claimOf(piece);
    running.put(claim, piece);
    busy.merge(group, 1, Integer::sum);
    try {
      pool.execute(() -> carryOut(group, claim, piece));
    } catch (Throwable notStarted) {
      ended(group, claim);
      throw notStarted;
    }
  }

  private void carryOut(Object group, String claim, W piece) {
    try {
      source.work(piece);
    } catch (ClaimLost lost) {
      LOG.warn("{}: {}", name, lost.getMessage());
    } catch (Throwable broke) {
      LOG.error("{} could not finish {}", name, claim, broke);
      giveBack(claim, piece, broke);
    } finally {
      ended(group, claim);
      signal.raise();
    }
  }

  private void giveBack(String claim, W piece, Throwable broke) {
    try {
      source.giveBack(piece, broke);
    } catch (Throwable still) {
      // Nobody renews its claim, so that it comes back by time.
      LOG.error("{} could not give back {}", name, claim, still);
    }
  }

  private void ended(Object group, String claim) {
    running.remove(claim);
    busy.merge(group, -1, Integer::sum);
  }

  private void renewAll() {
    long pause = Math.max(20, claims.lease().toMillis() / 4);
    while (open || !running.isEmpty()) {
      try {
        TimeUnit.MILLISECONDS.sleep(pause);
        Set<String> held = Set.copyOf(running.keySet());
        if (!held.isEmpty()) {
          source.renew(held);
        }
      } catch (InterruptedException unwanted) {
        LOG.warn("{} was interrupted and goes on", name);
      } catch (Throwable e) {
        LOG.error("{} could not renew its claims", name, e);
      }
    }
  }

  /**
   * Takes no more work and waits for what is under way, for a stated time. Nothing is interrupted,
   * as an interrupt inside the database would close its file; what is not finished by then comes
   * back by time.
   */
  public void stop() {
    open = false;
    signal.raise();
    try {
      claimer.join(drain.toMillis());
      pool.shutdown();
      if (!pool.awaitTermination(drain.toMillis(), TimeUnit.MILLISECONDS)) {
        LOG.warn("{} stops with {} pieces under way; they come back by time", name, running.size());
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /** Whether the stage takes work. */
  public boolean isRunning() {
    return open;
  }

  /** How many pieces are worked on. */
  public int underWay() {
    return running.size();
  }
}
