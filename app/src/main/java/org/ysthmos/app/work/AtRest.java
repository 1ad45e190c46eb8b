package org.ysthmos.app.work;

import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.context.Lifecycle;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.support.AbstractApplicationContext;
import org.springframework.context.support.DefaultLifecycleProcessor;
import org.springframework.scheduling.annotation.EnableScheduling;

/**
 * Whether anything goes on by itself. An installation that a command opens rests: what it keeps can
 * be read and changed, and nothing is taken in, decided or sent.
 */
final class AtRest {

  private AtRest() {}

  /** What goes on at its times. */
  @Configuration
  @EnableScheduling
  @ConditionalOnProperty(name = "ysthmos.at-rest", havingValue = "false", matchIfMissing = true)
  static class Times {}

  /** Stages and threads stay where they are. */
  @Configuration
  @ConditionalOnProperty(name = "ysthmos.at-rest", havingValue = "true")
  static class Still {

    @Bean(AbstractApplicationContext.LIFECYCLE_PROCESSOR_BEAN_NAME)
    static DefaultLifecycleProcessor whatIsNeeded() {
      return new DefaultLifecycleProcessor() {
        @Override
        protected Map<String, Lifecycle> getLifecycleBeans() {
          Map<String, Lifecycle> needed = new LinkedHashMap<>(super.getLifecycleBeans());
          needed.values().removeIf(one -> one instanceof WithStage || one instanceof WithThread);
          return needed;
        }
      };
    }
  }
}
