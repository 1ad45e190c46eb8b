package org.ysthmos.core.step;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.testkit.Seeds;
import org.ysthmos.core.testkit.Steps;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Warned;

class DateStepsTest {

  /** Source of the names: Unicode CLDR, as the JDK ships it. */
  @ParameterizedTest
  @CsvSource({
    "d MMMM uuuu, en, 23 November 2026, 2026-11-23",
    "d MMMM uuuu, en, 1 march 2024, 2024-03-01",
    "d MMMM yyyy, en, 1 March 2024, 2024-03-01",
    "d. MMMM uuuu, de, 3. März 2026, 2026-03-03",
    "d 'de' MMMM 'de' uuuu, pt, 5 de fevereiro de 2026, 2026-02-05",
    "d MMMM uuuu, fr, 14 août 2026, 2026-08-14",
    "d MMMM uuuu, pl, 3 października 2026, 2026-10-03",
    "uuuu年M月d日, ja, 2026年2月5日, 2026-02-05",
    "dd/MM/uuuu, en, 29/02/2024, 2024-02-29",
    "EEEE d MMM uuuu, en, Monday 23 Nov 2026, 2026-11-23",
    "EEEE d MMMM uuuu, pt, segunda-feira 23 novembro 2026, 2026-11-23",
    "ddMMuuuu, en, 23112026, 2026-11-23",
    "d/M/uu, en, 3/2/26, 2026-02-03"
  })
  void readsDays(String pattern, String locale, String text, String day) {
    assertThat(
            Steps.apply("read-day: { pattern: \"" + pattern + "\", locale: " + locale + " }", text))
        .isEqualTo(Day.parse(day));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "yesterday",
        "30 February 2026",
        "29 February 2023",
        "23 November 26",
        "",
        "23 November",
        "Tuesday 23 November 2026",
        "23 Novembre 2026",
        "23 November 2026 or so"
      })
  void neverGuessesADay(String text) {
    assertThat(Steps.apply("read-day: d MMMM uuuu", text))
        .isInstanceOfSatisfying(
            Problem.class, problem -> assertThat(problem.found()).isEqualTo(text));
  }

  @Test
  void weekdayThatDoesNotFitItsDayIsAProblem() {
    assertThat(Steps.apply("read-day: EEEE d MMMM uuuu", "Tuesday 23 November 2026"))
        .isInstanceOf(Problem.class);
  }

  /**
   * ISO 8601 week dates. 12 April 1985 as W15-5 is the standard's own example (ISO 8601:2004
   * section 4.1.4); the year's edges follow from its rule that week 1 holds the year's first
   * Thursday. Both from memory.
   */
  @ParameterizedTest
  @CsvSource({
    "1985-W15-5, 1985-04-12",
    "2004-W53-6, 2005-01-01",
    "2005-W52-6, 2005-12-31",
    "2007-W01-1, 2007-01-01",
    "2008-W01-2, 2008-01-01",
    "2009-W53-7, 2010-01-03",
    "2020-W53-5, 2021-01-01",
    "2026-W53-5, 2027-01-01"
  })
  void readsAndWritesIsoWeeks(String week, String day) {
    assertThat(Steps.apply("read-day: iso-week", week)).isEqualTo(Day.parse(day));
    assertThat(Steps.apply("write: iso-week", Day.parse(day))).isEqualTo(Text.of(week));
  }

  @ParameterizedTest
  @ValueSource(strings = {"2025-W53-1", "2026-W00-1", "2026-W10-8", "2026-W1-1"})
  void weekThatAYearDoesNotHaveIsAProblem(String week) {
    assertThat(Steps.apply("read-day: iso-week", week)).isInstanceOf(Problem.class);
  }

  /** The quick way and the JDK's formatter come to the same day, or to none, for any text. */
  @Test
  void quickReadingAgreesWithTheFormatter() {
    List<String> patterns =
        List.of(
            "d MMMM uuuu", "dd/MM/uuuu", "d MMM uuuu", "MMMM d, uuuu", "uuuu-MM-dd", "d.M.uuuu");
    List<Locale> locales =
        Stream.of("en", "pt", "de", "fr", "tr").map(Locale::forLanguageTag).toList();
    Seeds.forSeeds(
        4000,
        seeds -> {
          String pattern = patterns.get(seeds.below(patterns.size()));
          Locale locale = locales.get(seeds.below(locales.size()));
          DateTimeFormatter formatter = DatePatterns.day(pattern, locale);
          LocalDate day = LocalDate.of(1900 + seeds.below(300), 1, 1).plusDays(seeds.below(366));
          String text = formatter.format(day);
          if (seeds.below(3) == 0) {
            text = text.toUpperCase(locale);
          }
          if (seeds.below(3) == 0) {
            int at = seeds.below(text.length() + 1);
            text = text.substring(0, at) + seeds.text() + text.substring(at);
          }
          if (seeds.below(5) == 0) {
            text = text.replace('1', '3').replace('2', '0');
          }
          Optional<LocalDate> expected = Optional.empty();
          try {
            expected = Optional.of(LocalDate.parse(text, formatter));
          } catch (DateTimeParseException none) {
            // The formatter knows no such day; neither may the quick way.
          }
          assertThat(DayPattern.of(pattern, locale).read(text)).isEqualTo(expected);
        });
  }

  /** Month ends as java.time documents them for LocalDate.plus. */
  @ParameterizedTest
  @CsvSource({
    "P7D, 2026-11-23, 2026-11-30, moved 7 days later",
    "P1M, 2024-01-31, 2024-02-29, moved 1 month later",
    "P1M, 2026-01-31, 2026-02-28, moved 1 month later",
    "-P10D, 2026-01-05, 2025-12-26, moved 10 days earlier",
    "P2W, 2026-12-20, 2027-01-03, moved 14 days later"
  })
  void movesDays(String period, String from, String to, String sentence) {
    assertThat(Steps.apply("move: " + period, Day.parse(from))).isEqualTo(Day.parse(to));
    assertThat(Steps.step("move: " + period).sentence()).isEqualTo(sentence);
  }

  @ParameterizedTest
  @ValueSource(strings = {"P8000Y", "-P3000Y", "P2147483647Y", "P2147483647D"})
  void dayMovedOutOfTheCalendarIsAProblem(String period) {
    assertThat(Steps.apply("move: " + period, Day.parse("2026-11-23"))).isInstanceOf(Problem.class);
  }

  /** Source: RFC 3339 section 5.8, worked examples. */
  @ParameterizedTest
  @CsvSource({
    "1985-04-12T23:20:50.52Z, 1985-04-12T23:20:50.520Z",
    "1996-12-19T16:39:57-08:00, 1996-12-20T00:39:57Z",
    "1937-01-01T12:00:27.87+00:20, 1937-01-01T11:40:27.870Z"
  })
  void readsMomentsOfRfc3339(String text, String moment) {
    assertThat(Steps.shown(Steps.apply("read-moment", text))).isEqualTo(moment);
  }

  /** Nothing but a stated zone tells which day a moment is: the same moment is three days. */
  @ParameterizedTest
  @CsvSource({
    "America/Halifax, 2026-11-29",
    "Europe/Lisbon, 2026-11-30",
    "Pacific/Auckland, 2026-11-30",
    "Pacific/Kiritimati, 2026-11-30"
  })
  void momentIsADayOnlyInAZone(String zone, String day) {
    assertThat(Steps.apply("day-in: " + zone, Moment.parse("2026-11-30T00:30:00Z")))
        .isEqualTo(Day.parse(day));
  }

  @Test
  void dayAtATimeInAZoneIsThatDayInThatZoneAgain() {
    List<String> zones =
        List.of("Europe/Lisbon", "America/Halifax", "Pacific/Auckland", "Asia/Kolkata");
    Seeds.forSeeds(
        1000,
        seeds -> {
          String zone = zones.get(seeds.below(zones.size()));
          Day day = new Day(LocalDate.of(1990, 1, 1).plusDays(seeds.below(20000)));
          String time = "%02d:%02d".formatted(seeds.below(24), seeds.below(60));
          Computed moment = Steps.apply("at: { time: \"" + time + "\", zone: " + zone + " }", day);
          assertThat(Steps.apply("day-in: " + zone, Warned.valueOf(moment))).isEqualTo(day);
        });
  }
}
