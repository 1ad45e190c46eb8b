package org.ysthmos.core.text;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;

/**
 * Patterns that take time linear in the text, whatever the pattern (RE2 syntax). A pattern that
 * goes back and forth could be made to run for years by the sender of a text.
 */
public final class LinearPattern {

  /** The longest pattern taken. */
  public static final int LONGEST = 1000;

  /** How often one sign may be repeated by all counts such as <code>{3,40}</code> together. */
  public static final int MOST_REPEATS = 10_000;

  private static final Pattern COUNT = Pattern.compile("\\{(?:[0-9]+,)?([0-9]+),?\\}");

  private LinearPattern() {}

  /**
   * @throws IllegalArgumentException if it is no pattern; the message says why
   */
  public static Pattern compile(String pattern) {
    if (pattern.length() > LONGEST) {
      throw new IllegalArgumentException(
          "a pattern has at most " + LONGEST + " characters, this one has " + pattern.length());
    }
    long repeats = 1;
    Matcher counts = COUNT.matcher(pattern);
    while (counts.find()) {
      String count = counts.group(1);
      repeats *= count.length() > 4 ? MOST_REPEATS : Math.max(1, Integer.parseInt(count));
      if (repeats > MOST_REPEATS) {
        // Counts within counts multiply, and so does the memory that the pattern takes.
        throw new IllegalArgumentException(
            "the counts of the pattern come to more than " + MOST_REPEATS + " repeats");
      }
    }
    try {
      return Pattern.compile(pattern);
    } catch (PatternSyntaxException e) {
      throw new IllegalArgumentException(
          "“%s” is no pattern: %s".formatted(pattern, e.getDescription()), e);
    }
  }
}
