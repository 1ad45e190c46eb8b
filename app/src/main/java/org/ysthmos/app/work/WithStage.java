package org.ysthmos.app.work;

import org.springframework.context.SmartLifecycle;

/** What has a stage starts and stops with the application. */
public interface WithStage extends SmartLifecycle {

  Stage<?, ?> stage();

  @Override
  default void start() {
    stage().start();
  }

  @Override
  default void stop() {
    stage().stop();
  }

  @Override
  default boolean isRunning() {
    return stage().isRunning();
  }

  /** It goes before the journal, through which it writes. */
  @Override
  default int getPhase() {
    return 100;
  }
}
