package org.ysthmos.core.recurrence;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZonedDateTime;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.recurrence.Occurrence.ClockChange;
import org.ysthmos.core.recurrence.Times.Time;

/**
 * The times of a recurrence, found from any moment on. A rule of days or longer counts in local
 * time, so that six in the morning stays six in the morning; one of hours or less counts the hours
 * that go by (RFC 5545 sections 3.3.5 and 3.3.10).
 */
public final class Occurrences {

  /** Where times are moved more than are wanted are found at once, as some may become one. */
  private static final int SPARE = 16;

  /** So often more are looked for, where all that were found are left out. */
  private static final int MOST_ROUNDS = 400;

  private final Recurrence recurrence;
  private final Optional<WorkingCalendar> calendar;
  private final Optional<Times> rule;

  /**
   * @param calendar says which days are working days; empty if none is stated
   * @throws IllegalArgumentException if working days matter and no calendar says which they are
   */
  public Occurrences(Recurrence recurrence, Optional<WorkingCalendar> calendar) {
    if (recurrence.offDays() != OffDays.KEEP && calendar.isEmpty()) {
      throw new IllegalArgumentException("which days are working days is said by a calendar");
    }
    this.recurrence = recurrence;
    this.calendar = calendar;
    this.rule = recurrence.rule().map(one -> new Times(one, recurrence.zone(), recurrence.start()));
  }

  /**
   * The times after a moment, the earliest first.
   *
   * @param most how many are wanted at the most
   */
  public List<Occurrence> after(Instant after, int most) {
    return between(after, Instant.MAX, most);
  }

  /** The time after a moment; empty if there is none any more. */
  public Optional<Occurrence> next(Instant after) {
    return after(after, 1).stream().findFirst();
  }

  /**
   * The times after a moment and up to another one, which counts too, the earliest first.
   *
   * @param most how many are wanted at the most
   */
  public List<Occurrence> between(Instant after, Instant until, int most) {
    Map<Instant, Occurrence> found = new HashMap<>();
    ZonedDateTime from = from(after);
    int some = moves() ? most + SPARE : most;
    for (int round = 0; round < MOST_ROUNDS; round++) {
      List<Time> times = times(from, some);
      for (Time time : times) {
        if (!time.at().toInstant().isAfter(recurrence.end())) {
          occurrence(time)
              .filter(one -> isWithin(one, after, until))
              .ifPresent(one -> keep(found, one));
        }
      }
      boolean through = times.size() < some;
      if (through || isEnough(found, most, times.getLast()) || isPast(times.getLast(), until)) {
        break;
      }
      from = times.getLast().at().plusNanos(1);
    }
    return sorted(found).limit(most).toList();
  }

  private static Stream<Occurrence> sorted(Map<Instant, Occurrence> found) {
    return found.values().stream().sorted(Comparator.comparing(Occurrence::at));
  }

  /** Whether times may be moved, so that their order is not that of the rule. */
  private boolean moves() {
    return recurrence.offDays() == OffDays.NEXT || recurrence.offDays() == OffDays.BEFORE;
  }

  /**
   * Whether no later time of the rule can come to stand before the last that is wanted, or at the
   * same moment: days are moved in their order, and times of one day are not.
   */
  private boolean isEnough(Map<Instant, Occurrence> found, int most, Time last) {
    if (!moves()) {
      return found.size() >= most;
    }
    LocalDate day = last.local().toLocalDate();
    LocalDate stands = stands(day).orElse(day);
    LocalDate until = stands.isBefore(day) ? stands : day;
    return found.size() >= most
        && sorted(found)
            .skip(most - 1L)
            .findFirst()
            .orElseThrow()
            .at()
            .toLocalDate()
            .isBefore(until);
  }

  /** The same for the end of what is looked at. */
  private boolean isPast(Time last, Instant until) {
    return last.at().minusYears(1).toInstant().isAfter(until)
        || (recurrence.offDays() != OffDays.BEFORE
            && last.at().minusDays(1).toInstant().isAfter(until));
  }

  private static boolean isWithin(Occurrence one, Instant after, Instant until) {
    Instant at = one.at().toInstant();
    return at.isAfter(after) && !at.isAfter(until);
  }

  /** Of several that come to stand at one moment one counts: the one that is not moved. */
  private static void keep(Map<Instant, Occurrence> found, Occurrence one) {
    found.merge(
        one.at().toInstant(), one, (known, more) -> known.moved() && !more.moved() ? more : known);
  }

  /** From when on times may come to stand after a moment, wherever they are moved. */
  private ZonedDateTime from(Instant after) {
    ZonedDateTime begins = recurrence.start().atZone(recurrence.zone()).minusYears(1);
    ZonedDateTime at =
        after.isBefore(begins.toInstant()) ? begins : after.atZone(recurrence.zone());
    LocalDate day = at.toLocalDate().minusDays(1);
    if (recurrence.offDays() == OffDays.NEXT) {
      WorkingCalendar working = calendar.orElseThrow();
      day = working.isWorking(day) ? day : working.move(day, -1).orElse(day);
    }
    return day.atStartOfDay(recurrence.zone());
  }

  /** Times as the recurrence says them, from one on, in order. */
  private List<Time> times(ZonedDateTime from, int most) {
    TreeMap<Instant, Time> all = new TreeMap<>();
    rule.ifPresent(
        times -> times.from(from, most).forEach(time -> all.put(time.at().toInstant(), time)));
    boolean whole = all.size() < most;
    Instant last = whole ? Instant.MAX : all.lastKey();
    for (LocalDateTime one : recurrence.also()) {
      Time time = Time.of(one, recurrence.zone());
      Instant at = time.at().toInstant();
      if (!time.at().isBefore(from) && !at.isAfter(last)) {
        all.putIfAbsent(at, time);
      }
    }
    return List.copyOf(all.values());
  }

  /** Where a time of the rule comes to stand; empty if it is left out. */
  private Optional<Occurrence> occurrence(Time time) {
    if (recurrence.without().contains(time.local())) {
      return Optional.empty();
    }
    LocalDate day = time.local().toLocalDate();
    return stands(day)
        .map(
            stands ->
                stands.equals(day)
                    ? new Occurrence(time.local(), time.at(), clock(time.local()), false)
                    : moved(time, stands.atTime(time.local().toLocalTime())));
  }

  private Occurrence moved(Time time, LocalDateTime to) {
    return new Occurrence(time.local(), to.atZone(recurrence.zone()), clock(to), true);
  }

  private ClockChange clock(LocalDateTime local) {
    return switch (recurrence.zone().getRules().getValidOffsets(local).size()) {
      case 0 -> ClockChange.SKIPPED;
      case 1 -> ClockChange.NONE;
      default -> ClockChange.TWICE;
    };
  }

  /** The day on which a time of a day stands; empty if it is left out. */
  private Optional<LocalDate> stands(LocalDate day) {
    if (recurrence.offDays() == OffDays.KEEP || calendar.orElseThrow().isWorking(day)) {
      return Optional.of(day);
    }
    return switch (recurrence.offDays()) {
      case KEEP -> Optional.of(day);
      case NEXT -> calendar.orElseThrow().move(day, 1);
      case BEFORE -> calendar.orElseThrow().move(day, -1);
      case LEAVE_OUT -> Optional.empty();
    };
  }
}
