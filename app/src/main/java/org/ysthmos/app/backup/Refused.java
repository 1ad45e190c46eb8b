package org.ysthmos.app.backup;

/** It cannot be done; the message says why and what to do. */
final class Refused extends RuntimeException {

  private static final long serialVersionUID = 1L;

  Refused(String message) {
    super(message);
  }

  Refused(String message, Throwable cause) {
    super(message, cause);
  }
}
