package org.ysthmos.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class AheadWaitsTest {

  private static final Instant NOW = Instant.parse("2026-11-26T10:00:00Z");

  @Test
  void looksThroughWaitsLongerThanUsualThatWereWrittenDownLaterThanNow() {
    AheadWaits waits =
        new AheadWaits(
            Duration.ofMinutes(15),
            (far, ahead) -> {
              assertThat(far).isEqualTo(NOW.plus(Duration.ofMinutes(15)));
              assertThat(ahead).isEqualTo(NOW.plus(Duration.ofMinutes(1)));
              return List.of(7L);
            });
    assertThat(waits.look(NOW)).containsExactly(7L);
  }

  @Test
  void doesNotLookAgainAtOnceHoweverOftenItIsAsked() {
    AheadWaits waits = new AheadWaits(Duration.ofMinutes(15), (far, ahead) -> List.of(7L));
    waits.look(NOW);
    assertThat(waits.look(NOW.plus(Duration.ofDays(1)))).isEmpty();
  }

  @Test
  void clocksOfSeveralMachinesMayDifferABit() {
    assertThat(AheadWaits.isAhead(NOW.plusSeconds(60), NOW)).isFalse();
    assertThat(AheadWaits.isAhead(NOW.plusSeconds(61), NOW)).isTrue();
  }
}
