package org.ysthmos.core.sync;

/** One of the two places that are kept alike. */
public enum Side {
  LEFT,
  RIGHT;

  /** The side across. */
  public Side across() {
    return this == LEFT ? RIGHT : LEFT;
  }
}
