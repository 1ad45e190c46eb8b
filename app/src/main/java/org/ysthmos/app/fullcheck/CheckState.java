package org.ysthmos.app.fullcheck;

import java.util.Optional;
import org.ysthmos.core.sync.Side;

/** How a full check stands. */
public enum CheckState {
  /** The list of the left side is being read. */
  READING_LEFT,
  /** What stands in no list of the left side is being looked for. */
  MISSING_LEFT,
  READING_RIGHT,
  MISSING_RIGHT,
  /** What stood out is being looked at, each with its other one. */
  LOOKING,
  /** Among the tasks without another one, those are being found that may be the same. */
  MEETING,
  /** Those that may be the same are being looked at together. */
  COMPARING,
  /** All that stood out was looked at. */
  ENDED,
  /** What was chosen is being put right. */
  REPAIRING,
  /** A person stopped it before it was through. */
  STOPPED,
  /** It could not go on. */
  FAILED;

  /** The side that is read, or whose tasks are missed; empty in the other states. */
  Optional<Side> side() {
    return switch (this) {
      case READING_LEFT, MISSING_LEFT -> Optional.of(Side.LEFT);
      case READING_RIGHT, MISSING_RIGHT -> Optional.of(Side.RIGHT);
      case LOOKING, MEETING, COMPARING, ENDED, REPAIRING, STOPPED, FAILED -> Optional.empty();
    };
  }

  /** What follows once this is through. */
  CheckState next() {
    return switch (this) {
      case READING_LEFT -> MISSING_LEFT;
      case MISSING_LEFT -> READING_RIGHT;
      case READING_RIGHT -> MISSING_RIGHT;
      case MISSING_RIGHT -> LOOKING;
      case LOOKING -> MEETING;
      case MEETING -> COMPARING;
      case COMPARING, REPAIRING -> ENDED;
      case ENDED, STOPPED, FAILED ->
          throw new IllegalStateException("nothing follows by itself on " + this);
    };
  }

  /** Whether it goes on by itself, and nothing else of its bridge can be checked. */
  boolean goesOn() {
    return this != ENDED && this != STOPPED && this != FAILED;
  }
}
