package org.ysthmos.adapters.drop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.Collection;
import org.junit.jupiter.api.Test;

class HolidayFileTest {

  private static final LocalDate FIRST = LocalDate.of(2026, 1, 1);
  private static final LocalDate LAST = LocalDate.of(2028, 12, 31);

  private static String calendar(String events) {
    return ("BEGIN:VCALENDAR\nVERSION:2.0\nPRODID:-//test//EN\n" + events + "END:VCALENDAR\n")
        .replace("\n", "\r\n");
  }

  private static String event(String lines) {
    return "BEGIN:VEVENT\nUID:" + lines.hashCode() + "\n" + lines + "END:VEVENT\n";
  }

  /**
   * RFC 5545 section 3.8.5.3: "every Thanksgiving" is FREQ=YEARLY;BYMONTH=11;BYDAY=4TH, and section
   * 3.6.1: an anniversary is a whole day with FREQ=YEARLY.
   */
  @Test
  void seriesComeAgainEachYear() {
    HolidayFile.Holidays read =
        HolidayFile.read(
            calendar(
                event(
                        "DTSTART;VALUE=DATE:19970102\nRRULE:FREQ=YEARLY\nSUMMARY:Our Blissful"
                            + " Anniversary\n")
                    + event(
                        "DTSTART;VALUE=DATE:19971127\nRRULE:FREQ=YEARLY;BYMONTH=11;BYDAY=4TH\n"
                            + "SUMMARY:Thanksgiving\n")),
            FIRST,
            LAST);
    assertThat(read.days())
        .containsOnlyKeys(
            LocalDate.of(2026, 1, 2),
            LocalDate.of(2026, 11, 26),
            LocalDate.of(2027, 1, 2),
            LocalDate.of(2027, 11, 25),
            LocalDate.of(2028, 1, 2),
            LocalDate.of(2028, 11, 23));
    assertThat(read.days()).containsEntry(LocalDate.of(2026, 11, 26), "Thanksgiving");
  }

  /**
   * ISO 8601: 2026 has a week 53, which begins on 28 December, and 2027 and 2028 have none; a
   * series may leave days out and have others beside it (RFC 5545 sections 3.8.5.1 and 3.8.5.2).
   */
  @Test
  void seriesOfWeeksAndDaysThatAreLeftOut() {
    assertThat(
            days(
                "DTSTART;VALUE=DATE:20201228\nRRULE:FREQ=YEARLY;BYWEEKNO=53;BYDAY=MO\n"
                    + "SUMMARY:Stocktaking\n"))
        .containsExactly(LocalDate.of(2026, 12, 28));
    assertThat(
            days(
                "DTSTART;VALUE=DATE:20260610\nRRULE:FREQ=YEARLY\nEXDATE;VALUE=DATE:20270610\n"
                    + "RDATE;VALUE=DATE:20270611\nSUMMARY:Day of the garden\n"))
        .containsExactly(
            LocalDate.of(2026, 6, 10), LocalDate.of(2027, 6, 11), LocalDate.of(2028, 6, 10));
    assertThatThrownBy(
            () -> days("DTSTART;VALUE=DATE:20260610\nRRULE:FREQ=OFTEN\nSUMMARY:Some day\n"))
        .hasMessageStartingWith("“Some day” comes again by a rule that cannot be read");
  }

  private static Collection<LocalDate> days(String lines) {
    return HolidayFile.read(calendar(event(lines)), FIRST, LAST).days().keySet();
  }

  /**
   * RFC 5545 section 3.6.1: DTEND is not included: 28 June to 8 July is up to the ninth excluded.
   */
  @Test
  void endIsTheDayAfterTheLast() {
    HolidayFile.Holidays read =
        HolidayFile.read(
            calendar(
                event(
                    "DTSTART;VALUE=DATE:20270628\nDTEND;VALUE=DATE:20270709\nSUMMARY:Festival\n")),
            FIRST,
            LAST);
    assertThat(read.days()).hasSize(11);
    assertThat(read.days().firstEntry().getKey()).isEqualTo(LocalDate.of(2027, 6, 28));
    assertThat(read.days().lastEntry().getKey()).isEqualTo(LocalDate.of(2027, 7, 8));
  }

  @Test
  void whatHasATimeIsNoHolidayAndIsCounted() {
    HolidayFile.Holidays read =
        HolidayFile.read(
            calendar(
                event("DTSTART:20270628T090000Z\nSUMMARY:Meeting\n")
                    + event("DTSTART;VALUE=DATE:20270629\nSUMMARY:St Peter\n")),
            FIRST,
            LAST);
    assertThat(read.leftOut()).isEqualTo(1);
    assertThat(read.days()).containsOnlyKeys(LocalDate.of(2027, 6, 29));
  }

  @Test
  void seriesWithoutEndOnEachDayIsBounded() {
    assertThatThrownBy(
            () ->
                HolidayFile.read(
                    calendar(event("DTSTART;VALUE=DATE:20200101\nRRULE:FREQ=DAILY\n")),
                    FIRST,
                    LocalDate.of(2200, 1, 1)))
        .hasMessageContaining("more than 5000 days");
    assertThatThrownBy(() -> HolidayFile.read("day,name\n", FIRST, LAST))
        .hasMessageContaining("no iCalendar file");
  }
}
