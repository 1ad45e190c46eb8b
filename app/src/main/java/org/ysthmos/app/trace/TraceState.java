package org.ysthmos.app.trace;

import java.util.EnumSet;
import java.util.Set;

/** Where a trace is that has not ended. */
public enum TraceState {
  /** It can be decided. */
  READY,
  /** An earlier trace of the same record has not ended. */
  BEHIND,
  /** It is tried again at a stated time. */
  PAUSED,
  /** A delivery of another trace for the same pair has not ended. */
  AWAITING_PAIR,
  /** Somebody has claimed it and decides it. */
  DECIDING,
  /** It is decided, and not all of its deliveries have ended. */
  DELIVERING;

  /** Which changes are allowed; from any state a trace may end. */
  private Set<TraceState> next() {
    return switch (this) {
      case READY -> EnumSet.of(DECIDING);
      case BEHIND, PAUSED, AWAITING_PAIR -> EnumSet.of(READY);
      case DECIDING -> EnumSet.of(READY, PAUSED, AWAITING_PAIR, DELIVERING);
      case DELIVERING -> EnumSet.noneOf(TraceState.class);
    };
  }

  public boolean mayBecome(TraceState other) {
    return next().contains(other);
  }
}
