package org.ysthmos.app.trace;

/** By which rules what is sent again crosses. */
public enum CarriedBy {
  /** By those that are live when it is decided. */
  LIVE,
  /** By the version by which it was decided before; what was never decided, by the live one. */
  AS_BEFORE
}
