package org.ysthmos.core.value;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.format.DateTimeParseException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Moments are read as RFC 3339 has them. Source of the examples: RFC 3339 section 5.8. */
class MomentTest {

  @ParameterizedTest
  @CsvSource({
    "1985-04-12T23:20:50.52Z, 1985-04-12T23:20:50.520Z",
    "1996-12-19T16:39:57-08:00, 1996-12-20T00:39:57Z",
    "1990-12-31T23:59:60Z, 1990-12-31T23:59:59Z",
    "1990-12-31T15:59:60-08:00, 1990-12-31T23:59:59Z",
    "1937-01-01T12:00:27.87+00:20, 1937-01-01T11:40:27.870Z"
  })
  void examplesOfSection58(String text, Instant instant) {
    assertThat(Moment.parse(text).instant()).isEqualTo(instant);
  }

  /** Section 5.6 notes that T and Z may be lower case; section 4.3 has the unknown local offset. */
  @ParameterizedTest
  @CsvSource({"1985-04-12t23:20:50.52z", "1985-04-12T23:20:50.52-00:00"})
  void otherWaysOfWritingTheSame(String text) {
    assertThat(Moment.parse(text).instant()).isEqualTo(Instant.parse("1985-04-12T23:20:50.52Z"));
  }

  /** Section 5.6: time-secfrac has any number of digits, time-numoffset any hour up to 23. */
  @ParameterizedTest
  @CsvSource({
    "2026-11-26T12:00:00.1234567890123Z, 2026-11-26T12:00:00.123456789Z",
    "2026-11-26T12:00:00+18:30, 2026-11-25T17:30:00Z",
    "2026-11-26T12:00:00-23:59, 2026-11-27T11:59:00Z"
  })
  void fractionsAndOffsetsOfAnyLength(String text, Instant instant) {
    assertThat(Moment.parse(text).instant()).isEqualTo(instant);
  }

  @Test
  void leapSecondIsReadWithAWarning() {
    assertThat(Moment.read("1990-12-31T23:59:60Z"))
        .isInstanceOfSatisfying(
            Warned.class, warned -> assertThat(warned.warning()).contains("leap second"));
    assertThat(Moment.read("1990-12-31T23:59:59Z")).isInstanceOf(Moment.class);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "1985-04-12",
        "1985-04-12T23:20Z",
        "1985-04-12T23:20:50",
        "1985-02-29T00:00:00Z",
        "1985-04-12T24:00:00Z",
        "1990-12-31T12:00:60Z",
        "85-04-12T23:20:50Z",
        "2026-11-26T12:00:00.Z",
        "2026-11-26T12:00:00+24:00",
        "2026-11-26T12:00:00+01:60",
        "2026-11-26 12:00:00Z",
        "yesterday",
        ""
      })
  void whatIsNoDateTimeIsRefused(String text) {
    assertThatThrownBy(() -> Moment.parse(text)).isInstanceOf(DateTimeParseException.class);
  }
}
