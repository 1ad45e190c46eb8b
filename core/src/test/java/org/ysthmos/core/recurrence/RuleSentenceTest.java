package org.ysthmos.core.recurrence;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Optional;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RuleSentenceTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "FREQ=DAILY|every day at 06:00 in Lisbon",
        "FREQ=DAILY;INTERVAL=10|every 10 days at 06:00 in Lisbon",
        "FREQ=DAILY;COUNT=3|every day, 3 times at 06:00 in Lisbon",
        "FREQ=WEEKLY|every Friday at 06:00 in Lisbon",
        "FREQ=WEEKLY;BYDAY=MO,WE,FR|every Monday, Wednesday and Friday at 06:00 in Lisbon",
        "FREQ=WEEKLY;INTERVAL=2;BYDAY=FR|every other Friday at 06:00 in Lisbon",
        "FREQ=WEEKLY;INTERVAL=4;BYDAY=FR|every fourth Friday at 06:00 in Lisbon",
        "FREQ=WEEKLY;INTERVAL=3;BYDAY=TU,TH|every third week on Tuesday and Thursday at 06:00 in Lisbon",
        "FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR|every day from Monday to Friday at 06:00 in Lisbon",
        "FREQ=MONTHLY|on the 20th of each month at 06:00 in Lisbon",
        "FREQ=MONTHLY;BYMONTHDAY=1,15|on the 1st and 15th of each month at 06:00 in Lisbon",
        "FREQ=MONTHLY;BYMONTHDAY=-1|on the last day of each month at 06:00 in Lisbon",
        "FREQ=MONTHLY;BYDAY=4FR|on the fourth Friday of each month at 06:00 in Lisbon",
        "FREQ=MONTHLY;INTERVAL=2;BYDAY=1SU,-1SU|on the first Sunday and last Sunday of every other month at 06:00 in Lisbon",
        "FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1|on the last weekday of each month at 06:00 in Lisbon",
        "FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=24|each year on 24 December at 06:00 in Lisbon",
        "FREQ=YEARLY|each year on 20 November at 06:00 in Lisbon",
        "FREQ=HOURLY;INTERVAL=3|every 3 hours in Lisbon",
        "FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO|by the rule FREQ=YEARLY;BYDAY=MO;BYWEEKNO=53 at 06:00 in Lisbon"
      })
  void ruleIsSaidAsPeopleSayIt(String rule, String sentence) {
    assertThat(
            RuleSentence.of(
                Recurrence.of(
                    RecurrenceRule.parse(rule),
                    ZoneId.of("Europe/Lisbon"),
                    LocalDateTime.parse("2026-11-20T06:00"))))
        .isEqualTo(sentence);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "the last working day of each month|on the last working day of each month",
        "the first working day of every other month|on the first working day of every other month",
        "every working day|every working day"
      })
  void workingDaysAreSaidAsTheyWereWritten(String words, String sentence) {
    RuleWords.Said said = RuleWords.read(words);
    Recurrence read =
        Recurrence.of(
                said.rule(), ZoneId.of("Europe/Lisbon"), LocalDateTime.parse("2026-11-20T06:00"))
            .with(said.offDays(), "garden");
    assertThat(RuleSentence.of(read)).isEqualTo(sentence + " at 06:00 in Lisbon");
    assertThat(RuleSentence.of(read.with(OffDays.KEEP, "garden"))).doesNotContain("working");
  }

  @Test
  void endsDaysOffAndWhatIsLeftOutAreSaidToo() {
    TreeSet<LocalDateTime> one = new TreeSet<>();
    one.add(LocalDateTime.parse("2026-11-27T06:00"));
    assertThat(
            RuleSentence.of(
                new Recurrence(
                    Optional.of(RecurrenceRule.parse("FREQ=WEEKLY;UNTIL=20270101T060000Z")),
                    ZoneId.of("America/New_York"),
                    LocalDateTime.parse("2026-11-20T06:00"),
                    Optional.of(LocalDate.parse("2027-02-01")),
                    one,
                    new TreeSet<>(),
                    OffDays.NEXT,
                    Optional.of("garden"))))
        .isEqualTo(
            "every Friday, until 1 January 2027 at 06:00 in New York, on the next working day if"
                + " that is none, without 1 of them, until 1 February 2027");
  }
}
