package org.ysthmos.app.work;

import java.time.Duration;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.IntFunction;
import java.util.function.Predicate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * One claimer and several workers: the claimer reads what is ready in order, takes it, and hands it
 * to a free worker. What a worker could not finish is handed back, so that it is not left lying.
 *
 * @param <W> a piece of work
 */
public final class Stage<W> {

  private static final Logger LOG = LoggerFactory.getLogger(Stage.class);
  private static final Duration LONGEST_SLEEP = Duration.ofMillis(200);

  private final String name;
  private final int workers;
  private final WorkSignals.Signal signal;
  private final IntFunction<List<W>> ready;
  private final Predicate<W> claim;
  private final Consumer<W> work;
  private final Consumer<W> handBack;
  private final Semaphore free;
  private volatile boolean running;
  private final ExecutorService pool;
  private Thread claimer = new Thread();

  /**
   * @param ready reads at most so many pieces of work, in order
   * @param claim takes a piece; false if another took it
   * @param handBack puts a piece back for later, after its work broke unexpectedly
   */
  public Stage(
      String name,
      int workers,
      WorkSignals.Signal signal,
      IntFunction<List<W>> ready,
      Predicate<W> claim,
      Consumer<W> work,
      Consumer<W> handBack) {
    this.name = name;
    this.workers = workers;
    this.signal = signal;
    this.ready = ready;
    this.claim = claim;
    this.work = work;
    this.handBack = handBack;
    this.free = new Semaphore(workers);
    this.pool = Executors.newFixedThreadPool(workers, Thread.ofPlatform().name(name, 1).factory());
  }

  public void start() {
    running = true;
    claimer = Thread.ofPlatform().name(name).start(this::run);
  }

  private void run() {
    while (running) {
      try {
        if (round() == 0) {
          signal.await(LONGEST_SLEEP);
        }
      } catch (InterruptedException stopped) {
        break;
      } catch (RuntimeException e) {
        // A database that cannot answer now may answer later; the work is still written down.
        LOG.error("{} could not look for work", name, e);
        pause();
      }
    }
  }

  private void pause() {
    try {
      TimeUnit.SECONDS.sleep(1);
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
  }

  private int round() throws InterruptedException {
    int taken = 0;
    for (W piece : ready.apply(workers * 4)) {
      free.acquire();
      if (!running || !claim.test(piece)) {
        free.release();
        continue;
      }
      taken++;
      pool.execute(
          () -> {
            try {
              carryOut(piece);
            } finally {
              free.release();
              signal.raise();
            }
          });
    }
    return taken;
  }

  private void carryOut(W piece) {
    try {
      work.accept(piece);
    } catch (RuntimeException e) {
      LOG.error("{} could not finish {}", name, piece, e);
      try {
        handBack.accept(piece);
      } catch (RuntimeException still) {
        // It stays taken; the next start releases it.
        LOG.error("{} could not hand back {}", name, piece, still);
      }
    }
  }

  /** Stops taking work and gives what is under way a moment to finish. */
  public void stop() {
    running = false;
    claimer.interrupt();
    pool.shutdown();
    try {
      if (!pool.awaitTermination(3, TimeUnit.SECONDS)) {
        pool.shutdownNow();
      }
    } catch (InterruptedException e) {
      pool.shutdownNow();
      Thread.currentThread().interrupt();
    }
  }

  public boolean isRunning() {
    return running;
  }
}
