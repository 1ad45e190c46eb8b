package org.ysthmos.core.calendar;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Month;
import java.time.temporal.ChronoUnit;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Which days are worked on.
 *
 * @param id short, stable, lower case with hyphens
 * @param name what people call it
 * @param weekdays the days of the week that are worked on; at least one
 * @param holidays single days off, with what they are called; empty where that is not said
 * @param closures spans of days off
 * @param enteredUntil the last day up to which people say that all days off are entered; null if
 *     they do not say
 */
public record WorkingCalendar(
    String id,
    String name,
    Set<DayOfWeek> weekdays,
    Map<LocalDate, String> holidays,
    List<Closure> closures,
    @Nullable LocalDate enteredUntil) {

  /** Days off from the first to the last, both included. */
  public record Closure(LocalDate first, LocalDate last, String why) {

    /**
     * @throws IllegalArgumentException if it ends before it starts
     */
    public Closure {
      if (last.isBefore(first)) {
        throw new IllegalArgumentException(
            "a closure ends before it starts: " + first + " to " + last);
      }
    }

    boolean holds(LocalDate day) {
      return !day.isBefore(first) && !day.isAfter(last);
    }
  }

  /** What of a calendar ends before the rest of it. */
  public enum Part {
    /** It is said up to when all is entered. */
    ALL,
    HOLIDAYS,
    CLOSURES
  }

  /**
   * Where a calendar ends.
   *
   * @param last the last day that it stands for
   */
  public record End(LocalDate last, Part part) {}

  /** How many days are looked at to find one working day, before it is given up. */
  private static final int LONGEST_BREAK = 3700;

  /** How far a day is moved at the most, in working days. */
  public static final int FARTHEST = 10_000;

  /** How far apart two days may be to have their working days counted, in days. */
  public static final int FARTHEST_APART = 40_000;

  /**
   * @throws IllegalArgumentException if no day of the week is worked on
   */
  public WorkingCalendar {
    if (weekdays.isEmpty()) {
      throw new IllegalArgumentException("a calendar needs at least one working weekday");
    }
    weekdays = Set.copyOf(weekdays);
    holidays = Collections.unmodifiableSortedMap(new TreeMap<>(holidays));
    closures = List.copyOf(closures);
  }

  /**
   * Up to when it can be counted on: as people say, else by what is entered. Holidays and closures
   * stand for whole years; a year with less than half as many as the fullest, such as with a New
   * Year's Day alone, is not entered yet. Whichever of both ends first is told.
   *
   * @return empty if it has no days off and nothing is said, so that nothing runs out
   */
  public Optional<End> end() {
    if (enteredUntil != null) {
      return Optional.of(new End(enteredUntil, Part.ALL));
    }
    return Stream.of(
            lastFullYear(holidays.keySet().stream(), Part.HOLIDAYS),
            lastFullYear(closures.stream().map(Closure::first), Part.CLOSURES))
        .flatMap(Optional::stream)
        .min(Comparator.comparing(End::last));
  }

  private static Optional<End> lastFullYear(Stream<LocalDate> days, Part part) {
    Map<Integer, Long> years =
        days.collect(Collectors.groupingBy(LocalDate::getYear, Collectors.counting()));
    long most = years.values().stream().max(Comparator.naturalOrder()).orElse(0L);
    return years.entrySet().stream()
        .filter(year -> year.getValue() * 2 >= most)
        .map(Map.Entry::getKey)
        .max(Comparator.naturalOrder())
        .map(year -> new End(LocalDate.of(year, Month.DECEMBER, 31), part));
  }

  public boolean isWorking(LocalDate day) {
    return weekdays.contains(day.getDayOfWeek())
        && !holidays.containsKey(day)
        && closures.stream().noneMatch(closure -> closure.holds(day));
  }

  /**
   * Moves a day over working days. The day itself is not counted, so that one working day after a
   * Friday and one after the Saturday behind it are both the Monday; moved by none it is itself if
   * it is a working day, else the next one (common practice, no source; spreadsheets count alike).
   *
   * @param days how many working days later; earlier if negative; at most {@link #FARTHEST}
   * @return empty if there is a break of ten years, so that no such day is found
   */
  public Optional<LocalDate> move(LocalDate from, int days) {
    return move(List.of(this), from, days);
  }

  /**
   * The same over the days that are working days in each of several calendars.
   *
   * @param all at least one
   * @return empty if none is found for ten years
   */
  public static Optional<LocalDate> move(List<WorkingCalendar> all, LocalDate from, int days) {
    if (days == 0 && areWorking(all, from)) {
      return Optional.of(from);
    }
    int direction = days < 0 ? -1 : 1;
    Optional<LocalDate> day = Optional.of(from);
    int most = Math.clamp(Math.abs((long) days), 1, FARTHEST);
    for (int left = most; left > 0 && day.isPresent(); left--) {
      day = next(all, day.get(), direction);
    }
    return day;
  }

  private static boolean areWorking(List<WorkingCalendar> all, LocalDate day) {
    return all.stream().allMatch(calendar -> calendar.isWorking(day));
  }

  /**
   * How many working days lie between two days: those after the first, up to the last. From one
   * working day to another it is how far {@link #move} has to go. Where the last is earlier it is
   * the same the other way round, with a minus sign.
   *
   * @return empty if the days lie farther apart than {@link #FARTHEST_APART}
   */
  public OptionalInt between(LocalDate first, LocalDate last) {
    if (Math.abs(ChronoUnit.DAYS.between(first, last)) > FARTHEST_APART) {
      return OptionalInt.empty();
    }
    int direction = last.isBefore(first) ? -1 : 1;
    int count = 0;
    for (LocalDate day = first; !day.equals(last); ) {
      day = day.plusDays(direction);
      count += isWorking(day) ? direction : 0;
    }
    return OptionalInt.of(count);
  }

  private static Optional<LocalDate> next(
      List<WorkingCalendar> all, LocalDate from, int direction) {
    LocalDate day = from;
    for (int i = 0; i < LONGEST_BREAK; i++) {
      day = day.plusDays(direction);
      if (areWorking(all, day)) {
        return Optional.of(day);
      }
    }
    return Optional.empty();
  }
}
