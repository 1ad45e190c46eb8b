package org.ysthmos.core.load;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RateLimiterTest {

  private static final Instant NOON = Instant.parse("2026-11-24T12:00:00Z");
  private static final Duration MINUTE = Duration.ofMinutes(1);

  private static RateLimiter limiter(int calls) {
    return new RateLimiter(Optional.of(new RateLimit(calls, MINUTE)));
  }

  private static Instant after(long millis) {
    return NOON.plusMillis(millis);
  }

  @Test
  void laneWithoutALimitIsAlwaysOpen() {
    RateLimiter limiter = new RateLimiter(Optional.empty());
    for (int i = 0; i < 10_000; i++) {
      assertThat(limiter.take(NOON)).isZero();
    }
  }

  @Test
  void nextCallWaitsUntilTheOldestHasLeftTheSpan() {
    RateLimiter limiter = limiter(2);
    assertThat(limiter.take(NOON)).isZero();
    assertThat(limiter.take(after(10_000))).isZero();
    assertThat(limiter.take(after(15_000))).isEqualTo(Duration.ofMillis(45_200));
    assertThat(limiter.wait(2, after(15_000))).isEqualTo(Duration.ofMillis(55_200));
    assertThat(limiter.use(after(15_000)).made()).isEqualTo(2);
    assertThat(limiter.take(after(60_200))).isZero();
  }

  @Test
  void moreCallsThanTheLimitEverAllowsWaitForAnEmptySpan() {
    RateLimiter limiter = limiter(2);
    assertThat(limiter.wait(5, NOON)).isZero();
    limiter.take(NOON);
    assertThat(limiter.wait(5, after(1))).isEqualTo(Duration.ofMillis(60_199));
  }

  @Test
  void systemThatAsksToWaitIsNotCalled() {
    RateLimiter limiter = limiter(90);
    limiter.close(Duration.ofSeconds(30), NOON);
    limiter.close(Duration.ofSeconds(5), NOON);
    assertThat(limiter.take(after(1_000))).isEqualTo(Duration.ofSeconds(29));
    assertThat(limiter.use(after(1_000)).closedFor()).isEqualTo(Duration.ofSeconds(29));
    assertThat(limiter.take(after(30_000))).isZero();
  }

  @Test
  void clockThatIsSetBackForgetsWhatIsToCome() {
    RateLimiter limiter = limiter(1);
    limiter.take(NOON);
    limiter.close(Duration.ofDays(1), NOON);
    assertThat(limiter.take(NOON.minusSeconds(3600))).isZero();
  }

  /** The law: whatever is asked for when, no span holds more calls than the limit allows. */
  @ParameterizedTest
  @ValueSource(longs = {1, 7, 42, 20261125})
  void noSpanHoldsMoreCallsThanTheLimit(long seed) {
    Random random = new Random(seed);
    int most = 1 + random.nextInt(12);
    RateLimiter limiter = limiter(most);
    List<Instant> made = new ArrayList<>();
    Instant now = NOON;
    for (int i = 0; i < 3_000; i++) {
      Duration wait = limiter.take(now);
      if (wait.isZero()) {
        made.add(now);
      } else if (random.nextBoolean()) {
        // What it says to wait is enough, and no more than is needed.
        assertThat(limiter.wait(1, now.plus(wait).minusMillis(1))).as("seed %s", seed).isPositive();
        now = now.plus(wait);
        assertThat(limiter.wait(1, now)).as("seed %s", seed).isZero();
        continue;
      }
      now = now.plusMillis(random.nextInt(20_000));
    }
    for (int i = most; i < made.size(); i++) {
      assertThat(Duration.between(made.get(i - most), made.get(i)))
          .as("seed %s, call %s", seed, i)
          .isGreaterThan(MINUTE);
    }
  }
}
