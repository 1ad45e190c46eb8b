package org.ysthmos.app.keep;

/**
 * How much is taken on at a time. What is of no use may have been too little, as a piece that is
 * larger than that is left alone: then more is taken on, up to a good part of all there is.
 */
final class Effort {

  private static final int MORE = 2;

  /** Of much, no more than this part is taken on at a time. */
  private static final int LARGEST_PART = 4;

  /** Of so little, everything may be. */
  private static final long LITTLE = 1 << 24;

  /** Once that was of no use, too, nothing is tried before this part of all is another. */
  private static final int ANOTHER_PART = 20;

  private final long first;
  private long bytes;
  private long inVain = -1;

  /**
   * @param first how many bytes are taken on at first
   */
  Effort(long first) {
    this.first = first;
    this.bytes = first;
  }

  long bytes() {
    return bytes;
  }

  /**
   * Whether anything can be hoped for.
   *
   * @param all how many bytes there are
   */
  boolean isWorth(long all) {
    return inVain < 0 || Math.abs(all - inVain) > all / ANOTHER_PART;
  }

  /** What came of it when so much of all was taken on. */
  void was(boolean ofUse, long all) {
    boolean most = bytes >= Math.max(all / LARGEST_PART, Math.min(all, LITTLE));
    inVain = !ofUse && most ? all : -1;
    bytes = ofUse || most ? first : bytes * MORE;
  }
}
