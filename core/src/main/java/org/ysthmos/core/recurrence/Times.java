package org.ysthmos.core.recurrence;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.time.temporal.Temporal;
import java.util.List;
import net.fortuna.ical4j.model.Recur;

/** The times that a rule makes, before any of them is moved or left out. */
final class Times {

  /** A rule that makes nothing for so many days makes nothing more: 125 years. */
  private static final long FARTHEST = 125 * 366L;

  /** They are looked for in spans that grow by this. */
  private static final int GROWS = 8;

  /**
   * One of them.
   *
   * @param local as the rule says it; where the clock skips it, it is none of its zone
   */
  record Time(LocalDateTime local, ZonedDateTime at) {
    static Time of(LocalDateTime local, ZoneId zone) {
      // Where there is no such time it becomes later by the gap, where there are two the earlier
      // one, both as RFC 5545 section 3.3.5 has it.
      return new Time(local, local.atZone(zone));
    }
  }

  private final RecurrenceRule rule;
  private final ZoneId zone;
  private final LocalDateTime start;

  Times(RecurrenceRule rule, ZoneId zone, LocalDateTime start) {
    this.rule = rule;
    this.zone = zone;
    this.start = start;
  }

  /** The first ones that are not before a moment, in order. */
  List<Time> from(ZonedDateTime from, int most) {
    if (rule.frequency().isWithinADay()) {
      ZonedDateTime seed = start.atZone(zone);
      ZonedDateTime begin = from.isBefore(seed) ? seed : from;
      return search(new Recur<ZonedDateTime>(rule.endless()), seed, begin, most).stream()
          .map(at -> new Time(at.toLocalDateTime(), at))
          .toList();
    }
    LocalDateTime local = from.toLocalDateTime();
    LocalDateTime begin = local.isBefore(start) ? start : local;
    return search(new Recur<LocalDateTime>(rule.endless()), start, begin, most).stream()
        .map(said -> Time.of(said, zone))
        .toList();
  }

  /** In a span in which there should be as many, and where there are not in longer ones. */
  private <T extends Temporal> List<T> search(Recur<T> recur, T seed, T from, int most) {
    long days = Math.min(FARTHEST, rule.days() * (most + 1L));
    List<T> found = recur.getDates(seed, from, from.plus(days, ChronoUnit.DAYS), most);
    while (found.size() < most && days < FARTHEST) {
      days = Math.min(FARTHEST, days * GROWS);
      found = recur.getDates(seed, from, from.plus(days, ChronoUnit.DAYS), most);
    }
    return found;
  }
}
