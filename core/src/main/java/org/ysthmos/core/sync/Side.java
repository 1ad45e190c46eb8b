package org.ysthmos.core.sync;

/** One of the two places that are kept alike. */
public enum Side {
  ONE,
  OTHER;

  /** The side across. */
  public Side across() {
    return this == ONE ? OTHER : ONE;
  }
}
