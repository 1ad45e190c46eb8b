package org.ysthmos.app.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;

class LiveFeedTest {

  /** A stream that nobody has taken up yet takes words in, as one that is not read does. */
  @Test
  void browserThatDoesNotReadKeepsNobodyWaiting() {
    LiveFeed feed = new LiveFeed();
    for (int i = 0; i < 20; i++) {
      feed.listen();
    }
    Instant began = Instant.now();
    for (int i = 0; i < 50_000; i++) {
      feed.changed("bridge", "trace-" + i);
    }
    assertThat(Duration.between(began, Instant.now())).isLessThan(Duration.ofSeconds(20));
    assertThat(feed.listeners()).isLessThanOrEqualTo(20);
  }

  @Test
  void oldestIsLetGoWhereThereAreTooMany() {
    LiveFeed feed = new LiveFeed();
    for (int i = 0; i < 150; i++) {
      feed.listen();
    }
    assertThat(feed.listeners()).isEqualTo(100);
  }
}
