package org.ysthmos.app.time;

import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;

/** The time as the application sees it: the machine's, moved by an offset that a test can set. */
@Component
public class AppClock implements InstantSource {

  /**
   * A time that goes by here before the machine's.
   *
   * @param from where it began
   * @param until the time of the machine
   */
  public record Past(Instant from, Instant until) {}

  private final AtomicReference<Duration> offset;
  private final Optional<Instant> begun;

  public AppClock(Settings settings) {
    boolean behind = settings.settableClock() && settings.clockBehind().isPositive();
    this.offset = new AtomicReference<>(behind ? settings.clockBehind().negated() : Duration.ZERO);
    this.begun =
        behind ? Optional.of(Instant.now().minus(settings.clockBehind())) : Optional.empty();
  }

  /** The past that is lived through; empty where the time is the machine's by now. */
  public Optional<Past> past() {
    return Objects.requireNonNull(offset.get()).isNegative()
        ? begun.map(from -> new Past(from, Instant.now()))
        : Optional.empty();
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
