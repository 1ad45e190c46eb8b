package org.ysthmos.app.time;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.concurrent.atomic.AtomicReference;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;

/** The time as the application sees it: the machine's, moved by an offset that a test can set. */
@Component
public class AppClock implements InstantSource {

  private final AtomicReference<Duration> offset;

  public AppClock(Settings settings) {
    this.offset =
        new AtomicReference<>(
            settings.settableClock() ? settings.clockBehind().negated() : Duration.ZERO);
  }

  @Override
  public Instant instant() {
    return Instant.now().plus(offset.get());
  }

  /** From now on it is {@code now}, and time goes on from there. */
  public void set(Instant now) {
    offset.set(Duration.between(Instant.now(), now));
  }

  public void release() {
    offset.set(Duration.ZERO);
  }
}
