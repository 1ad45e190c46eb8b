package org.ysthmos.app.keep;

import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * How long what happened is kept. What is under way, what waits for a person, pairs and counts are
 * kept for good.
 *
 * @param stories how a trace went, line by line
 * @param traces what became of events, with their deliveries and failures
 * @param events what came, from which lookups among events are answered
 */
@ConfigurationProperties("ysthmos.keep")
public record KeepSettings(Duration stories, Duration traces, Duration events) {

  /**
   * @throws IllegalArgumentException if a trace would be kept longer than its event, or shorter
   *     than its story
   */
  public KeepSettings {
    if (stories.compareTo(traces) > 0 || traces.compareTo(events) > 0) {
      throw new IllegalArgumentException(
          "ysthmos.keep needs stories <= traces <= events, found %s, %s and %s"
              .formatted(stories, traces, events));
    }
  }
}
