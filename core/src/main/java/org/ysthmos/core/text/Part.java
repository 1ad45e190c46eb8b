package org.ysthmos.core.text;

import java.util.Optional;

/**
 * Where a part stands in a longer text: behind a label, before another, or on the label's line.
 *
 * @param after the label before the part; empty if the part starts with the text
 * @param before the label after the part; empty if the part goes on to the end
 * @param line whether the part ends with the line at the latest
 * @param ignoreCase whether labels are found in capitals and in small letters alike
 */
public record Part(String after, String before, boolean line, boolean ignoreCase) {

  /** Which of several is meant. */
  public enum Repeated {
    FIRST,
    LAST
  }

  /**
   * The part, without the white space around it.
   *
   * @return empty if a label is missing
   */
  public Optional<String> in(String text, Repeated which) {
    int label = after.isEmpty() ? 0 : label(text, which);
    if (label < 0) {
      return Optional.empty();
    }
    int start = label + after.length();
    int end = text.length();
    if (!before.isEmpty()) {
      end = indexOf(text, before, start);
      if (end < 0) {
        return Optional.empty();
      }
    }
    if (line) {
      end = Math.min(end, lineEnd(text, start));
    }
    return Optional.of(WhiteSpace.strip(text.substring(start, end)));
  }

  /** How often the label before the part stands in the text; 1 if there is no such label. */
  public int times(String text) {
    if (after.isEmpty()) {
      return 1;
    }
    int times = 0;
    for (int at = indexOf(text, after, 0); at >= 0; at = indexOf(text, after, at + 1)) {
      times++;
    }
    return times;
  }

  private int label(String text, Repeated which) {
    int first = indexOf(text, after, 0);
    if (which == Repeated.FIRST || first < 0) {
      return first;
    }
    int last = first;
    for (int at = first; at >= 0; at = indexOf(text, after, at + 1)) {
      last = at;
    }
    return last;
  }

  private static int lineEnd(String text, int from) {
    for (int i = from; i < text.length(); i++) {
      if (text.charAt(i) == '\n' || text.charAt(i) == '\r') {
        return i;
      }
    }
    return text.length();
  }

  private int indexOf(String text, String label, int from) {
    if (!ignoreCase) {
      return text.indexOf(label, from);
    }
    for (int i = from; i <= text.length() - label.length(); i++) {
      if (text.regionMatches(true, i, label, 0, label.length())) {
        return i;
      }
    }
    return -1;
  }
}
