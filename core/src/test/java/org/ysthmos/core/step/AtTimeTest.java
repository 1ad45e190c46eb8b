package org.ysthmos.core.step;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.testkit.Steps;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Warned;

/**
 * A day becomes a moment only by a stated time and zone, and is still that day there. Source of the
 * zone facts: IANA time zone database, as the JDK ships it (files europe, northamerica,
 * australasia).
 */
class AtTimeTest {

  private static Computed at(String day, String time, String zone) {
    return Steps.apply("at: { time: \"" + time + "\", zone: " + zone + " }", Day.parse(day));
  }

  @ParameterizedTest
  @CsvSource({
    "2026-11-30, 17:00, Europe/Lisbon, 2026-11-30T17:00:00Z",
    "2026-07-30, 17:00, Europe/Lisbon, 2026-07-30T16:00:00Z",
    "2026-11-30, 23:59, America/Halifax, 2026-12-01T03:59:00Z",
    "2026-11-30, 09:00, Pacific/Auckland, 2026-11-29T20:00:00Z"
  })
  void theMomentIsThatDayAndTimeInTheZone(String day, String time, String zone, Instant instant) {
    Computed computed = at(day, time, zone);
    assertThat(computed).isEqualTo(Moment.of(instant));
    var there = instant.atZone(ZoneId.of(zone));
    assertThat(there.toLocalDate()).hasToString(day);
    assertThat(there.toLocalTime()).hasToString(time);
  }

  /** Samoa went over the date line: 30 December 2011 was no day in Pacific/Apia. */
  @Test
  void dayThatAZoneSkippedIsAProblemAndNeverMoved() {
    assertThat(at("2011-12-30", "09:00", "Pacific/Apia"))
        .isInstanceOfSatisfying(
            Problem.class,
            problem -> assertThat(problem.message()).contains("does not exist in Apia"));
    assertThat(at("2011-12-29", "09:00", "Pacific/Apia")).isInstanceOf(Moment.class);
    assertThat(at("2011-12-31", "09:00", "Pacific/Apia")).isInstanceOf(Moment.class);
  }

  /** Clocks went forward from 01:00 to 02:00 on 29 March 2026 in Lisbon. */
  @Test
  void timeThatClocksSkippedIsLaterTheSameDayWithAWarning() {
    assertThat(at("2026-03-29", "01:30", "Europe/Lisbon"))
        .isInstanceOfSatisfying(
            Warned.class,
            warned -> {
              assertThat(warned.value()).isEqualTo(Moment.parse("2026-03-29T01:30:00Z"));
              assertThat(warned.warning()).contains("clocks went forward; 02:30 is used");
            });
  }

  /** Clocks went back from 02:00 to 01:00 on 25 October 2026 in Lisbon. */
  @Test
  void timeThatHappenedTwiceIsTheEarlierWithAWarning() {
    assertThat(at("2026-10-25", "01:30", "Europe/Lisbon"))
        .isInstanceOfSatisfying(
            Warned.class,
            warned -> assertThat(warned.value()).isEqualTo(Moment.parse("2026-10-25T00:30:00Z")));
  }

  /** Midnight did not exist on 4 November 2018 in São Paulo: the day starts at 01:00. */
  @Test
  void skippedMidnightStaysTheSameDay() {
    assertThat(at("2018-11-04", "00:00", "America/Sao_Paulo"))
        .isInstanceOfSatisfying(
            Warned.class,
            warned -> assertThat(warned.value()).isEqualTo(Moment.parse("2018-11-04T03:00:00Z")));
  }
}
