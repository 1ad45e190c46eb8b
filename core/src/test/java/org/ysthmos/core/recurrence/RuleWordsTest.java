package org.ysthmos.core.recurrence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class RuleWordsTest {

  private static final ZoneId LISBON = ZoneId.of("Europe/Lisbon");
  private static final LocalDateTime START = LocalDateTime.parse("2026-11-20T06:00");

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "daily|FREQ=DAILY",
        "Every 10 days|FREQ=DAILY;INTERVAL=10",
        "every other day|FREQ=DAILY;INTERVAL=2",
        "weekly|FREQ=WEEKLY",
        "every Monday|FREQ=WEEKLY;BYDAY=MO",
        "every fourth Friday|FREQ=WEEKLY;INTERVAL=4;BYDAY=FR",
        "each other Sunday|FREQ=WEEKLY;INTERVAL=2;BYDAY=SU",
        "weekly on Tue and Thu|FREQ=WEEKLY;BYDAY=TU,TH",
        "every Monday, Wednesday and Friday|FREQ=WEEKLY;BYDAY=MO,WE,FR",
        "every 3 weeks on Mondays|FREQ=WEEKLY;INTERVAL=3;BYDAY=MO",
        "every weekday|FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR",
        "every 6 months|FREQ=MONTHLY;INTERVAL=6",
        "the 1st and 15th of each month|FREQ=MONTHLY;BYMONTHDAY=1,15",
        "the fourth Friday of every month|FREQ=MONTHLY;BYDAY=4FR",
        "on the last Monday of every third month|FREQ=MONTHLY;INTERVAL=3;BYDAY=-1MO",
        "the last day of each month|FREQ=MONTHLY;BYMONTHDAY=-1",
        "each year on 24 December|FREQ=YEARLY;BYMONTHDAY=24;BYMONTH=12",
        "every 3 hours|FREQ=HOURLY;INTERVAL=3",
        "RRULE:FREQ=YEARLY;BYWEEKNO=53|FREQ=YEARLY;BYWEEKNO=53"
      })
  void whatPeopleWriteIsARule(String words, String rule) {
    assertThat(RuleWords.read(words).rule()).hasToString(rule);
    assertThat(RuleWords.read(words).offDays()).isEqualTo(OffDays.KEEP);
  }

  @Test
  void workingDaysAndTheTimeOfDayAreUnderstood() {
    RuleWords.Said last = RuleWords.read("the last working day of each month at 17:30");
    assertThat(last.rule()).hasToString("FREQ=MONTHLY;BYMONTHDAY=-1");
    assertThat(last.offDays()).isEqualTo(OffDays.BEFORE);
    assertThat(last.at()).contains(LocalTime.of(17, 30));
    assertThat(RuleWords.read("the first working day of each month").offDays())
        .isEqualTo(OffDays.NEXT);
    assertThat(RuleWords.read("every working day").offDays()).isEqualTo(OffDays.LEAVE_OUT);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "sometimes",
        "every",
        "every full moon",
        "every zeroth Monday",
        "every 0 days",
        "the 1st and last Monday of each month and so on",
        "each year on 24 Nivose",
        "every Monday and Someday",
        "the fourth of never",
        "every day on Monday"
      })
  void whatSaysNothingIsRefusedWithWhatMayBeWritten(String words) {
    assertThatThrownBy(() -> RuleWords.read(words))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("write for example every Monday");
  }

  @Test
  void mistakesWithinARuleOrATimeAreNamed() {
    assertThatThrownBy(() -> RuleWords.read("FREQ=DAILY;COUNT=0")).hasMessageContaining("COUNT");
    assertThatThrownBy(() -> RuleWords.read("every day at 25:00"))
        .hasMessageContaining("“25:00” is no time of day");
    assertThatThrownBy(() -> RuleWords.read("the 32nd of each month"))
        .hasMessageContaining("BYMONTHDAY goes from 1 to 31");
  }

  /** What is said of a rule is read as a rule that makes the same times. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "FREQ=DAILY",
        "FREQ=DAILY;INTERVAL=10",
        "FREQ=WEEKLY;BYDAY=MO,WE,FR",
        "FREQ=WEEKLY;INTERVAL=2;BYDAY=FR",
        "FREQ=WEEKLY;INTERVAL=3;BYDAY=TU,TH",
        "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR",
        "FREQ=MONTHLY;BYMONTHDAY=1,15",
        "FREQ=MONTHLY;BYMONTHDAY=-1",
        "FREQ=MONTHLY;BYDAY=4FR",
        "FREQ=MONTHLY;INTERVAL=2;BYDAY=1SU,-1SU",
        "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1",
        "FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=24",
        "FREQ=HOURLY;INTERVAL=3"
      })
  void sentenceOfARuleIsReadAsTheSameTimes(String rule) {
    Recurrence stated = Recurrence.of(RecurrenceRule.parse(rule), LISBON, START);
    String sentence = RuleSentence.of(stated).replaceAll(" in Lisbon$", "");
    RuleWords.Said said = RuleWords.read(sentence);
    assertThat(times(Recurrence.of(said.rule(), LISBON, START)))
        .as(sentence)
        .isEqualTo(times(stated));
  }

  private static List<Occurrence> times(Recurrence recurrence) {
    return new Occurrences(recurrence, Optional.empty()).after(Instant.EPOCH, 40);
  }
}
