package org.ysthmos.app.reference;

import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.calendar.WorkingCalendar;

/** Calendars that live bridges count on and that name no days off of the time to come. */
@Component
public class EndingCalendars {

  /** So long before, there is time to ask for next year's holidays; common practice, no source. */
  private static final int DAYS_AHEAD = 60;

  /**
   * A calendar that runs out.
   *
   * @param last the last day that it stands for
   * @param part what of it ends there
   * @param bridges the names of the live bridges that count on it
   */
  public record EndingLine(
      String id, String name, LocalDate last, WorkingCalendar.Part part, List<String> bridges) {}

  private final Tables tables;
  private final Users users;
  private final AppClock clock;
  private final Settings settings;

  EndingCalendars(Tables tables, Users users, AppClock clock, Settings settings) {
    this.tables = tables;
    this.users = users;
    this.clock = clock;
    this.settings = settings;
  }

  /** Those that run out soon or did already, the first to run out first. */
  public List<EndingLine> lines() {
    LocalDate soon = LocalDate.ofInstant(clock.instant(), settings.zone()).plusDays(DAYS_AHEAD);
    return tables.calendars().values().stream()
        .flatMap(calendar -> line(calendar, soon).stream())
        .sorted(Comparator.comparing(EndingLine::last).thenComparing(EndingLine::id))
        .toList();
  }

  private Optional<EndingLine> line(WorkingCalendar calendar, LocalDate soon) {
    List<String> bridges =
        users.ofCalendar(calendar.id()).stream().map(Users.UserView::name).toList();
    return bridges.isEmpty()
        ? Optional.empty()
        : calendar
            .end()
            .filter(end -> end.last().isBefore(soon))
            .map(
                end ->
                    new EndingLine(
                        calendar.id(), calendar.name(), end.last(), end.part(), bridges));
  }
}
