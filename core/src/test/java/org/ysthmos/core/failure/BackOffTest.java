package org.ysthmos.core.failure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BackOffTest {

  private static final BackOff BACK_OFF =
      new BackOff(Duration.ofSeconds(1), Duration.ofMinutes(5), 40);
  private static final Failure DOWN = Failure.of(FailureKind.UNREACHABLE, "down");

  @ParameterizedTest
  @CsvSource({"1, PT1S", "2, PT2S", "5, PT16S", "9, PT4M16S", "10, PT5M", "39, PT5M"})
  void doublesUpToTheLongest(int tried, Duration wait) {
    assertThat(BACK_OFF.after(tried, DOWN)).contains(wait);
  }

  @Test
  void endsAfterTheLastTry() {
    assertThat(BACK_OFF.after(40, DOWN)).isEmpty();
  }

  @Test
  void waitsAtLeastAsLongAsTheOtherSystemAsked() {
    Failure told =
        Failure.of(FailureKind.RATE_LIMITED, "429").withRetryAfter(Duration.ofMinutes(9));
    assertThat(BACK_OFF.after(1, told)).contains(Duration.ofMinutes(9));
    Failure less = told.withRetryAfter(Duration.ZERO);
    assertThat(BACK_OFF.after(3, less)).contains(Duration.ofSeconds(4));
  }

  @Test
  void whatAPersonMustMendIsNotTriedAgain() {
    assertThat(BACK_OFF.after(1, Failure.of(FailureKind.VALUE_REFUSED, "no"))).isEmpty();
    assertThat(BACK_OFF.after(1, Failure.of(FailureKind.MAPPING_ERROR, "no"))).isEmpty();
  }

  @Test
  void backOffWithoutATryIsRefused() {
    assertThatThrownBy(() -> new BackOff(Duration.ofSeconds(1), Duration.ofSeconds(1), 0))
        .isInstanceOf(IllegalArgumentException.class);
  }
}
