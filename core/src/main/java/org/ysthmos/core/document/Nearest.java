package org.ysthmos.core.document;

import java.util.Collection;
import java.util.Comparator;
import java.util.Optional;

/** Finds the known word that someone most likely meant. */
public final class Nearest {

  private Nearest() {}

  /** A sentence that refuses {@code word} and names the nearest known one, or all of them. */
  public static String unknown(String what, String word, Collection<String> known) {
    String start = "no " + what + " is called “" + word + "”";
    if (known.isEmpty()) {
      return start;
    }
    return start
        + to(word, known)
            .map(near -> "; did you mean “" + near + "”?")
            .orElseGet(() -> "; known are " + String.join(", ", known));
  }

  /** The known word with the fewest edits, if no more than a third of the word is wrong. */
  public static Optional<String> to(String word, Collection<String> known) {
    return known.stream()
        .min(Comparator.comparingInt(candidate -> edits(word, candidate)))
        .filter(
            near -> edits(word, near) <= Math.max(1, Math.max(word.length(), near.length()) / 3));
  }

  /** Levenshtein distance over UTF-16 code units, by two rows (Wagner and Fischer, 1974). */
  static int edits(String a, String b) {
    int[] above = new int[b.length() + 1];
    for (int j = 0; j <= b.length(); j++) {
      above[j] = j;
    }
    for (int i = 1; i <= a.length(); i++) {
      int[] row = new int[b.length() + 1];
      row[0] = i;
      for (int j = 1; j <= b.length(); j++) {
        int same = above[j - 1] + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
        row[j] = Math.min(same, Math.min(above[j], row[j - 1]) + 1);
      }
      above = row;
    }
    return above[b.length()];
  }
}
