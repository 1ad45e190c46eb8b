package org.ysthmos.app.recall;

/** How taking back stands. */
public enum RecallState {
  /** What there is to take back is being listed. */
  LISTING,
  /** What there is to take back is listed; nothing was done about it. */
  LISTED,
  RUNNING,
  /** A person stopped it; what was not taken back stays. */
  STOPPED,
  /** All of it was dealt with. */
  ENDED,
  /** What was taken back is being made again. */
  MAKING_AGAIN,
  /** All that was taken back was sent again. */
  MADE_AGAIN
}
