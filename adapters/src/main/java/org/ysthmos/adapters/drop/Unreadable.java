package org.ysthmos.adapters.drop;

/** A file that does not hold what it should; the message says where. */
final class Unreadable extends Exception {

  private final boolean cut;

  Unreadable(String message) {
    this(message, false);
  }

  private Unreadable(String message, boolean cut) {
    super(message);
    this.cut = cut;
  }

  /** What is wrong may be that its end is missing, which may still come. */
  static Unreadable cut(String message) {
    return new Unreadable(message, true);
  }

  boolean isCut() {
    return cut;
  }
}
