package org.ysthmos.app.work;

import java.time.Duration;

/**
 * A thread that lives as long as the application, and looks again whenever its signal is raised.
 */
public final class KeptThread {

  private static final Duration LONGEST_STOP = Duration.ofSeconds(5);

  private final String name;
  private final WorkSignals.Signal signal;
  private final Runnable loop;
  private volatile boolean running;
  private Thread thread = new Thread();

  /**
   * @param signal raised when it is to stop, so that it does not wait on
   * @param loop ends once {@link #isRunning} is false
   */
  public KeptThread(String name, WorkSignals.Signal signal, Runnable loop) {
    this.name = name;
    this.signal = signal;
    this.loop = loop;
  }

  public void start() {
    running = true;
    thread = Thread.ofPlatform().name(name).daemon().start(loop);
  }

  /** Lets it end what it is at, for a few seconds at most. */
  public void stop() {
    running = false;
    signal.raise();
    try {
      thread.join(LONGEST_STOP);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  public boolean isRunning() {
    return running;
  }
}
