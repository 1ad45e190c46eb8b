package org.ysthmos.core.decide;

/** What a bridge version makes of an event. */
public enum Verdict {
  CREATE("create"),
  UPDATE("update"),
  UNCHANGED("unchanged"),
  PASSED_BY("passed by"),
  FAILED("failed");

  private final String words;

  Verdict(String words) {
    this.words = words;
  }

  /** The verdict in the words of the screens. */
  public String words() {
    return words;
  }
}
