package org.ysthmos.core.testplan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class TestRhythmTest {

  private static Optional<LocalDate> day(String written) {
    return Optional.ofNullable(written).map(LocalDate::parse);
  }

  @ParameterizedTest
  @CsvSource({
    "30, 2026-12-01, , 2026-12-01",
    "30, 2026-12-01, 2026-12-01, 2026-12-31",
    // Late: as long as ever until the next one.
    "30, 2026-12-01, 2026-12-20, 2027-01-19",
    // Tested before it was planned: not before the first day that is wanted.
    "30, 2027-03-01, 2026-12-20, 2027-03-01",
    "90, 2023-11-30, 2023-12-01, 2024-02-29",
  })
  void everySoManyDaysAfterTheLast(int days, String first, String tested, String due) {
    assertThat(new TestRhythm.Every(days).due(LocalDate.parse(first), day(tested)))
        .isEqualTo(day(due));
  }

  @ParameterizedTest
  @CsvSource({
    // The first Mondays of December 2026 and January 2027, from a wall calendar.
    "FREQ=MONTHLY;BYDAY=1MO, 2026-11-20, , 2026-12-07",
    "FREQ=MONTHLY;BYDAY=1MO, 2026-11-20, 2026-12-06, 2026-12-07",
    "FREQ=MONTHLY;BYDAY=1MO, 2026-11-20, 2026-12-07, 2027-01-04",
    // It stays due since the day that nobody tested on.
    "every Monday, 2026-11-20, 2026-11-24, 2026-11-30",
    "FREQ=DAILY;INTERVAL=10;COUNT=2, 2026-12-01, 2026-12-11, ",
    "FREQ=YEARLY;UNTIL=20270101, 2026-12-24, 2026-12-24, ",
  })
  void onTheDaysOfARule(String rule, String first, String tested, String due) {
    assertThat(TestRhythm.ByRule.said(rule).due(LocalDate.parse(first), day(tested)))
        .isEqualTo(day(due));
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8})
  void whoeverTestsOnTheDayItIsDueIsAskedLaterAndNeverTwice(int seed) {
    SplittableRandom random = new SplittableRandom(seed);
    LocalDate first = LocalDate.of(2026, 1, 1).plusDays(random.nextInt(700));
    TestRhythm rhythm =
        random.nextBoolean()
            ? new TestRhythm.Every(1 + random.nextInt(120))
            : TestRhythm.ByRule.said("every %d weeks".formatted(2 + random.nextInt(9)));
    LocalDate due = rhythm.due(first, Optional.empty()).orElseThrow();
    assertThat(due).isAfterOrEqualTo(first);
    for (int i = 0; i < 20; i++) {
      LocalDate next = rhythm.due(first, Optional.of(due)).orElseThrow();
      assertThat(next).isAfter(due);
      due = next;
    }
  }

  @ParameterizedTest
  @CsvSource({
    "every Monday at 09:00, leave out the time of day",
    "the last working day of each month, asks no calendar",
    "FREQ=HOURLY, a rule of days at least",
    "now and then, says nothing that comes round",
  })
  void whatSaysMoreThanDaysIsRefused(String words, String message) {
    assertThatThrownBy(() -> TestRhythm.ByRule.said(words))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining(message);
  }

  @ParameterizedTest
  @ValueSource(ints = {0, -1, 3661})
  void soManyDaysAreNone(int days) {
    assertThatThrownBy(() -> new TestRhythm.Every(days)).hasMessageContaining("every 1 to 3,660");
  }
}
