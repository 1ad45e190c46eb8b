package org.ysthmos.adapters.drop;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.property.DateEnd;
import biweekly.util.ICalDate;
import biweekly.util.com.google.ical.compat.javautil.DateIterator;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.SequencedMap;
import java.util.TimeZone;
import java.util.TreeMap;

/**
 * The whole days of an iCalendar file (RFC 5545): what a calendar of holidays holds, with series
 * that come again each year. What has a time of day is no holiday.
 */
public final class HolidayFile {

  /** The most days that are read from one file. */
  private static final int MOST_DAYS = 5000;

  /**
   * What a file of holidays holds.
   *
   * @param days each day off, in order, with what it is called
   * @param leftOut how many events were left out, as they have a time of day
   */
  public record Holidays(SequencedMap<LocalDate, String> days, int leftOut) {}

  private HolidayFile() {}

  /**
   * Reads the days of some years.
   *
   * @throws IllegalArgumentException if it is no calendar, or holds too many days
   */
  public static Holidays read(String text, LocalDate first, LocalDate last) {
    List<ICalendar> calendars = Biweekly.parse(text).all();
    if (calendars.isEmpty()) {
      throw new IllegalArgumentException("this is no iCalendar file: it holds no BEGIN:VCALENDAR");
    }
    TreeMap<LocalDate, String> days = new TreeMap<>();
    int leftOut = 0;
    for (ICalendar calendar : calendars) {
      for (VEvent event : calendar.getEvents()) {
        ICalDate start = event.getDateStart() == null ? null : event.getDateStart().getValue();
        if (start == null || start.hasTime()) {
          leftOut++;
          continue;
        }
        String name = event.getSummary() == null ? "" : event.getSummary().getValue();
        for (LocalDate day : days(event, start, first, last)) {
          days.merge(day, name, (one, other) -> one.equals(other) ? one : one + ", " + other);
          if (days.size() > MOST_DAYS) {
            throw new IllegalArgumentException("the file holds more than " + MOST_DAYS + " days");
          }
        }
      }
    }
    return new Holidays(days, leftOut);
  }

  private static List<LocalDate> days(
      VEvent event, ICalDate start, LocalDate first, LocalDate last) {
    long length = length(event, start);
    List<LocalDate> days = new ArrayList<>();
    // A whole day is read as midnight where this runs, and is told back the same way.
    DateIterator series = event.getDateIterator(TimeZone.getDefault());
    series.advanceTo(
        Date.from(first.minusDays(length).atStartOfDay(ZoneId.systemDefault()).toInstant()));
    while (series.hasNext()) {
      LocalDate day = dayOf(series.next());
      if (day.isAfter(last)) {
        break;
      }
      for (int i = 0; i < length; i++) {
        LocalDate one = day.plusDays(i);
        if (!one.isBefore(first) && !one.isAfter(last)) {
          days.add(one);
        }
      }
    }
    return days;
  }

  /** How many days it takes; its end is the day after the last (RFC 5545 section 3.6.1). */
  private static long length(VEvent event, ICalDate start) {
    DateEnd end = event.getDateEnd();
    if (end == null || end.getValue() == null) {
      return 1;
    }
    long days = ChronoUnit.DAYS.between(dayOf(start), dayOf(end.getValue()));
    return Math.min(Math.max(1, days), 366);
  }

  private static LocalDate dayOf(Date date) {
    return LocalDate.ofInstant(date.toInstant(), ZoneId.systemDefault());
  }
}
