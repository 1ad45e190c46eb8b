package org.ysthmos.app.reference;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.drop.HolidayFile;
import org.ysthmos.app.Settings;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.reference.Users.UserView;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.table.Tables.Change;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.DocumentNode;

/** Making, changing and taking away working calendars. */
@RestController
@RequestMapping(path = "/api/calendars", produces = MediaType.APPLICATION_JSON_VALUE)
class CalendarKeeping {

  /** For how many years holidays are read from a file, the last one and this one among them. */
  private static final int YEARS_READ = 6;

  /**
   * A calendar in a list.
   *
   * @param lastYear the last year with a holiday or a closure; null where there is none
   */
  record CalendarSummary(
      String id,
      String name,
      int holidays,
      int closures,
      @Nullable Integer firstYear,
      @Nullable Integer lastYear) {}

  /** A day off. */
  record HolidayView(LocalDate day, String name) {}

  /** Days off from the first to the last, both included. */
  record ClosureView(LocalDate first, LocalDate last, String why) {}

  /**
   * A calendar, who uses it, and what became of it.
   *
   * @param weekdays the words of the days that are worked on
   * @param enteredUntil the last day up to which all days off are said to be entered
   * @param today the day it is here
   * @param basedOn the order number of the newest change
   */
  record CalendarView(
      CalendarSummary calendar,
      List<String> weekdays,
      List<HolidayView> holidays,
      List<ClosureView> closures,
      @Schema(nullable = true) @Nullable LocalDate enteredUntil,
      LocalDate today,
      List<UserView> users,
      List<Change> changes,
      long basedOn) {}

  /**
   * A calendar as it is to be.
   *
   * @param enteredUntil the last day up to which all days off are entered; null if nobody says so
   * @param basedOn the newest change that the person saw; 0 for a new calendar
   */
  record CalendarWish(
      String name,
      List<String> weekdays,
      List<HolidayView> holidays,
      List<ClosureView> closures,
      @Schema(nullable = true) @Nullable LocalDate enteredUntil,
      long basedOn) {}

  /**
   * What a file of holidays holds.
   *
   * @param leftOut how many events have a time of day and were left out
   */
  record FileView(List<HolidayView> holidays, int leftOut, int firstYear, int lastYear) {}

  private final Tables tables;
  private final Users users;
  private final AppClock clock;
  private final ZoneId zone;

  CalendarKeeping(Tables tables, Users users, AppClock clock, Settings settings) {
    this.tables = tables;
    this.users = users;
    this.clock = clock;
    this.zone = settings.zone();
  }

  @GetMapping
  List<CalendarSummary> all() {
    return tables.calendars().keySet().stream().sorted().map(id -> summary(calendar(id))).toList();
  }

  private static CalendarSummary summary(WorkingCalendar calendar) {
    List<Integer> years = new ArrayList<>();
    calendar.holidays().keySet().forEach(day -> years.add(day.getYear()));
    calendar.closures().forEach(closure -> years.add(closure.last().getYear()));
    return new CalendarSummary(
        calendar.id(),
        calendar.name(),
        calendar.holidays().size(),
        calendar.closures().size(),
        years.stream().min(Integer::compare).orElse(null),
        years.stream().max(Integer::compare).orElse(null));
  }

  @GetMapping("/{id}")
  CalendarView one(@PathVariable String id) {
    WorkingCalendar calendar = calendar(id);
    List<Change> changes = tables.changesOfCalendar(id);
    return new CalendarView(
        summary(calendar),
        calendar.weekdays().stream().sorted().map(DocumentNode::wordOf).toList(),
        calendar.holidays().entrySet().stream()
            .map(day -> new HolidayView(day.getKey(), day.getValue()))
            .toList(),
        calendar.closures().stream()
            .map(one -> new ClosureView(one.first(), one.last(), one.why()))
            .toList(),
        calendar.enteredUntil(),
        today(),
        users.ofCalendar(id),
        changes,
        changes.isEmpty() ? 0 : changes.getFirst().seq());
  }

  private LocalDate today() {
    return LocalDate.ofInstant(clock.instant(), zone);
  }

  /** Keeps a calendar, a new one or one that is there. */
  @PutMapping("/{id}")
  CalendarView put(@PathVariable String id, @RequestBody CalendarWish wish) {
    if (!DocumentNode.isId(id)) {
      throw refused("No id", "“" + id + "” is no id: lower case with hyphens.");
    }
    List<Change> before = tables.changesOfCalendar(id);
    long newest = before.isEmpty() ? 0 : before.getFirst().seq();
    boolean there = tables.calendar(id).isPresent();
    if (there ? newest != wish.basedOn() : wish.basedOn() != 0) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Changed meanwhile",
          "Somebody else changed the calendar since you opened it. Open it again to see how.");
    }
    WorkingCalendar calendar = calendar(id, wish);
    tables.put(
        calendar,
        tables.calendar(id).map(old -> CalendarChange.words(old, calendar)).orElse("made"),
        By.PERSON);
    users.refresh();
    return one(id);
  }

  private static WorkingCalendar calendar(String id, CalendarWish wish) {
    Set<DayOfWeek> weekdays = EnumSet.noneOf(DayOfWeek.class);
    for (String word : wish.weekdays()) {
      try {
        weekdays.add(DayOfWeek.valueOf(word.toUpperCase(Locale.ROOT)));
      } catch (IllegalArgumentException e) {
        throw refused("No weekday", "“" + word + "” is no day of the week.");
      }
    }
    Map<LocalDate, String> holidays = new TreeMap<>();
    wish.holidays().forEach(day -> holidays.put(day.day(), day.name()));
    try {
      return new WorkingCalendar(
          id,
          wish.name().isBlank() ? id : wish.name(),
          weekdays,
          holidays,
          wish.closures().stream()
              .map(one -> new WorkingCalendar.Closure(one.first(), one.last(), one.why()))
              .toList(),
          wish.enteredUntil());
    } catch (IllegalArgumentException e) {
      throw refused("Not kept", e.getMessage() + ".");
    }
  }

  /** Takes a calendar away that no live bridge uses. */
  @DeleteMapping("/{id}")
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable String id) {
    WorkingCalendar unused = calendar(id);
    Users.requireUnused(users.ofCalendar(id));
    tables.removeCalendar(id, By.PERSON);
  }

  /** Reads the holidays of an iCalendar file; nothing is kept. */
  @PostMapping(path = "/holidays", consumes = "text/calendar")
  FileView read(@RequestBody String file) {
    LocalDate first = LocalDate.of(today().getYear() - 1, 1, 1);
    LocalDate last = first.plusYears(YEARS_READ).minusDays(1);
    try {
      HolidayFile.Holidays read = HolidayFile.read(file, first, last);
      return new FileView(
          read.days().entrySet().stream()
              .map(day -> new HolidayView(day.getKey(), day.getValue()))
              .toList(),
          read.leftOut(),
          first.getYear(),
          last.getYear());
    } catch (IllegalArgumentException e) {
      throw refused("Not read", e.getMessage() + ".");
    }
  }

  private WorkingCalendar calendar(String id) {
    return tables.calendar(id).orElseThrow(() -> ApiProblem.notFound("calendar", id));
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.UNPROCESSABLE_ENTITY, title, detail);
  }
}
