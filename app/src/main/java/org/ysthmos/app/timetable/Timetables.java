package org.ysthmos.app.timetable;

import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.table.Tables;
import org.ysthmos.core.recurrence.Occurrences;
import org.ysthmos.core.recurrence.Timetable;

/** The times of timetables, by the calendars as they are now. */
@Component
public class Timetables {

  private final Tables tables;

  Timetables(Tables tables) {
    this.tables = tables;
  }

  /**
   * @throws IllegalStateException if its calendar is gone
   */
  public Occurrences times(Timetable timetable) {
    Optional<String> calendar = timetable.times().calendar();
    return new Occurrences(
        timetable.times(),
        calendar.map(
            id ->
                tables
                    .calendar(id)
                    .orElseThrow(() -> new IllegalStateException("there is no calendar " + id))));
  }
}
