package org.ysthmos.core.sync;

/** Which way a field is kept alike. */
public enum Direction {
  BOTH,
  /** {@link Side#RIGHT} follows {@link Side#LEFT}. */
  TO_RIGHT,
  /** {@link Side#LEFT} follows {@link Side#RIGHT}. */
  TO_LEFT,
  /** Written when a task is made across, and never again. */
  ONCE;

  /** Whether a change on a side is carried across. */
  public boolean carries(Side from) {
    return switch (this) {
      case BOTH -> true;
      case TO_RIGHT -> from == Side.LEFT;
      case TO_LEFT -> from == Side.RIGHT;
      case ONCE -> false;
    };
  }
}
