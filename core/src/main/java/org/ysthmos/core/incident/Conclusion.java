package org.ysthmos.core.incident;

import java.util.List;
import java.util.Optional;

/**
 * What evidence comes to: possible causes, the likeliest first.
 *
 * @param findings at least one
 * @param look the one look that would tell the first two apart, where evidence does not; empty if
 *     it does
 */
public record Conclusion(List<Finding> findings, Optional<String> look) {

  /** How sure a cause is. */
  public enum Sure {
    SURE("sure"),
    LIKELY("likely"),
    POSSIBLE("possible");

    private final String words;

    Sure(String words) {
      this.words = words;
    }

    public String words() {
      return words;
    }
  }

  /**
   * A cause with what speaks for it and against it, each a sentence.
   *
   * @param headline the cause in words
   * @param weight what all of it weighs together; more is likelier
   */
  public record Finding(
      Cause cause,
      String headline,
      Sure sure,
      int weight,
      List<String> speaksFor,
      List<String> speaksAgainst) {}

  public Finding first() {
    return findings.getFirst();
  }
}
