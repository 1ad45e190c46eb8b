package org.ysthmos.app.keep;

/**
 * How much is taken on at a time. What is of no use may have been too little, as a piece that is
 * larger than that is left alone: then more is taken on, up to the most that may be.
 */
final class Effort {

  private static final int MORE = 2;

  /** Once the most was of no use, nothing is tried before this part of all is another. */
  private static final int ANOTHER_PART = 20;

  private final long first;
  private long bytes;
  private long inVain = -1;
  private long mostInVain;

  /**
   * @param first how many bytes are taken on at first
   */
  Effort(long first) {
    this.first = first;
    this.bytes = first;
  }

  /**
   * @param most how many may be taken on now, which may be less than a moment ago
   */
  long bytes(long most) {
    return Math.min(most, bytes);
  }

  /**
   * Whether anything can be hoped for.
   *
   * @param all how many bytes there are
   * @param most how many may be taken on
   */
  boolean isWorth(long all, long most) {
    return inVain < 0 || Math.abs(all - inVain) > all / ANOTHER_PART || most > 2 * mostInVain;
  }

  /** What came of it when so much of all was taken on. */
  void was(boolean ofUse, long all, long most) {
    inVain = -1;
    if (ofUse) {
      bytes = first;
    } else if (bytes < most) {
      bytes = Math.min(most, bytes * MORE);
    } else {
      bytes = first;
      inVain = all;
      mostInVain = most;
    }
  }
}
