package org.ysthmos.app.check;

/** What was given cannot be used; the message says what and where. */
final class Unusable extends RuntimeException {

  private static final long serialVersionUID = 1L;

  Unusable(String message) {
    super(message);
  }
}
