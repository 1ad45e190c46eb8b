package org.ysthmos.core.calendar;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import net.objectlab.kit.datecalc.common.DefaultHolidayCalendar;
import net.objectlab.kit.datecalc.common.HolidayHandlerType;
import net.objectlab.kit.datecalc.jdk8.LocalDateKitCalculatorsFactory;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.calendar.WorkingCalendar.End;
import org.ysthmos.core.calendar.WorkingCalendar.Part;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.Seeds;

class WorkingCalendarTest {

  private static final WorkingCalendar OFFICE = Garden.CATALOG.calendar("office").orElseThrow();

  /**
   * Common practice, no source: the day itself is not counted. The office is shut on Friday 25
   * December 2026, from Monday 28 to Wednesday 30, and on Friday 1 January 2027.
   */
  @ParameterizedTest(name = "{0} moved {1} is {2}")
  @CsvSource({
    "2026-11-27, 1, 2026-11-30",
    "2026-11-28, 1, 2026-11-30",
    "2026-11-28, 0, 2026-11-30",
    "2026-11-27, 0, 2026-11-27",
    "2026-11-28, -1, 2026-11-27",
    "2026-11-30, -1, 2026-11-27",
    "2026-11-23, 10, 2026-12-07",
    "2026-12-24, 1, 2026-12-31",
    "2026-12-24, 2, 2027-01-04",
    "2027-01-04, -2, 2026-12-24",
    "2026-12-27, 1, 2026-12-31"
  })
  void movesOverWorkingDays(LocalDate from, int days, LocalDate to) {
    assertThat(OFFICE.move(from, days)).contains(to);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      nullValues = "none",
      value = {
        "none|none",
        "2026-12-25|2026-12-31",
        "2026-04-03 2026-12-25 2027-01-01|2027-12-31",
        "2026-04-03 2026-06-10 2026-12-25 2027-01-01|2026-12-31",
        "2026-04-03 2026-06-10 2026-12-25 2027-03-26 2027-06-10|2027-12-31"
      })
  void holidaysRunOutWithTheLastYearThatIsEntered(@Nullable String days, @Nullable LocalDate last) {
    Map<LocalDate, String> holidays = new HashMap<>();
    if (days != null) {
      List.of(days.split(" ", -1)).forEach(day -> holidays.put(LocalDate.parse(day), ""));
    }
    WorkingCalendar calendar =
        new WorkingCalendar("c", "C", EnumSet.allOf(DayOfWeek.class), holidays, List.of(), null);
    assertThat(calendar.end())
        .isEqualTo(Optional.ofNullable(last).map(day -> new End(day, Part.HOLIDAYS)));
  }

  /** Closures end by themselves, and what people say counts more than either. */
  @Test
  void whatEndsFirstIsTold() {
    Map<LocalDate, String> holidays = Map.of(LocalDate.of(2027, 12, 25), "Christmas");
    List<WorkingCalendar.Closure> closures =
        List.of(
            closed("2025-08-03", "2025-08-16"),
            closed("2025-12-28", "2026-01-02"),
            closed("2026-08-02", "2026-08-15"));
    assertThat(end(holidays, closures, null)).contains(new End(DECEMBER_31, Part.CLOSURES));
    assertThat(end(holidays, closures, LocalDate.of(2027, 6, 30)))
        .contains(new End(LocalDate.of(2027, 6, 30), Part.ALL));
  }

  private static final LocalDate DECEMBER_31 = LocalDate.of(2026, 12, 31);

  private static Optional<End> end(
      Map<LocalDate, String> holidays,
      List<WorkingCalendar.Closure> closures,
      @Nullable LocalDate entered) {
    return new WorkingCalendar(
            "c", "C", EnumSet.allOf(DayOfWeek.class), holidays, closures, entered)
        .end();
  }

  private static WorkingCalendar.Closure closed(String first, String last) {
    return new WorkingCalendar.Closure(LocalDate.parse(first), LocalDate.parse(last), "");
  }

  /**
   * Source: the date calculator of the ObjectLab Kit (library), forward and backward over holidays.
   */
  @Test
  void agreesWithAnotherDateCalculator() {
    Set<LocalDate> holidays = Set.of(LocalDate.of(2026, 12, 25), LocalDate.of(2027, 1, 1));
    WorkingCalendar plain =
        new WorkingCalendar(
            "plain",
            "Plain",
            EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY),
            holidays.stream().collect(Collectors.toMap(day -> day, day -> "")),
            List.of(),
            null);
    LocalDateKitCalculatorsFactory factory = new LocalDateKitCalculatorsFactory();
    factory.registerHolidays("plain", new DefaultHolidayCalendar<>(holidays));
    Seeds.forSeeds(
        1000,
        seeds -> {
          LocalDate from = LocalDate.of(2026, 6, 1).plusDays(seeds.below(400));
          int days = 1 + seeds.below(60);
          boolean forward = seeds.below(2) == 0;
          var judge =
              factory.getDateCalculator(
                  "plain", forward ? HolidayHandlerType.FORWARD : HolidayHandlerType.BACKWARD);
          // It starts from a working day where ours counts from the day given.
          LocalDate start = plain.move(from, 0).orElseThrow();
          judge.setStartDate(start);
          LocalDate expected =
              judge.moveByBusinessDays(forward ? days : -days).getCurrentBusinessDate();
          assertThat(plain.move(start, forward ? days : -days)).contains(expected);
        });
  }

  @Test
  void movingThereAndBackComesToTheSameWorkingDay() {
    Seeds.forSeeds(
        500,
        seeds -> {
          LocalDate from =
              OFFICE.move(LocalDate.of(2026, 6, 1).plusDays(seeds.below(400)), 0).orElseThrow();
          int days = seeds.below(80);
          LocalDate there = OFFICE.move(from, days).orElseThrow();
          assertThat(OFFICE.isWorking(there)).isTrue();
          assertThat(OFFICE.move(there, -days)).contains(from);
        });
  }

  @Test
  void documentGoesRoundWithNamesAndClosures() {
    WorkingCalendar read =
        CalendarReader.read(
            DocumentNode.parse(
                """
                calendar: office
                name: Office
                weekdays: [monday, friday]
                holidays: [2026-12-08, { day: 2026-12-25, name: Christmas }]
                closures: [{ first: 2026-12-28, last: 2026-12-31, why: stocktaking }]
                entered-until: 2027-06-30
                """));
    assertThat(read.holidays()).containsEntry(LocalDate.of(2026, 12, 25), "Christmas");
    assertThat(CalendarReader.read(DocumentNode.parse(CalendarWriter.write(read)))).isEqualTo(read);
  }

  @Test
  void breakWithoutEndIsNoEndlessSearch() {
    WorkingCalendar shut =
        new WorkingCalendar(
            "shut",
            "Shut",
            Set.of(DayOfWeek.MONDAY),
            Map.of(),
            List.of(
                new WorkingCalendar.Closure(
                    LocalDate.of(2026, 1, 1), LocalDate.of(2100, 1, 1), "for good")),
            null);
    assertThat(shut.move(LocalDate.of(2026, 6, 1), 1)).isEmpty();
    assertThat(shut.move(LocalDate.of(2026, 6, 1), -1)).contains(LocalDate.of(2025, 12, 29));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "weekdays: [];at least one weekday",
        "weekdays: [mondy];did you mean “monday”?",
        "weekdays: [monday], holidays: [25 December];is no day",
        "weekdays: [monday], closures: [{ first: 2026-12-30, last: 2026-12-28 }];ends before it starts"
      })
  void calendarThatMakesNoSenseIsRefused(String rest, String says) {
    assertThatThrownBy(
            () ->
                CalendarReader.read(
                    DocumentNode.parse("{ calendar: office, name: Office, " + rest + " }")))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining(says);
  }
}
