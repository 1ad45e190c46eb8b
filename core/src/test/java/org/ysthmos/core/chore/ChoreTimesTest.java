package org.ysthmos.core.chore;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.chore.ChoreTimes.Progress;
import org.ysthmos.core.chore.ChoreTimes.ToMake;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.recurrence.Recurrence;
import org.ysthmos.core.recurrence.RecurrenceRule;
import org.ysthmos.core.testkit.Garden;

/** When the tasks of a chore are made, whenever somebody looks. */
class ChoreTimesTest {

  private static final Instant SINCE = Instant.parse("2026-09-01T00:00:00Z");
  private static final Instant END = Instant.parse("2027-09-01T00:00:00Z");

  private static final List<String> RULES =
      List.of(
          "FREQ=WEEKLY;BYDAY=MO",
          "FREQ=DAILY;INTERVAL=10",
          "FREQ=MONTHLY;BYMONTHDAY=-1",
          "FREQ=DAILY",
          "FREQ=WEEKLY;INTERVAL=4;BYDAY=FR,SU");

  private static ChoreTimes drawn(Random random) {
    Recurrence rule =
        Recurrence.of(
            RecurrenceRule.parse(RULES.get(random.nextInt(RULES.size()))),
            ZoneId.of(random.nextBoolean() ? "Europe/Lisbon" : "Pacific/Auckland"),
            LocalDateTime.parse("2026-08-03T01:30"));
    OffDays offDays = OffDays.values()[random.nextInt(4)];
    Lead lead = new Lead(random.nextInt(8), random.nextBoolean());
    return new ChoreTimes(
        new Chore(rule.with(offDays, "office"), lead, false, ""),
        Garden.CATALOG.calendar("office"),
        Duration.ofMinutes(random.nextInt(10)));
  }

  static List<Integer> seeds() {
    return IntStream.range(0, 40).boxed().toList();
  }

  /** Looks again and again, after sleeps of any length, and gives all that was made. */
  private static List<ToMake> madeWith(ChoreTimes times, Random sleeps, CatchUp catchUp, int most) {
    List<ToMake> made = new ArrayList<>();
    Progress progress = Progress.from(SINCE);
    Instant now = SINCE;
    while (!now.isAfter(END)) {
      ChoreTimes.Look look = times.look(progress, now, catchUp, most);
      made.addAll(look.made());
      progress = look.after();
      boolean more = look.next().filter(next -> !next.make().isAfter(SINCE)).isPresent();
      now = now.plusSeconds(more ? 1 : 1 + sleeps.nextInt(40 * 86_400));
    }
    boolean goesOn = true;
    while (goesOn) {
      ChoreTimes.Look look = times.look(progress, END, catchUp, most);
      made.addAll(look.made());
      progress = look.after();
      goesOn = look.next().filter(next -> !next.make().isAfter(END)).isPresent();
    }
    return made;
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void afterAnySleepsItIsAsIfItHadBeenAwake(int seed) {
    Random random = new Random(seed);
    ChoreTimes times = drawn(random);
    List<ToMake> all =
        times.after(Progress.from(SINCE), 2000).stream()
            .takeWhile(one -> !one.make().isAfter(END))
            .toList();
    assertThat(all).isNotEmpty();
    assertThat(madeWith(times, random, CatchUp.EACH, 1 + random.nextInt(20))).isEqualTo(all);
    assertThat(all).isSortedAccordingTo((a, b) -> a.make().compareTo(b.make()));
    assertThat(all).allMatch(one -> !one.make().isBefore(SINCE));
  }

  @Test
  void ofWhatWasMissedTheLatestAloneIsMadeOrNone() {
    Recurrence daily =
        Recurrence.of(
            RecurrenceRule.parse("FREQ=DAILY"),
            ZoneId.of("UTC"),
            LocalDateTime.parse("2026-09-01T06:00"));
    ChoreTimes times =
        new ChoreTimes(new Chore(daily, Lead.NONE, false, ""), Optional.empty(), Duration.ZERO);
    Instant later = SINCE.plus(Duration.ofDays(5));
    ChoreTimes.Look latest = times.look(Progress.from(SINCE), later, CatchUp.LATEST, 10);
    assertThat(latest.made()).hasSize(1);
    assertThat(latest.passed()).hasSize(4);
    ChoreTimes.Look none = times.look(Progress.from(SINCE), later, CatchUp.NONE, 10);
    assertThat(none.made()).isEmpty();
    assertThat(none.passed()).hasSize(5);
    assertThat(none.after()).isEqualTo(latest.after());
    assertThat(none.next().orElseThrow().make()).isEqualTo(Instant.parse("2026-09-06T06:00:00Z"));
  }

  @ParameterizedTest
  @ValueSource(strings = {"2026-08-20T06:00", "2026-09-20T06:00"})
  void whatCountsFromWhenItWasDoneIsMadeOnceThoughItIsPast(String said) {
    TreeSet<LocalDateTime> once = new TreeSet<>(List.of(LocalDateTime.parse(said)));
    Recurrence recurrence =
        new Recurrence(
            Optional.empty(),
            ZoneId.of("UTC"),
            once.first(),
            Optional.empty(),
            new TreeSet<>(),
            once,
            OffDays.KEEP,
            Optional.empty());
    ChoreTimes times =
        new ChoreTimes(new Chore(recurrence, Lead.NONE, true, ""), Optional.empty(), Duration.ZERO);
    ChoreTimes.Look look =
        times.look(Progress.from(SINCE), SINCE.plus(Duration.ofDays(30)), CatchUp.EACH, 10);
    assertThat(look.made()).hasSize(1);
    assertThat(look.next()).isEmpty();
    assertThat(times.look(look.after(), END, CatchUp.EACH, 10).made()).isEmpty();
  }

  @Test
  void sharesOfASpanAreAlwaysTheSameAndFillIt() {
    Duration span = Duration.ofMinutes(10);
    List<Long> shares =
        IntStream.range(0, 10_000)
            .mapToObj(i -> ChoreTimes.share("r-" + i, span).toMinutes())
            .toList();
    for (long minute = 0; minute < 10; minute++) {
      long wanted = minute;
      assertThat(shares.stream().filter(one -> one == wanted).count()).isBetween(800L, 1200L);
    }
    assertThat(ChoreTimes.share("r-7", span)).isEqualTo(ChoreTimes.share("r-7", span));
    assertThat(ChoreTimes.share("r-7", Duration.ZERO)).isZero();
  }
}
