package org.ysthmos.core.calendar;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentText;

/** Writes a calendar as its document; reading it gives the same calendar. */
public final class CalendarWriter {

  private CalendarWriter() {}

  public static String write(WorkingCalendar calendar) {
    SequencedMap<String, Object> document = new LinkedHashMap<>();
    document.put("calendar", calendar.id());
    document.put("name", calendar.name());
    document.put(
        "weekdays", calendar.weekdays().stream().sorted().map(DocumentNode::wordOf).toList());
    List<Object> holidays = new ArrayList<>();
    calendar
        .holidays()
        .forEach((day, name) -> holidays.add(name.isEmpty() ? day.toString() : of(day, name)));
    document.put("holidays", holidays);
    List<Object> closures = new ArrayList<>();
    for (WorkingCalendar.Closure closure : calendar.closures()) {
      SequencedMap<String, Object> written = new LinkedHashMap<>();
      written.put("first", closure.first().toString());
      written.put("last", closure.last().toString());
      written.put("why", closure.why());
      closures.add(written);
    }
    document.put("closures", closures);
    if (calendar.enteredUntil() != null) {
      document.put("entered-until", calendar.enteredUntil().toString());
    }
    return DocumentText.write(document);
  }

  private static Object of(LocalDate day, String name) {
    SequencedMap<String, Object> holiday = new LinkedHashMap<>();
    holiday.put("day", day.toString());
    holiday.put("name", name);
    return holiday;
  }
}
