package org.ysthmos.adapters.drop;

import biweekly.Biweekly;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VEvent;
import biweekly.io.TimezoneInfo;
import biweekly.io.WriteContext;
import biweekly.io.scribe.property.RecurrenceRuleScribe;
import biweekly.property.DateEnd;
import biweekly.util.ICalDate;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Date;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.ysthmos.core.recurrence.Occurrences;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.recurrence.Recurrence;
import org.ysthmos.core.recurrence.RecurrenceRule;

/**
 * The whole days of an iCalendar file (RFC 5545): what a calendar of holidays holds, with series
 * that come again each year, which the product's own recurrence expands (decision 43). What has a
 * time of day is no holiday.
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
    for (LocalDate day : begins(event, dayOf(start), first.minusDays(length), last)) {
      for (int i = 0; i < length; i++) {
        LocalDate one = day.plusDays(i);
        if (!one.isBefore(first) && !one.isAfter(last)) {
          days.add(one);
        }
      }
    }
    return days;
  }

  /** The days on which it begins, one or those of its series. */
  private static List<LocalDate> begins(
      VEvent event, LocalDate start, LocalDate after, LocalDate last) {
    Recurrence series =
        new Recurrence(
            rule(event),
            ZoneOffset.UTC,
            start.atStartOfDay(),
            Optional.empty(),
            days(event.getExceptionDates().stream().flatMap(some -> some.getValues().stream())),
            days(
                Stream.concat(
                    event.getRecurrenceDates().stream().flatMap(some -> some.getDates().stream()),
                    event.getRecurrenceRule() == null
                        ? Stream.of(event.getDateStart().getValue())
                        : Stream.of())),
            OffDays.KEEP,
            Optional.empty());
    Instant until = last.plusDays(1).atStartOfDay(ZoneOffset.UTC).toInstant();
    return new Occurrences(series, Optional.empty())
        .between(after.atStartOfDay(ZoneOffset.UTC).toInstant(), until, MOST_DAYS + 1).stream()
            .map(time -> time.said().toLocalDate())
            .toList();
  }

  private static SortedSet<LocalDateTime> days(Stream<? extends ICalDate> dates) {
    return dates
        .map(date -> dayOf(date).atStartOfDay())
        .collect(Collectors.toCollection(TreeSet::new));
  }

  /**
   * Its rule.
   *
   * @throws IllegalArgumentException if it has one that is none of RFC 5545
   */
  private static Optional<RecurrenceRule> rule(VEvent event) {
    biweekly.property.RecurrenceRule written = event.getRecurrenceRule();
    if (written == null) {
      return Optional.empty();
    }
    try {
      return Optional.of(
          RecurrenceRule.parse(
              new RecurrenceRuleScribe()
                  .writeText(
                      written, new WriteContext(ICalVersion.V2_0, new TimezoneInfo(), null))));
    } catch (IllegalArgumentException e) {
      String name = event.getSummary() == null ? "" : event.getSummary().getValue();
      throw new IllegalArgumentException(
          "“%s” comes again by a rule that cannot be read: %s".formatted(name, e.getMessage()), e);
    }
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

  /** A whole day is read as midnight where this runs. */
  private static LocalDate dayOf(Date date) {
    return LocalDate.ofInstant(date.toInstant(), ZoneId.systemDefault());
  }
}
