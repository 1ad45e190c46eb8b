package org.ysthmos.core.recurrence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.ZoneId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Source of what may be written: RFC 5545 section 3.3.10. */
class RecurrenceRuleTest {

  private static final ZoneId LISBON = ZoneId.of("Europe/Lisbon");

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "FREQ=DAILY;COUNT=0|COUNT is a number from 1",
        "FREQ=DAILY;INTERVAL=0|INTERVAL is a number from 1",
        "FREQ=DAILY;INTERVAL=-1|INTERVAL is a number from 1",
        "FREQ=DAILY;COUNT=99999999|COUNT is a number from 1",
        "FREQ=DAILY;COUNT=2;UNTIL=20270101|COUNT and UNTIL do not stand together",
        "FREQ=DAILY;UNTIL=tomorrow|UNTIL is written 20261224",
        "FREQ=DAILY;UNTIL=20261324|UNTIL is written 20261224",
        "FREQ=OFTEN|FREQ is SECONDLY",
        "INTERVAL=2|FREQ is missing",
        "|is no part of a rule",
        "FREQ=DAILY;|is no part of a rule",
        "FREQ=DAILY;TWICE=YES|“TWICE” is no part of a rule",
        "FREQ=DAILY;FREQ=WEEKLY|FREQ stands twice",
        "FREQ=WEEKLY;BYDAY=2MO|counted with FREQ=MONTHLY or YEARLY alone",
        "FREQ=MONTHLY;BYDAY=0MO|counts from 1 to 53",
        "FREQ=MONTHLY;BYDAY=MONDAY|days such as MO",
        "FREQ=YEARLY;BYWEEKNO=2;BYDAY=1MO|no day is counted beside BYWEEKNO",
        "FREQ=MONTHLY;BYWEEKNO=2|BYWEEKNO stands with FREQ=YEARLY alone",
        "FREQ=WEEKLY;BYMONTHDAY=2|BYMONTHDAY stands not with FREQ=WEEKLY",
        "FREQ=MONTHLY;BYYEARDAY=2|BYYEARDAY stands not with",
        "FREQ=MONTHLY;BYMONTHDAY=32|BYMONTHDAY goes from 1 to 31, or backwards",
        "FREQ=MONTHLY;BYMONTHDAY=0|BYMONTHDAY goes from 1 to 31",
        "FREQ=DAILY;BYHOUR=24|BYHOUR goes from 0 to 23",
        "FREQ=DAILY;BYHOUR=9,|and “” is none of that",
        "FREQ=MONTHLY;BYSETPOS=1|beside another part that begins with BY",
        "FREQ=WEEKLY;WKST=2|WKST is a day such as MO"
      })
  void whatTheSectionForbidsIsRefusedInWords(String written, String says) {
    assertThatThrownBy(() -> RecurrenceRule.parse(written == null ? "" : written))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining(says);
  }

  @Test
  void partsStandInOneOrderHoweverTheyAreWritten() {
    assertThat(RecurrenceRule.parse(" rrule:byday=fr;interval=4;freq=weekly "))
        .hasToString("FREQ=WEEKLY;INTERVAL=4;BYDAY=FR");
  }

  @ParameterizedTest
  @CsvSource({
    "20261224, 2026-12-24T23:59:59.999999999Z",
    "20260724, 2026-07-24T22:59:59.999999999Z",
    "20260724T180000, 2026-07-24T17:00:00Z",
    "20260724T180000Z, 2026-07-24T18:00:00Z"
  })
  void endIsADayInTheZoneOrAMoment(String written, Instant until) {
    assertThat(RecurrenceRule.parse("FREQ=DAILY;UNTIL=" + written).until(LISBON)).contains(until);
  }
}
