package org.ysthmos.standins.clock;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.concurrent.atomic.AtomicReference;

/** The system's time, moved by an offset that can be changed while running. */
public final class ControlledClock implements InstantSource {

  private final AtomicReference<Duration> offset = new AtomicReference<>(Duration.ZERO);

  @Override
  public Instant instant() {
    return Instant.now().plus(offset.get());
  }

  /** From now on it is {@code now} here, and time goes on from there. */
  public void set(Instant now) {
    offset.set(Duration.between(Instant.now(), now));
  }

  /** Goes back to the system's time. */
  public void release() {
    offset.set(Duration.ZERO);
  }
}
