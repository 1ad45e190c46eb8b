package org.ysthmos.core.recurrence;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Collections;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * When something comes round.
 *
 * @param rule empty if only the times that are added count
 * @param zone in which all its times are
 * @param start the first time from which the rule counts (DTSTART), whether or not it fits the rule
 *     itself: a rule makes only what fits it
 * @param last the last day on which it may be; empty if there is no such day
 * @param without times of the rule that are left out (EXDATE)
 * @param also times beside the rule (RDATE)
 * @param offDays what becomes of times on days that are no working days
 * @param calendar the id of the calendar that says which days those are; empty if none matters
 */
public record Recurrence(
    Optional<RecurrenceRule> rule,
    ZoneId zone,
    LocalDateTime start,
    Optional<LocalDate> last,
    SortedSet<LocalDateTime> without,
    SortedSet<LocalDateTime> also,
    OffDays offDays,
    Optional<String> calendar) {

  public Recurrence {
    without = Collections.unmodifiableSortedSet(new TreeSet<>(without));
    also = Collections.unmodifiableSortedSet(new TreeSet<>(also));
  }

  /** A rule alone. */
  public static Recurrence of(RecurrenceRule rule, ZoneId zone, LocalDateTime start) {
    return new Recurrence(
        Optional.of(rule),
        zone,
        start,
        Optional.empty(),
        new TreeSet<>(),
        new TreeSet<>(),
        OffDays.KEEP,
        Optional.empty());
  }

  /** The same with another answer to days that are no working days, and who says which they are. */
  public Recurrence with(OffDays other, String calendarId) {
    return new Recurrence(rule, zone, start, last, without, also, other, Optional.of(calendarId));
  }

  /** The last moment at which it may be, by its rule or its last day; far away if there is none. */
  Instant end() {
    Instant byDay =
        last.map(day -> day.plusDays(1).atStartOfDay(zone).toInstant().minusNanos(1))
            .orElse(Instant.MAX);
    Instant byRule = rule.flatMap(one -> one.until(zone)).orElse(Instant.MAX);
    return byDay.isBefore(byRule) ? byDay : byRule;
  }
}
