package org.ysthmos.core.load;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.load.QuotaCourse.Point;

class QuotaCourseTest {

  private static final Instant MONDAY = Instant.parse("2026-11-02T00:00:00Z");

  private static Point at(double days, long used) {
    return new Point(MONDAY.plusMillis(Math.round(days * 86_400_000)), used);
  }

  @Test
  void isFullWhereALineThroughItWouldBe() {
    QuotaCourse course =
        QuotaCourse.of(List.of(at(0, 100), at(1, 140), at(2, 180), at(3, 220)), 300).orElseThrow();
    assertThat(course.perDay()).isEqualTo(40);
    assertThat(course.fullAt()).contains(MONDAY.plus(Duration.ofDays(5)));
  }

  /** One count that is far off does not bend it; least squares would say 28 a day. */
  @Test
  void oneWrongCountDoesNotBendIt() {
    assertThat(
            QuotaCourse.of(
                List.of(at(0, 10), at(1, 20), at(2, 30), at(3, 140), at(4, 50), at(5, 60)), 1_200))
        .get()
        .satisfies(course -> assertThat(course.perDay()).isEqualTo(10));
  }

  @Test
  void beginsAnewWhereSomebodyMadeRoom() {
    QuotaCourse course =
        QuotaCourse.of(
                List.of(at(0, 80), at(1, 90), at(2, 100), at(3, 20), at(4, 25), at(5, 30)), 100)
            .orElseThrow();
    assertThat(course.since()).isEqualTo(MONDAY.plus(Duration.ofDays(3)));
    assertThat(course.perDay()).isEqualTo(5);
    assertThat(course.fullAt()).contains(MONDAY.plus(Duration.ofDays(19)));
  }

  @Test
  void saysNothingWhereNothingIsKnown() {
    assertThat(QuotaCourse.of(List.of(), 10)).isEmpty();
    assertThat(QuotaCourse.of(List.of(at(0, 1), at(2, 2)), 10)).isEmpty();
    assertThat(QuotaCourse.of(List.of(at(0, 1), at(0.1, 2), at(0.2, 3)), 10)).isEmpty();
    assertThat(QuotaCourse.of(List.of(at(0, 5), at(1, 5), at(2, 5)), 10).orElseThrow().fullAt())
        .isEmpty();
    assertThat(QuotaCourse.of(List.of(at(0, 5), at(1, 4), at(2, 4)), 100).orElseThrow().fullAt())
        .isEmpty();
  }

  static LongStream seeds() {
    return LongStream.range(0, 30);
  }

  /** Adding to all what a steady pace adds, adds that pace; another unit of what is used scales. */
  @ParameterizedTest
  @MethodSource("seeds")
  void paceMovesWithWhatIsUsed(long seed) {
    Random random = new Random(seed);
    List<Point> points = new ArrayList<>();
    List<Point> steeper = new ArrayList<>();
    for (int day = 0; day < 20; day++) {
      long used = 1_000 + random.nextInt(400);
      points.add(at(day, used));
      steeper.add(at(day, 3 * used + 7L * day));
    }
    double pace = QuotaCourse.of(points, 100_000).orElseThrow().perDay();
    double other = QuotaCourse.of(steeper, 100_000).orElseThrow().perDay();
    assertThat(other).as("seed %d", seed).isCloseTo(3 * pace + 7, within(1e-6));
  }
}
