package org.ysthmos.app.work;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Something that is done on a thread of its own, once at a time. */
public final class Errand {

  private static final Logger LOG = LoggerFactory.getLogger(Errand.class);

  private final String name;
  private final ExecutorService thread;
  private final AtomicBoolean underWay = new AtomicBoolean();

  public Errand(String name) {
    this.name = name;
    this.thread =
        Executors.newSingleThreadExecutor(Thread.ofPlatform().name(name).daemon().factory());
  }

  public boolean isUnderWay() {
    return underWay.get();
  }

  /**
   * Begins it, unless it is under way.
   *
   * @param failed learns why it broke off, to tell a person
   */
  public void begin(Runnable errand, Consumer<String> failed) {
    if (!underWay.compareAndSet(false, true)) {
      return;
    }
    thread.execute(
        () -> {
          try {
            errand.run();
          } catch (RuntimeException e) {
            LOG.error("{} broke off", name, e);
            failed.accept(String.valueOf(e.getMessage()));
          } finally {
            underWay.set(false);
          }
        });
  }
}
