package org.ysthmos.core.step;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.core.testkit.Steps;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.ValueType;

/** Bands, spans and working days against scales and rules that others published. */
class PublishedScalesTest {

  /** Source: WMO Manual on Codes, code table 1100, the Beaufort scale in m/s; from memory. */
  private static final String BEAUFORT =
      """
      bands: { "..<0.3": 0, "0.3..1.5": 1, "1.6..3.3": 2, "3.4..5.4": 3, "5.5..7.9": 4,
               "8.0..10.7": 5, "10.8..13.8": 6, "13.9..17.1": 7, "17.2..20.7": 8,
               "20.8..24.4": 9, "24.5..28.4": 10, "28.5..32.6": 11, "32.7..": 12 }
      """;

  @ParameterizedTest
  @CsvSource({
    "0, 0",
    "0.2, 0",
    "0.3, 1",
    "1.5, 1",
    "1.6, 2",
    "10.7, 5",
    "10.8, 6",
    "32.6, 11",
    "60, 12"
  })
  void beaufortScaleFromTheWind(String metresPerSecond, String force) {
    assertThat(Steps.shown(Steps.apply(BEAUFORT, Decimal.parse(metresPerSecond)))).isEqualTo(force);
  }

  /** The scale is written for one decimal: with two, there are gaps, and they are remarked on. */
  @Test
  void scaleForRoundedNumbersHasGapsThatAreToldAndRoundingClosesThem() {
    assertThat(Steps.step(BEAUFORT).compile(ValueType.NUMBER, Steps.SCOPE).remarks())
        .hasSize(11)
        .first()
        .asString()
        .contains("between 1.5 and 1.6, such as 1.55");
    assertThat(Steps.apply(BEAUFORT, Decimal.parse("1.55"))).isInstanceOf(Problem.class);
    assertThat(
            Steps.chain(
                "[round: 1, " + BEAUFORT.strip() + "]", Decimal.parse("1.55"), ValueType.NUMBER))
        .isEqualTo(Decimal.of(2));
  }

  /** Source: CVSS 3.1 specification (FIRST), table 14, qualitative severity; from memory. */
  @ParameterizedTest
  @CsvSource({
    "0, none",
    "0.1, low",
    "3.9, low",
    "4.0, medium",
    "6.9, medium",
    "7, high",
    "8.9, high",
    "9.0, critical",
    "10, critical"
  })
  void severityWordsFromAScore(String score, String word) {
    assertThat(
            Steps.shown(
                Steps.apply(
                    "bands: { \"0\": none, \"0.1..3.9\": low, \"4..6.9\": medium, \"7..8.9\": high,"
                        + " \"9..10\": critical }",
                    Decimal.parse(score))))
        .isEqualTo(word);
  }

  /** Source: RFC 5545 sections 3.3.6 and 3.8.2.5, examples of durations. */
  @ParameterizedTest
  @CsvSource({
    "P15DT5H0M20S, 2026-11-01T00:00:00Z, 2026-11-16T05:00:20Z",
    "PT1H0M0S, 2026-11-01T00:00:00Z, 2026-11-01T01:00:00Z",
    "PT15M, 2026-11-01T00:00:00Z, 2026-11-01T00:15:00Z"
  })
  void spansAreReadAsICalendarWritesThem(String span, String from, String to) {
    assertThat(Steps.shown(Steps.apply("move: " + span, Moment.parse(from)))).isEqualTo(to);
  }

  /** Source: RFC 5545 section 3.3.6, the duration P7W. */
  @Test
  void weeksMoveADay() {
    assertThat(Steps.apply("move: P7W", Day.parse("2026-11-01")))
        .isEqualTo(Day.parse("2026-12-20"));
  }

  /**
   * Source: Regulation (EEC, Euratom) No 1182/71, article 3: the day of the event is not counted
   * (paragraph 1), and a period that would end on a holiday or at a weekend ends with the next
   * working day (paragraph 4); from memory.
   */
  @ParameterizedTest
  @CsvSource({
    "2026-11-26, 2, 2026-11-30",
    "2026-12-23, 1, 2026-12-24",
    "2026-12-23, 2, 2026-12-31",
    "2026-12-25, 0, 2026-12-31"
  })
  void periodsOfWorkingDaysAreCountedAsTheRegulationSays(String from, int days, String to) {
    assertThat(
            Steps.shown(
                Steps.apply(
                    "move-working-days: { days: " + days + ", calendar: office }",
                    Day.parse(from))))
        .isEqualTo(to);
  }
}
