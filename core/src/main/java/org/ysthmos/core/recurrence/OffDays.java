package org.ysthmos.core.recurrence;

/** What becomes of a time on a day that is no working day. */
public enum OffDays {
  /** It stays where it is. */
  KEEP,
  /** It goes to the next working day, at the same time of day. */
  NEXT,
  /** It goes to the working day before. */
  BEFORE,
  /** It is left out. */
  LEAVE_OUT
}
