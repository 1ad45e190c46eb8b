package org.ysthmos.core.calendar;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.ysthmos.core.document.DocumentNode;

/** Reads a calendar document. What it does not know it refuses, with line and column. */
public final class CalendarReader {

  private CalendarReader() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public static WorkingCalendar read(DocumentNode root) {
    root.only("calendar", "name", "weekdays", "holidays", "closures", "entered-until");
    return new WorkingCalendar(
        root.need("calendar").id(),
        root.need("name").text(),
        weekdays(root.need("weekdays")),
        root.get("holidays").map(CalendarReader::holidays).orElse(Map.of()),
        root.get("closures").map(CalendarReader::closures).orElse(List.of()),
        root.get("entered-until").map(CalendarReader::day).orElse(null));
  }

  private static Set<DayOfWeek> weekdays(DocumentNode node) {
    Set<DayOfWeek> weekdays = EnumSet.noneOf(DayOfWeek.class);
    node.list().forEach(day -> weekdays.add(day.word(DayOfWeek.class)));
    if (weekdays.isEmpty()) {
      throw node.refuse("at least one weekday is needed, for example [monday]");
    }
    return weekdays;
  }

  /** Days, each alone or with what it is called. */
  private static Map<LocalDate, String> holidays(DocumentNode node) {
    Map<LocalDate, String> holidays = new LinkedHashMap<>();
    for (DocumentNode one : node.list()) {
      if (one.isGroup()) {
        one.only("day", "name");
        holidays.put(day(one.need("day")), one.need("name").text());
      } else {
        holidays.put(day(one), "");
      }
    }
    return holidays;
  }

  private static LocalDate day(DocumentNode node) {
    try {
      return LocalDate.parse(node.text());
    } catch (DateTimeException e) {
      throw node.refuse("“" + node.text() + "” is no day; write it as 2026-12-24");
    }
  }

  private static List<WorkingCalendar.Closure> closures(DocumentNode node) {
    return node.list().stream()
        .map(
            closure -> {
              closure.only("first", "last", "why");
              LocalDate first = day(closure.need("first"));
              LocalDate last = day(closure.need("last"));
              if (last.isBefore(first)) {
                throw closure.need("last").refuse("the closure ends before it starts");
              }
              String why = closure.get("why").map(DocumentNode::text).orElse("");
              return new WorkingCalendar.Closure(first, last, why);
            })
        .toList();
  }
}
