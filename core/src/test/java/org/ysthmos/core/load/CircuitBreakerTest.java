package org.ysthmos.core.load;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;

class CircuitBreakerTest {

  private static final Instant NOON = Instant.parse("2026-11-26T12:00:00Z");
  private static final Failure DOWN = Failure.of(FailureKind.UNREACHABLE, "It does not answer");
  private final CircuitBreaker breaker =
      new CircuitBreaker(3, Duration.ofSeconds(1), Duration.ofSeconds(60));

  private void fails(int times, Instant at) {
    for (int i = 0; i < times; i++) {
      breaker.failed(DOWN, at);
    }
  }

  @Test
  void opensAfterSomeFailuresInARowAndNotBefore() {
    fails(2, NOON);
    breaker.answered();
    fails(2, NOON);
    assertThat(breaker.isClosed()).isTrue();
    fails(1, NOON.plusSeconds(5));
    assertThat(breaker.isClosed()).isFalse();
    assertThat(breaker.outage().orElseThrow().since()).isEqualTo(NOON);
    assertThat(breaker.outage().orElseThrow().last()).isEqualTo(DOWN);
  }

  @Test
  void letsOneProbeGoAtATimeAfterDoublingWaits() {
    fails(3, NOON);
    assertThat(breaker.admits(NOON)).isFalse();
    assertThat(breaker.take(NOON.plusSeconds(1))).isTrue();
    assertThat(breaker.take(NOON.plusSeconds(2))).as("a second probe").isFalse();
    breaker.failed(DOWN, NOON.plusSeconds(2));
    assertThat(breaker.outage().orElseThrow().nextProbe()).isEqualTo(NOON.plusSeconds(4));
    assertThat(breaker.take(NOON.plusSeconds(4))).isTrue();
    breaker.answered();
    assertThat(breaker.isClosed()).isTrue();
    assertThat(breaker.outage()).isEmpty();
  }

  @Test
  void tellsOnceThatItOpenedAndOnceThatItClosed() {
    AtomicInteger told = new AtomicInteger();
    CircuitBreaker telling =
        new CircuitBreaker(2, Duration.ofSeconds(1), Duration.ofMinutes(1), told::incrementAndGet);
    telling.answered();
    telling.failed(DOWN, NOON);
    assertThat(told).hasValue(0);
    telling.failed(DOWN, NOON);
    telling.failed(DOWN, NOON);
    assertThat(told).hasValue(1);
    telling.answered();
    telling.answered();
    assertThat(told).hasValue(2);
  }

  @Test
  void callsThatWereUnderWayWhenItOpenedDoNotMakeTheWaitsLonger() {
    fails(3 + 40, NOON);
    assertThat(breaker.outage().orElseThrow().nextProbe()).isEqualTo(NOON.plusSeconds(1));
  }

  @Test
  void systemThatIsDownForADayIsAskedOnceForEachLongestWait() {
    fails(3, NOON);
    int probes = 0;
    for (Instant now = NOON;
        now.isBefore(NOON.plus(Duration.ofDays(1)));
        now = now.plusSeconds(1)) {
      if (breaker.take(now)) {
        probes++;
        breaker.failed(DOWN, now);
      }
    }
    assertThat(probes).isBetween(24 * 60 - 10, 24 * 60 + 10);
  }

  @Test
  void probeWhoseResultNeverCameIsReplaced() {
    fails(3, NOON);
    assertThat(breaker.take(NOON.plusSeconds(1))).isTrue();
    assertThat(breaker.take(NOON.plusSeconds(100))).isFalse();
    assertThat(breaker.take(NOON.plusSeconds(122))).isTrue();
  }

  @Test
  void clockThatIsSetBackDoesNotKeepItClosedOff() {
    fails(3, NOON);
    assertThat(breaker.take(NOON.minus(Duration.ofDays(1)))).isTrue();
  }

  @Test
  void probeThatCalledNothingIsGivenBack() {
    fails(3, NOON);
    assertThat(breaker.take(NOON.plusSeconds(1))).isTrue();
    breaker.unused();
    assertThat(breaker.take(NOON.plusSeconds(1))).isTrue();
  }
}
