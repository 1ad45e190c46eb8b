package org.ysthmos.core.recurrence;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What of a recurrence is to be done, however long nobody looked and whatever the clock did. */
class DueTest {

  private static final Occurrences DAILY =
      new Occurrences(
          Recurrence.of(
              RecurrenceRule.parse("FREQ=DAILY"),
              ZoneId.of("America/Halifax"),
              LocalDateTime.parse("2026-01-01T06:00")),
          Optional.empty());
  private static final Instant MONDAY = Instant.parse("2026-10-26T12:00:00Z");

  private static Due due(CatchUp catchUp, Instant handled, Instant now) {
    return Due.of(DAILY, handled, now, catchUp, 100);
  }

  private static List<Instant> at(List<Occurrence> times) {
    return times.stream().map(one -> one.at().toInstant()).toList();
  }

  @Test
  void whatWasMissedInASleepIsMadeUpForAsStated() {
    Instant woke = MONDAY.plus(Duration.ofDays(4));
    assertThat(due(CatchUp.EACH, MONDAY, woke).made()).hasSize(4);
    Due latest = due(CatchUp.LATEST, MONDAY, woke);
    assertThat(at(latest.made())).containsExactly(Instant.parse("2026-10-30T09:00:00Z"));
    assertThat(latest.passed()).hasSize(3);
    Due none = due(CatchUp.NONE, MONDAY, woke);
    assertThat(none.made()).isEmpty();
    assertThat(none.passed()).hasSize(4);
    assertThat(none.until()).isEqualTo(woke);
  }

  @Test
  void whatIsLookedAtOnTimeIsMadeWhateverIsStated() {
    Instant six = Instant.parse("2026-10-27T09:00:00Z");
    for (CatchUp catchUp : CatchUp.values()) {
      assertThat(at(due(catchUp, MONDAY, six.plusSeconds(20)).made())).containsExactly(six);
      assertThat(due(catchUp, MONDAY, six.minusSeconds(1)).made()).isEmpty();
    }
  }

  @Test
  void clockThatIsSetBackMakesNothingTwice() {
    Due first = due(CatchUp.EACH, MONDAY, MONDAY.plus(Duration.ofDays(2)));
    Due back = due(CatchUp.EACH, first.until(), MONDAY);
    assertThat(back.made()).isEmpty();
    assertThat(back.until()).isEqualTo(first.until());
  }

  @Test
  void thousandMissedAreTakenSomeAtATime() {
    Instant now = MONDAY.plus(Duration.ofDays(1000));
    Instant handled = MONDAY;
    List<Occurrence> made = new ArrayList<>();
    Due due;
    do {
      due = Due.of(DAILY, handled, now, CatchUp.EACH, 64);
      assertThat(due.made()).hasSizeLessThanOrEqualTo(64);
      made.addAll(due.made());
      handled = due.until();
    } while (due.more());
    assertThat(made).hasSize(1000).doesNotHaveDuplicates();
    Due latest = Due.of(DAILY, MONDAY, now, CatchUp.LATEST, 64);
    assertThat(latest.made()).as("not the last of those that were taken at once").isEmpty();
  }

  /** Catching up after any sleeps is having been awake. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
  void eachIsMadeOnceWhenever(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    Instant end = MONDAY.plus(Duration.ofDays(120));
    List<Occurrence> awake = DAILY.between(MONDAY, end, 1000);
    List<Occurrence> made = new ArrayList<>();
    Instant handled = MONDAY;
    Instant now = MONDAY;
    while (now.isBefore(end)) {
      // Minutes, days, or a step of the clock backwards.
      long step =
          switch (random.nextInt(6)) {
            case 0 -> -random.nextLong(200_000);
            case 1 -> random.nextLong(1_000_000);
            default -> random.nextLong(20_000);
          };
      now = now.plusSeconds(step);
      now = now.isAfter(end) ? end : now;
      Due due = Due.of(DAILY, handled, now, CatchUp.EACH, 1 + random.nextInt(5));
      made.addAll(due.made());
      handled = due.until();
    }
    Due rest = Due.of(DAILY, handled, end, CatchUp.EACH, 1000);
    made.addAll(rest.made());
    assertThat(made).isEqualTo(awake);
  }
}
