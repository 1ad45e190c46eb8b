package org.ysthmos.app.work;

import java.time.Duration;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/** Wakes a stage when there may be work for it; what is not signalled is found a little later. */
@Component
public class WorkSignals {

  /** Wakes one stage; many raises wake it once. */
  public static final class Signal {
    private final Semaphore raised = new Semaphore(0);

    public void raise() {
      if (raised.availablePermits() == 0) {
        raised.release();
      }
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

  public Signal toDecide() {
    return toDecide;
  }

  public Signal toDeliver() {
    return toDeliver;
  }

  public Signal toPoll() {
    return toPoll;
  }

  /** Wakes every stage, since much may be due at once. */
  public void raiseAll() {
    toDecide.raise();
    toDeliver.raise();
    toPoll.raise();
  }
}
