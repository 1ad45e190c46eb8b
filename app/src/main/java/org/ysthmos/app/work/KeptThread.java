package org.ysthmos.app.work;

import java.time.Duration;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A thread that lives as long as the application, and looks again whenever its signal is raised.
 */
public final class KeptThread {

  /** What is done again and again. */
  public interface Round {
    void run() throws InterruptedException;
  }

  private static final Logger LOG = LoggerFactory.getLogger(KeptThread.class);
  private static final Duration LONGEST_STOP = Duration.ofSeconds(5);

  private final String name;
  private final WorkSignals.Signal signal;
  private final Consumer<KeptThread> loop;
  private volatile boolean running;
  private Thread thread = new Thread();

  /**
   * @param signal raised when it is to stop, so that it does not wait on
   * @param loop ends once {@link #isRunning} is false
   */
  public KeptThread(String name, WorkSignals.Signal signal, Runnable loop) {
    this(name, signal, (KeptThread self) -> loop.run());
  }

  private KeptThread(String name, WorkSignals.Signal signal, Consumer<KeptThread> loop) {
    this.name = name;
    this.signal = signal;
    this.loop = loop;
  }

  /**
   * One that does one round after the other. What breaks a round is told in the log, and the next
   * begins.
   *
   * @param between how long after a round the next begins at the latest
   * @param broke what is said where a round broke
   */
  public static KeptThread ofRounds(
      String name,
      WorkSignals.Signal signal,
      Supplier<Duration> between,
      Round round,
      String broke) {
    return new KeptThread(name, signal, (KeptThread self) -> self.rounds(between, round, broke));
  }

  private void rounds(Supplier<Duration> between, Round round, String broke) {
    while (running) {
      try {
        signal.await(between.get());
        if (running) {
          round.run();
        }
      } catch (InterruptedException unwanted) {
        LOG.warn("{} was interrupted and goes on", name);
      } catch (Throwable e) {
        LOG.error(broke, e);
      }
    }
  }

  public void start() {
    running = true;
    thread = Thread.ofPlatform().name(name).daemon().start(() -> loop.accept(this));
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
