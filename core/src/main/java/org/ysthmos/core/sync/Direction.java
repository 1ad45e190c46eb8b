package org.ysthmos.core.sync;

/** Which way a field is kept alike. */
public enum Direction {
  BOTH,
  /** {@link Side#OTHER} follows {@link Side#ONE}. */
  TO_OTHER,
  /** {@link Side#ONE} follows {@link Side#OTHER}. */
  TO_ONE,
  /** Written when a task is made across, and never again. */
  ONCE;

  /** Whether a change on a side is carried across. */
  public boolean carries(Side from) {
    return switch (this) {
      case BOTH -> true;
      case TO_OTHER -> from == Side.ONE;
      case TO_ONE -> from == Side.OTHER;
      case ONCE -> false;
    };
  }
}
