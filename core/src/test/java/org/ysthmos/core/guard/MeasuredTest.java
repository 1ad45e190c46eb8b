package org.ysthmos.core.guard;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How sound a bridge is by what is counted: the worst of it counts. */
class MeasuredTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      nullValues = "-",
      value = {
        "-              | false | 9 | 0 | 0 | -     | -      | SOUND        | 9 of the last day, none failed",
        "-              | false | 0 | 0 | 0 | -     | -      | NOTHING_CAME | nothing came in the last day",
        "-              | false | 9 | 2 | 0 | -     | -      | NEEDS_WORK   | 2 of 9 of the last day failed",
        "-              | false | 2 | 2 | 5 | PT9H  | silent | NOT_WORKING  | all 2 of the last day failed",
        "-              | false | 9 | 0 | 5 | PT2H  | silent | NEEDS_WORK   | 5 wait, the oldest for over an hour",
        "-              | false | 9 | 0 | 5 | PT1H  | -      | SOUND        | 9 of the last day, none failed",
        "-              | true  | 9 | 0 | 5 | PT2H  | -      | SOUND        | 9 of the last day, none failed",
        "-              | false | 9 | 0 | 0 | -     | silent | NEEDS_WORK   | silent",
        "no table crews | false | 9 | 9 | 5 | PT2H  | silent | NOT_WORKING  | it cannot be used: no table crews"
      })
  void worstCounts(
      @Nullable String problem,
      boolean held,
      int came,
      int failed,
      int waiting,
      @Nullable Duration oldest,
      @Nullable String odd,
      Measured.State state,
      String because) {
    assertThat(
            Measured.of(
                new Measured.Facts(
                    Optional.ofNullable(problem),
                    held,
                    came,
                    failed,
                    waiting,
                    Optional.ofNullable(oldest),
                    Optional.ofNullable(odd))))
        .isEqualTo(new Measured(state, because));
  }
}
