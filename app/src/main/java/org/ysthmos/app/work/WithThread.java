package org.ysthmos.app.work;

import org.springframework.context.SmartLifecycle;

/** What has a thread that is kept starts and stops with the application. */
public interface WithThread extends SmartLifecycle {

  KeptThread thread();

  @Override
  default void start() {
    thread().start();
  }

  @Override
  default void stop() {
    thread().stop();
  }

  @Override
  default boolean isRunning() {
    return thread().isRunning();
  }

  /** After the journal is there, and before it goes. */
  @Override
  default int getPhase() {
    return 1;
  }
}
