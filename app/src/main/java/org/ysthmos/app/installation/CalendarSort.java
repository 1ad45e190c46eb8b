package org.ysthmos.app.installation;

import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.ysthmos.app.reference.CalendarChange;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.who.By;
import org.ysthmos.core.calendar.CalendarReader;
import org.ysthmos.core.calendar.CalendarWriter;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentNode;

/** The calendars of working days. */
@Component
@Order(2)
class CalendarSort extends FolderSort {

  static final String FOLDER = "calendars/";

  private final Tables tables;

  CalendarSort(Tables tables) {
    super(FOLDER);
    this.tables = tables;
  }

  static WorkingCalendar read(String text) {
    return CalendarReader.read(DocumentNode.parse(text));
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, String> here = new TreeMap<>();
    tables
        .calendars()
        .forEach((id, calendar) -> here.put(path(id), CalendarWriter.write(calendar)));
    return here;
  }

  @Override
  public String asExported(String path, String text) {
    WorkingCalendar calendar = read(text);
    requireCalled(calendar.id(), path);
    return CalendarWriter.write(calendar);
  }

  @Override
  public List<String> differences(String path, String before, String after) {
    return List.of(CalendarChange.words(read(before), read(after)));
  }

  @Override
  public void put(String path, String text, By by) {
    WorkingCalendar calendar = read(text);
    String what =
        tables
            .calendar(calendar.id())
            .map(before -> CalendarChange.words(before, calendar))
            .orElse("made");
    tables.put(calendar, what, by);
  }

  @Override
  public void remove(String path, By by) {
    tables.removeCalendar(id(path), by);
  }
}
