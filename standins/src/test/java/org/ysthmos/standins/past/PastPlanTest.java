package org.ysthmos.standins.past;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is planned for the garden's past, before any of it is carried out. */
class PastPlanTest {

  /** A Thursday noon; the clocks went back on 25 October, outside of the thirty days. */
  private static final Instant END = Instant.parse("2026-11-26T12:00:00Z");

  private static Season season(int days, long seed) {
    return new Season(END, days, seed);
  }

  private static List<String> told(Season season) {
    return Past.plan(season).stream().map(one -> one.at() + " " + one.what()).toList();
  }

  private static List<ZonedDateTime> times(String beginning) {
    return Past.plan(season(30, 1)).stream()
        .filter(one -> one.what().startsWith(beginning))
        .map(one -> one.at().atZone(Season.ZONE))
        .toList();
  }

  @Test
  void sameSeedGivesTheSamePastAndAnotherAnother() {
    assertThat(told(season(30, 7))).isEqualTo(told(season(30, 7)));
    assertThat(told(season(30, 8))).isNotEqualTo(told(season(30, 7)));
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 7, 30, 60})
  void everythingHappensInOrderAndWithinTheSeason(int days) {
    for (long seed = 0; seed < 5; seed++) {
      Season season = season(days, seed);
      List<Happening> plan = Past.plan(season);
      assertThat(plan).isSortedAccordingTo(Comparator.comparing(Happening::at));
      assertThat(plan).allMatch(one -> season.holds(one.at()));
      assertThat(plan).hasSizeGreaterThan(days * 30);
    }
  }

  @Test
  void visitorsComeMoreAtWeekendsAndNotAtNight() {
    Map<DayOfWeek, Long> byDay = new EnumMap<>(DayOfWeek.class);
    times("a visitor reports").forEach(at -> byDay.merge(at.getDayOfWeek(), 1L, Long::sum));
    long weekend = byDay.get(DayOfWeek.SATURDAY) + byDay.get(DayOfWeek.SUNDAY);
    long workdays = byDay.values().stream().mapToLong(Long::longValue).sum() - weekend;
    assertThat(weekend / 2.0).isGreaterThan(1.3 * workdays / 5.0);
    assertThat(times("a visitor reports")).allMatch(at -> at.getHour() >= 6 && at.getHour() <= 20);
  }

  /** Long enough for an alarm; a short season in which nothing is usual yet has no such span. */
  @Test
  void formIsClosedOnceByMistake() {
    List<ZonedDateTime> reports = times("a visitor reports").stream().distinct().toList();
    List<ZonedDateTime> after =
        reports.subList(1, reports.size()).stream().filter(at -> longBefore(at, reports)).toList();
    assertThat(after).hasSize(1);
    assertThat(after.getFirst().getDayOfWeek()).isEqualTo(DayOfWeek.SUNDAY);
    Season shortOne = season(7, 1);
    assertThat(shortOne.dates()).noneMatch(day -> shortOne.isSilent(Season.at(day, 12, 0)));
  }

  /** Whether nothing was reported for a day and a half before. */
  private static boolean longBefore(ZonedDateTime at, List<ZonedDateTime> reports) {
    return reports.stream().noneMatch(one -> one.isBefore(at) && one.isAfter(at.minusHours(36)));
  }

  @Test
  void thoseWhoWorkHereDoSoOnWorkdays() {
    for (String what : List.of("the works department", "the grounds crew", "an exhibition")) {
      assertThat(times(what)).isNotEmpty().allMatch(at -> Season.isWorkday(at.toLocalDate()));
    }
  }

  @Test
  void everyTroubleIsPutRightAfterItBegan() {
    Map<String, List<Happening>> bySystem =
        Past.plan(season(30, 1)).stream()
            .filter(
                one -> one.what().contains(" is in trouble") || one.what().endsWith("put right"))
            .collect(Collectors.groupingBy(one -> one.what().replaceFirst(" .*", "")));
    assertThat(bySystem).hasSizeGreaterThan(5);
    bySystem.forEach(
        (system, happenings) -> {
          boolean troubled = false;
          for (Happening one : happenings) {
            boolean begins = one.what().contains("in trouble");
            assertThat(begins).as(system + " at " + one.at()).isNotEqualTo(troubled);
            troubled = begins;
          }
          assertThat(troubled).as(system + " stays in trouble").isFalse();
        });
  }

  /** Whoever reads the ledger while it refuses everyone would end the past there. */
  @Test
  void jobsGoOnWhileTheLedgerIsNotInTrouble() {
    for (long seed = 0; seed < 20; seed++) {
      boolean troubled = false;
      int jobs = 0;
      for (Happening one : Past.plan(season(30, seed))) {
        if (one.what().startsWith("works-ledger is")) {
          troubled = one.what().contains("in trouble");
        } else if (one.what().startsWith("the works department goes on")) {
          assertThat(troubled).as("at " + one.at()).isFalse();
          jobs++;
        }
      }
      assertThat(jobs).isGreaterThan(150);
    }
  }

  @Test
  void whatHappensWithinMinutesHappensInOneMomentAndInItsOrder() {
    Season season = season(30, 1);
    List<Instant> moments = new ArrayList<>();
    for (int second = 0; second < 24 * 3600; second++) {
      moments.add(season.together(Season.at(LocalDate.of(2026, 11, 12), 0, 0).plusSeconds(second)));
    }
    assertThat(moments).isSorted();
    assertThat(moments.stream().distinct().count()).isEqualTo(144);
    assertThat(moments.stream().map(one -> one.getEpochSecond() % 600).distinct().count())
        .isGreaterThan(100);
  }

  @Test
  void failuresOfTheLastDaysAreLeftToWhoeverOpensTheDemo() {
    assertThat(times("somebody looks after what failed"))
        .isNotEmpty()
        .allMatch(at -> at.toInstant().isBefore(END.minusSeconds(70 * 3600)));
  }

  @Test
  void momentsFollowTheHoursTheyAreGiven() {
    int[] onlyNine = new int[24];
    onlyNine[9] = 1;
    Season season = season(30, 1);
    LocalDate day = LocalDate.of(2026, 11, 12);
    List<Instant> moments = season.moments(day, 50, onlyNine, new SplittableRandom(3));
    assertThat(moments).hasSizeBetween(30, 70).isSorted();
    assertThat(moments).allMatch(at -> at.atZone(Season.ZONE).getHour() == 9);
  }

  @Test
  void wordsOfAnUnknownSectionAreRefused() {
    assertThat(Words.read().all("places")).hasSizeGreaterThan(10);
    assertThatThrownBy(() -> Words.read().all("places of interest"))
        .hasMessageContaining("places of interest");
  }
}
