package org.ysthmos.core.recurrence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.WeekFields;
import java.time.zone.ZoneOffsetTransition;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.recurrence.Occurrence.ClockChange;

class OccurrencesTest {

  private static final ZoneId LISBON = ZoneId.of("Europe/Lisbon");

  /** Monday to Friday, without Christmas and without a closure at the end of the year. */
  private static final WorkingCalendar GARDEN =
      new WorkingCalendar(
          "garden",
          "Garden",
          EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY),
          Map.of(LocalDate.parse("2026-12-25"), "Christmas"),
          List.of(
              new WorkingCalendar.Closure(
                  LocalDate.parse("2026-12-28"), LocalDate.parse("2026-12-31"), "")),
          null);

  private static Recurrence rule(String rule, ZoneId zone, String start) {
    return Recurrence.of(RecurrenceRule.parse(rule), zone, LocalDateTime.parse(start));
  }

  private static Occurrences times(Recurrence recurrence) {
    return new Occurrences(recurrence, Optional.of(GARDEN));
  }

  private static List<String> local(Recurrence recurrence, String after, int most) {
    return times(recurrence).after(Instant.parse(after), most).stream()
        .map(one -> one.at().toLocalDateTime().toString())
        .toList();
  }

  @Test
  void everyFourthFridayStaysAtSixWhateverTheClockDoes() {
    Recurrence fridays = rule("FREQ=WEEKLY;INTERVAL=4;BYDAY=FR", LISBON, "2026-09-11T06:00");
    assertThat(local(fridays, "2026-10-01T00:00:00Z", 3))
        .containsExactly("2026-10-09T06:00", "2026-11-06T06:00", "2026-12-04T06:00");
    assertThat(times(fridays).after(Instant.parse("2026-10-01T00:00:00Z"), 2))
        .extracting(one -> one.at().toInstant().toString())
        .containsExactly("2026-10-09T05:00:00Z", "2026-11-06T06:00:00Z");
  }

  /** Source of the rule for both: RFC 5545 section 3.3.5; the judge is java.time. */
  @TestFactory
  Stream<DynamicTest> changesOfTheClockOfSixZonesOverTenYears() {
    return Stream.of(
            "Europe/Lisbon",
            "America/New_York",
            "America/Halifax",
            "Pacific/Auckland",
            "Australia/Lord_Howe",
            "Africa/Casablanca")
        .map(ZoneId::of)
        .map(zone -> DynamicTest.dynamicTest(zone.getId(), () -> holdsAtEachChange(zone)));
  }

  private static void holdsAtEachChange(ZoneId zone) {
    Instant at = Instant.parse("2020-01-01T00:00:00Z");
    int seen = 0;
    while (true) {
      ZoneOffsetTransition change = zone.getRules().nextTransition(at);
      at = change.getInstant();
      if (at.isAfter(Instant.parse("2030-01-01T00:00:00Z"))) {
        break;
      }
      seen++;
      LocalDateTime inside =
          (change.isGap() ? change.getDateTimeBefore() : change.getDateTimeAfter()).plusMinutes(10);
      Recurrence daily = rule("FREQ=DAILY", zone, inside.minusDays(3).toString());
      List<Occurrence> around = new Occurrences(daily, Optional.empty()).after(Instant.EPOCH, 6);
      for (int day = 0; day < around.size(); day++) {
        Occurrence one = around.get(day);
        LocalDateTime said = inside.plusDays(day - 3L);
        assertThat(one.said()).isEqualTo(said);
        assertThat(one.at().toInstant())
            .as("%s in %s", said, zone)
            .isEqualTo(said.atZone(zone).withEarlierOffsetAtOverlap().toInstant());
      }
      assertThat(around.get(3).clock())
          .as(change.toString())
          .isEqualTo(change.isGap() ? ClockChange.SKIPPED : ClockChange.TWICE);
      holdsByTheHour(zone, change);
    }
    assertThat(seen).isGreaterThan(15);
  }

  /** What counts hours goes by those that go by. */
  private static void holdsByTheHour(ZoneId zone, ZoneOffsetTransition change) {
    ZonedDateTime start = change.getInstant().minusSeconds(6 * 3600).atZone(zone);
    Recurrence hourly = rule("FREQ=HOURLY;INTERVAL=3", zone, start.toLocalDateTime().toString());
    List<Occurrence> around = new Occurrences(hourly, Optional.empty()).after(Instant.EPOCH, 6);
    for (int i = 0; i < around.size(); i++) {
      assertThat(around.get(i).at().toInstant())
          .as("%d. in %s at %s", i, zone, change)
          .isEqualTo(start.toInstant().plusSeconds(i * 3L * 3600));
    }
  }

  /** Source: ISO 8601, the years with a week 53, by java.time. */
  @Test
  void weekFiftyThreeComesInTheYearsThatHaveOne() {
    Recurrence rule = rule("FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO", LISBON, "2000-01-01T06:00");
    List<String> expected = new ArrayList<>();
    for (LocalDate day = LocalDate.of(2000, 1, 3); day.getYear() < 2060; day = day.plusWeeks(1)) {
      if (day.get(WeekFields.ISO.weekOfWeekBasedYear()) == 53) {
        expected.add(day.atTime(6, 0).toString());
      }
    }
    assertThat(local(rule, "2000-01-02T00:00:00Z", expected.size())).isEqualTo(expected);
  }

  @Test
  void daysThatDoNotExistAreLeftOutAndRareOnesAreFound() {
    assertThat(
            local(
                rule("FREQ=MONTHLY;BYMONTHDAY=31", LISBON, "2026-01-31T06:00"),
                "2026-01-01T00:00:00Z",
                3))
        .containsExactly("2026-01-31T06:00", "2026-03-31T06:00", "2026-05-31T06:00");
    assertThat(
            local(
                rule("FREQ=MONTHLY;BYMONTHDAY=-1", LISBON, "2026-01-31T06:00"),
                "2026-01-31T12:00:00Z",
                2))
        .containsExactly("2026-02-28T06:00", "2026-03-31T06:00");
    assertThat(
            local(
                rule("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29", LISBON, "2026-01-01T06:00"),
                "2026-01-31T12:00:00Z",
                2))
        .containsExactly("2028-02-29T06:00", "2032-02-29T06:00");
    Recurrence sundays =
        rule("FREQ=DAILY;BYMONTH=2;BYMONTHDAY=29;BYDAY=SU", LISBON, "2026-01-01T06:00");
    assertThat(local(sundays, "2026-01-31T12:00:00Z", 1)).containsExactly("2032-02-29T06:00");
    assertThat(local(sundays, "2032-03-01T00:00:00Z", 1)).containsExactly("2060-02-29T06:00");
    Recurrence never = rule("FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30", LISBON, "2026-01-01T06:00");
    assertThat(times(never).next(Instant.EPOCH)).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "KEEP|2026-12-25T06:00 2026-12-26T06:00 2026-12-27T06:00 2026-12-28T06:00",
        "NEXT|2027-01-01T06:00 2027-01-04T06:00 2027-01-05T06:00 2027-01-06T06:00",
        "BEFORE|2027-01-01T06:00 2027-01-04T06:00 2027-01-05T06:00 2027-01-06T06:00",
        "LEAVE_OUT|2027-01-01T06:00 2027-01-04T06:00 2027-01-05T06:00 2027-01-06T06:00"
      })
  void severalThatComeToStandAtOneMomentAreOne(OffDays offDays, String expected) {
    Recurrence daily = rule("FREQ=DAILY", LISBON, "2026-01-01T06:00").with(offDays, "garden");
    assertThat(local(daily, "2026-12-24T12:00:00Z", 4))
        .containsExactlyElementsOf(List.of(expected.split(" ")));
  }

  @Test
  void timeOnADayOffGoesWhereItIsStatedAndStaysTheSameTime() {
    String monthEnds = "FREQ=MONTHLY;BYMONTHDAY=26";
    Recurrence rule = rule(monthEnds, LISBON, "2026-01-01T06:00");
    assertThat(local(rule.with(OffDays.NEXT, "garden"), "2026-12-01T00:00:00Z", 1))
        .containsExactly("2027-01-01T06:00");
    assertThat(local(rule.with(OffDays.BEFORE, "garden"), "2026-12-01T00:00:00Z", 1))
        .containsExactly("2026-12-24T06:00");
    assertThat(local(rule.with(OffDays.LEAVE_OUT, "garden"), "2026-12-01T00:00:00Z", 1))
        .containsExactly("2027-01-26T06:00");
    Occurrence moved =
        times(rule.with(OffDays.NEXT, "garden"))
            .next(Instant.parse("2026-12-29T00:00:00Z"))
            .orElseThrow();
    assertThat(moved.said()).isEqualTo(LocalDateTime.parse("2026-12-26T06:00"));
    assertThat(moved.moved()).isTrue();
    assertThatThrownBy(() -> new Occurrences(rule.with(OffDays.NEXT, "garden"), Optional.empty()))
        .hasMessageContaining("said by a calendar");
  }

  @Test
  void timesAreLeftOutAddedAndEndWithTheLastDay() {
    TreeSet<LocalDateTime> without =
        new TreeSet<>(List.of(LocalDateTime.parse("2026-11-27T06:00")));
    TreeSet<LocalDateTime> also =
        new TreeSet<>(
            List.of(
                LocalDateTime.parse("2026-11-25T18:30"), LocalDateTime.parse("2027-03-01T06:00")));
    Recurrence rule =
        new Recurrence(
            Optional.of(RecurrenceRule.parse("FREQ=WEEKLY;BYDAY=FR")),
            LISBON,
            LocalDateTime.parse("2026-11-20T06:00"),
            Optional.of(LocalDate.parse("2026-12-11")),
            without,
            also,
            OffDays.KEEP,
            Optional.empty());
    assertThat(local(rule, "2026-01-01T00:00:00Z", 20))
        .containsExactly(
            "2026-11-20T06:00", "2026-11-25T18:30", "2026-12-04T06:00", "2026-12-11T06:00");
  }

  /** Laws that hold for any rule: to skip is to step, and what is next comes later. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "FREQ=DAILY",
        "FREQ=DAILY;INTERVAL=10",
        "FREQ=DAILY;COUNT=40",
        "FREQ=WEEKLY;INTERVAL=4;BYDAY=FR",
        "FREQ=WEEKLY;INTERVAL=2;BYDAY=MO,SU;WKST=SU",
        "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1",
        "FREQ=MONTHLY;INTERVAL=5;BYMONTHDAY=-1,31",
        "FREQ=YEARLY;BYWEEKNO=1,53;BYDAY=MO,SU",
        "FREQ=YEARLY;INTERVAL=3;BYYEARDAY=1,100,-1",
        "FREQ=HOURLY;INTERVAL=7",
        "FREQ=DAILY;BYHOUR=1,2,3;BYMINUTE=0,30"
      })
  void skippingToATimeIsSteppingToIt(String rule) {
    for (OffDays offDays : OffDays.values()) {
      Occurrences times = times(rule(rule, LISBON, "2026-02-28T01:30").with(offDays, "garden"));
      List<Occurrence> stepped = new ArrayList<>();
      Optional<Occurrence> next = times.next(Instant.EPOCH);
      while (next.isPresent() && stepped.size() < 60) {
        Occurrence one = next.get();
        if (!stepped.isEmpty()) {
          assertThat(one.at().toInstant()).isAfter(stepped.getLast().at().toInstant());
        }
        stepped.add(one);
        next = times.next(one.at().toInstant());
      }
      assertThat(times.after(Instant.EPOCH, stepped.size()))
          .as("%s %s", rule, offDays)
          .isEqualTo(stepped);
      for (int i = 0; i < stepped.size() - 1; i += 7) {
        Instant before = stepped.get(i + 1).at().toInstant().minusNanos(1);
        assertThat(times.next(before)).as("%s %s", rule, offDays).contains(stepped.get(i + 1));
      }
    }
  }

  @Test
  void midnightAndTheEndOfTheDayAreOfTheDayOfTheZone() {
    Recurrence auckland =
        rule(
            "FREQ=DAILY",
            ZoneId.of("Pacific/Auckland"),
            LocalDate.of(2026, 9, 25).atTime(LocalTime.MIN).toString());
    assertThat(local(auckland, "2026-09-26T11:59:59Z", 2))
        .containsExactly("2026-09-27T00:00", "2026-09-28T00:00");
  }
}
