package org.ysthmos.app.work;

import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.stereotype.Component;

/** Wakes a stage when there may be work for it; what is not signalled is found a little later. */
@Component
public class WorkSignals {

  /** Wakes one stage; many raises wake it once. */
  public static final class Signal {
    private final Semaphore raised = new Semaphore(0);
    private final AtomicLong times = new AtomicLong();

    public void raise() {
      times.incrementAndGet();
      if (raised.availablePermits() == 0) {
        raised.release();
      }
    }

    /** How often it was raised. */
    public long times() {
      return times.get();
    }

    /** Waits until it is raised, but no longer than this. */
    public void await(Duration longest) throws InterruptedException {
      if (raised.tryAcquire(longest.toMillis(), TimeUnit.MILLISECONDS)) {
        raised.drainPermits();
      }
    }
  }

  private final Signal toDecide = new Signal();
  private final Signal toDeliver = new Signal();
  private final Signal toPoll = new Signal();
  private final Signal toWatch = new Signal();
  private final Signal toTime = new Signal();
  private final Signal toChores = new Signal();

  public Signal toDecide() {
    return toDecide;
  }

  public Signal toDeliver() {
    return toDeliver;
  }

  public Signal toPoll() {
    return toPoll;
  }

  /** Raised when a bridge went live or was released, or the time was set. */
  public Signal toTime() {
    return toTime;
  }

  /** Raised when a row may come round, beside all that raises {@link #toTime}. */
  public Signal toChores() {
    return toChores;
  }

  /**
   * Raised when something failed or was settled, a system stopped or began to answer, or a bridge
   * holds itself or is released.
   */
  public Signal toWatch() {
    return toWatch;
  }

  /** Wakes every stage, since much may be due at once. */
  public void raiseAll() {
    toDecide.raise();
    toDeliver.raise();
    toPoll.raise();
    toTime.raise();
    toChores.raise();
  }
}
