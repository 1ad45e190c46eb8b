package org.ysthmos.app.command;

/** It cannot be done; the message says why and what to do. */
public final class Refused extends RuntimeException {

  private static final long serialVersionUID = 1L;

  public Refused(String message) {
    super(message);
  }

  public Refused(String message, Throwable cause) {
    super(message, cause);
  }
}
