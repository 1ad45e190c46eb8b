package org.ysthmos.core.event;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class VersionMarkTest {

  /** The moments are the examples of RFC 3339 section 5.8 and others of the same instant. */
  @ParameterizedTest(name = "{0} against {1}: {2}")
  @CsvSource({
    "2, 3, -1",
    "10, 9, 1",
    "007, 7, 0",
    "123456789012345678901234567890, 123456789012345678901234567889, 1",
    "1996-12-19T16:39:57-08:00, 1996-12-20T00:39:57Z, 0",
    "1985-04-12T23:20:50.52Z, 1985-04-12T23:20:50.53Z, -1",
    "1937-01-01T12:00:27.87+00:20, 1937-01-01T12:00:27.87Z, -1",
    "r4, r4, 0"
  })
  void marksThatHaveAnOrderAreCompared(String one, String other, int expected) {
    assertThat(VersionMark.compare(one, other)).hasValue(expected);
    assertThat(VersionMark.compare(other, one)).hasValue(-expected);
  }

  /** An entity tag says only whether two are the same (RFC 9110 section 8.8.3). */
  @ParameterizedTest
  @CsvSource({"r4, r5", "\"a\", \"b\"", "3, 2026-11-24T10:00:00Z", "-1, 2", "1.5, 2", "'', 1"})
  void ofOtherMarksNothingIsSaid(String one, String other) {
    assertThat(VersionMark.compare(one, other)).isEmpty();
  }

  @Test
  void orderIsThatOfTheNumbers() {
    Random random = new Random(5);
    for (int i = 0; i < 500; i++) {
      int one = random.nextInt(1000);
      int other = random.nextInt(1000);
      assertThat(VersionMark.compare(Integer.toString(one), Integer.toString(other)).getAsInt())
          .isEqualTo(Integer.compare(one, other));
    }
  }
}
