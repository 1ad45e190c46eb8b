package org.ysthmos.core.recurrence;

/**
 * When a bridge begins by itself.
 *
 * @param times when it comes round
 * @param catchUp which of the times that were missed are made up for
 */
public record Timetable(Recurrence times, CatchUp catchUp) {}
