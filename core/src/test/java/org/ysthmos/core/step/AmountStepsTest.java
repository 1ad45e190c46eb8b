package org.ysthmos.core.step;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.testkit.Garden;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.testkit.Steps;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.ValueType;

class AmountStepsTest {

  /** The fields hold: days 30, none 0, share 1.5, blank nothing, hour 9. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{ days: { value: /days } }|2026-01-31|2026-03-02",
        "{ days: { value: /none } }|2026-01-31|2026-01-31",
        "{ days: -30 }|2026-03-02|2026-01-31",
        "{ weeks: { value: /days }, earlier: true }|2026-11-26|2026-04-30",
        "{ months: { value: /hour } }|2024-05-31|2025-02-28",
        "{ years: 1 }|2024-02-29|2025-02-28",
        "{ days: { value: /share } }|2026-01-31|share: “1.5” is no whole number",
        "{ days: { value: /blank } }|2026-01-31|blank: there is no number",
        "{ days: { value: /share, otherwise: 2 } }|2026-01-31|2026-02-02",
        "{ days: { value: /blank, otherwise: 0 } }|2026-01-31|2026-01-31",
        "{ days: 9000000 }|2026-01-31|the day lies outside of the years 0 to 9999"
      })
  void dayIsMovedByWhatAFieldSays(String by, String day, String gives) {
    assertThat(Steps.shown(Steps.apply("move-by: " + by, Day.parse(day)))).isEqualTo(gives);
  }

  /** RFC 3339 moments: an hour is an hour, whatever clocks do meanwhile. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{ hours: { value: /days } }|2026-03-28T12:00:00Z|2026-03-29T18:00:00Z",
        "{ minutes: { value: /days }, earlier: true }|2026-03-28T12:00:00Z|2026-03-28T11:30:00Z"
      })
  void momentIsMovedByWhatAFieldSays(String by, String moment, String gives) {
    assertThat(Steps.shown(Steps.apply("move-by: " + by, Moment.parse(moment)))).isEqualTo(gives);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "move-by: { days: { value: /folder } }|is a text where a number is needed",
        "move-by: { days: 1, hours: 2 }|write one of years, months",
        "move-by: { days: 1.5 }|“1.5” is no whole number",
        "move-working-days: { days: 1.5, calendar: office }|“1.5” is no whole number",
        "at: { zone: Europe/Lisbon }|say the time of day, or its hour and minute",
        "at: { hour: 24, zone: Europe/Lisbon }|“24” is not from 0 to 23",
        "at: { time: { value: /days }, zone: Europe/Lisbon }|a time as text is needed",
        "days-until: { day: { value: /folder } }|is a text where a day is needed"
      })
  void whatCannotBeAnAmountIsRefused(String step, String message) {
    assertThatThrownBy(() -> Steps.apply(step, Day.parse("2026-11-26")))
        .hasMessageContaining(message);
  }

  @Test
  void hoursMoveNoDay() {
    assertThatThrownBy(() -> Steps.apply("move-by: { hours: 1 }", Day.parse("2026-11-26")))
        .isInstanceOf(Misfit.class)
        .hasMessageContaining("make a moment of it first (at)");
  }

  /** Clocks went forward in Lisbon on 29 March 2026 at 01:00 (IANA time zone database). */
  @Test
  void timeThatClocksSkippedIsWarnedOfFromAFieldToo() {
    assertThat(
            Steps.apply(
                    "at: { hour: { value: /none, otherwise: 1 }, minute: { value: /days }, zone:"
                        + " Europe/Lisbon }",
                    Day.parse("2026-03-29"))
                .toString())
        .contains("2026-03-29T00:30:00Z");
    assertThat(
            Steps.apply(
                    "at: { hour: 1, minute: { value: /days }, zone: Europe/Lisbon }",
                    Day.parse("2026-03-29"))
                .toString())
        .contains("01:30 did not exist on 2026-03-29 in Lisbon");
  }

  @Test
  void absentDayStaysAbsent() {
    assertThat(
            Steps.chain(
                "[{ move-by: { days: { value: /days } } }]", Nothing.NOTHING, ValueType.DAY))
        .isEqualTo(Nothing.NOTHING);
    assertThat(Steps.apply("days-until: { day: { value: /until } }", Day.parse("2026-12-24")))
        .isEqualTo(Decimal.of(0));
  }

  /** Moving forth and back by days or weeks ends where it began; months and years may not. */
  @Test
  void movingForthAndBackIsNotMoving() {
    Seeds.forSeeds(
        500,
        seeds -> {
          LocalDate day = LocalDate.of(1990, 1, 1).plusDays(seeds.below(30_000));
          int count = seeds.below(4000) - 2000;
          String unit = seeds.below(2) == 0 ? "days" : "weeks";
          String by = "{ " + unit + ": " + count;
          var there = (Day) Steps.apply("move-by: " + by + " }", new Day(day));
          assertThat(Steps.apply("move-by: " + by + ", earlier: true }", there))
              .isEqualTo(new Day(day));
          assertThat(Steps.apply("days-until: { day: \"" + there.date() + "\" }", new Day(day)))
              .isEqualTo(Decimal.of(ChronoUnit.DAYS.between(day, there.date())));
        });
  }

  /**
   * From a working day to another it is as many working days as moving there takes. NETWORKDAYS of
   * OpenDocument 1.2 part 2, section 6.10.13, counts both ends: it is one more.
   */
  @Test
  void workingDaysUntilIsHowFarMovingGoes() {
    WorkingCalendar office = Garden.CATALOG.calendar("office").orElseThrow();
    Seeds.forSeeds(
        500,
        seeds -> {
          LocalDate day = LocalDate.of(2026, 10, 1).plusDays(seeds.below(120));
          int days = seeds.below(60) - 30;
          LocalDate there = office.move(day, days).orElseThrow();
          if (office.isWorking(day) || days != 0) {
            assertThat(office.between(day, there)).as(day + " " + days).hasValue(days);
          }
          if (!there.isBefore(day) && office.isWorking(day)) {
            long networkDays = day.datesUntil(there.plusDays(1)).filter(office::isWorking).count();
            assertThat(office.between(day, there)).hasValue((int) networkDays - 1);
          }
        });
  }

  @Test
  void tooFarApartIsNotCountedForEver() {
    assertThat(
            Steps.shown(
                Steps.apply(
                    "days-until: { day: \"9999-12-31\", calendar: office }",
                    Day.parse("0001-01-01"))))
        .contains("lie more than 40000 days apart");
  }

  @Test
  void sharesAndSumsOfSeveralFields() {
    assertThat(
            Steps.shown(
                Steps.chain(
                    "[{ calculate: { plus: { value: /hour } } }, { calculate: { times: 100 } },"
                        + " { calculate: { divided-by: { value: /days }, places: 1 } }]",
                    Decimal.of(6),
                    ValueType.NUMBER)))
        .isEqualTo("50");
  }
}
