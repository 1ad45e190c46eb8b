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

  /**
   * How many signs are wrong: insertions, deletions, replacements and swaps of neighbours, over
   * UTF-16 code units (optimal string alignment; Damerau, 1964, names these four).
   */
  static int edits(String a, String b) {
    int[][] least = new int[a.length() + 1][b.length() + 1];
    for (int i = 0; i <= a.length(); i++) {
      least[i][0] = i;
    }
    for (int j = 0; j <= b.length(); j++) {
      least[0][j] = j;
    }
    for (int i = 1; i <= a.length(); i++) {
      for (int j = 1; j <= b.length(); j++) {
        int same = least[i - 1][j - 1] + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
        least[i][j] = Math.min(same, Math.min(least[i - 1][j], least[i][j - 1]) + 1);
        if (i > 1
            && j > 1
            && a.charAt(i - 1) == b.charAt(j - 2)
            && a.charAt(i - 2) == b.charAt(j - 1)) {
          least[i][j] = Math.min(least[i][j], least[i - 2][j - 2] + 1);
        }
      }
    }
    return least[a.length()][b.length()];
  }
}
