package org.ysthmos.core.recurrence;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;

/**
 * One time of a recurrence.
 *
 * @param said as the rule says it, in its zone; it stays what it is wherever the time is moved
 * @param at when it is
 * @param clock whether the clock is changed just then
 * @param moved whether it stands on another day than the rule says, as that is no working day
 */
public record Occurrence(LocalDateTime said, ZonedDateTime at, ClockChange clock, boolean moved) {

  /** What a change of the clock makes of a time (RFC 5545 section 3.3.5). */
  public enum ClockChange {
    NONE,
    /** There is no such time on that day: it is as much later as the clock is put forward. */
    SKIPPED,
    /** It comes twice on that day: a rule of days means the first. */
    TWICE
  }

  /**
   * What tells it from every other time of its recurrence, wherever it is moved: the time as the
   * rule says it, with how far the clock there is from UTC (ISO 8601), such as {@code
   * 2026-11-27T06:00-04:00}.
   */
  public String id() {
    ZoneOffset offset = moved ? said.atZone(at.getZone()).getOffset() : at.getOffset();
    return said + offset.getId();
  }
}
