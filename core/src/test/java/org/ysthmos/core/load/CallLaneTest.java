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

class CallLaneTest {

  private static final Instant NOON = Instant.parse("2026-11-24T12:00:00Z");
  private static final Duration MINUTE = Duration.ofMinutes(1);

  private static CallLane lane(int calls) {
    return new CallLane(Optional.of(new RateLimit(calls, MINUTE)));
  }

  private static Instant after(long millis) {
    return NOON.plusMillis(millis);
  }

  @Test
  void laneWithoutALimitIsAlwaysOpen() {
    CallLane lane = new CallLane(Optional.empty());
    for (int i = 0; i < 10_000; i++) {
      assertThat(lane.take(NOON)).isZero();
    }
  }

  @Test
  void nextCallWaitsUntilTheOldestHasLeftTheSpan() {
    CallLane lane = lane(2);
    assertThat(lane.take(NOON)).isZero();
    assertThat(lane.take(after(10_000))).isZero();
    assertThat(lane.take(after(15_000))).isEqualTo(Duration.ofMillis(45_200));
    assertThat(lane.wait(2, after(15_000))).isEqualTo(Duration.ofMillis(55_200));
    assertThat(lane.use(after(15_000)).made()).isEqualTo(2);
    assertThat(lane.take(after(60_200))).isZero();
  }

  @Test
  void moreCallsThanTheLimitEverAllowsWaitForAnEmptySpan() {
    CallLane lane = lane(2);
    assertThat(lane.wait(5, NOON)).isZero();
    lane.take(NOON);
    assertThat(lane.wait(5, after(1))).isEqualTo(Duration.ofMillis(60_199));
  }

  @Test
  void systemThatAsksToWaitIsNotCalled() {
    CallLane lane = lane(90);
    lane.close(Duration.ofSeconds(30), NOON);
    lane.close(Duration.ofSeconds(5), NOON);
    assertThat(lane.take(after(1_000))).isEqualTo(Duration.ofSeconds(29));
    assertThat(lane.use(after(1_000)).closedFor()).isEqualTo(Duration.ofSeconds(29));
    assertThat(lane.take(after(30_000))).isZero();
  }

  @Test
  void clockThatIsSetBackForgetsWhatIsToCome() {
    CallLane lane = lane(1);
    lane.take(NOON);
    lane.close(Duration.ofDays(1), NOON);
    assertThat(lane.take(NOON.minusSeconds(3600))).isZero();
  }

  /** The law: whatever is asked for when, no span holds more calls than the limit allows. */
  @ParameterizedTest
  @ValueSource(longs = {1, 7, 42, 20261125})
  void noSpanHoldsMoreCallsThanTheLimit(long seed) {
    Random random = new Random(seed);
    int most = 1 + random.nextInt(12);
    CallLane lane = lane(most);
    List<Instant> made = new ArrayList<>();
    Instant now = NOON;
    for (int i = 0; i < 3_000; i++) {
      Duration wait = lane.take(now);
      if (wait.isZero()) {
        made.add(now);
      } else if (random.nextBoolean()) {
        // What it says to wait is enough, and no more than is needed.
        assertThat(lane.wait(1, now.plus(wait).minusMillis(1))).as("seed %s", seed).isPositive();
        now = now.plus(wait);
        assertThat(lane.wait(1, now)).as("seed %s", seed).isZero();
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
