package org.ysthmos.core.recurrence;

/** Which of the times that were missed are made up for. */
public enum CatchUp {
  /** Each of them. */
  EACH,
  /** Only the one that came last. */
  LATEST,
  /** None. */
  NONE
}
