package org.ysthmos.core.search;

import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Set;

/**
 * The words by which a text is found: what stands between spaces, without the punctuation around
 * it, and the runs of letters and digits within that. So a ticket “CD-31.” is found by {@code
 * CD-31}, by {@code CD} and by {@code 31}. Large and small letters are the same.
 */
public final class SeenWords {

  private SeenWords() {}

  /** All words of a text, in small letters. */
  public static Set<String> of(String text) {
    Set<String> words = new LinkedHashSet<>();
    String small = text.toLowerCase(Locale.ROOT);
    int at = 0;
    while (at < small.length()) {
      int end = at;
      while (end < small.length() && !isSpace(small.charAt(end))) {
        end++;
      }
      addPiece(small, at, end, words);
      at = end + 1;
    }
    return words;
  }

  /** The words that a text must have to be found, each between spaces; empty if none is asked. */
  public static Set<String> asked(String query) {
    Set<String> asked = new LinkedHashSet<>();
    for (String piece : query.toLowerCase(Locale.ROOT).split("\\s+", -1)) {
      String word = stripped(piece, 0, piece.length());
      if (!word.isEmpty()) {
        asked.add(word);
      }
    }
    return asked;
  }

  private static boolean isSpace(char c) {
    return Character.isWhitespace(c) || c == '\u00a0';
  }

  private static void addPiece(String text, int start, int end, Set<String> words) {
    String piece = stripped(text, start, end);
    if (piece.isEmpty()) {
      return;
    }
    words.add(piece);
    int run = 0;
    for (int i = 0; i <= piece.length(); i++) {
      if (i == piece.length() || !Character.isLetterOrDigit(piece.charAt(i))) {
        if (i > run && i - run < piece.length()) {
          words.add(piece.substring(run, i));
        }
        run = i + 1;
      }
    }
  }

  private static String stripped(String text, int start, int end) {
    int from = start;
    int to = end;
    while (from < to && !Character.isLetterOrDigit(text.charAt(from))) {
      from++;
    }
    while (to > from && !Character.isLetterOrDigit(text.charAt(to - 1))) {
      to--;
    }
    return text.substring(from, to);
  }
}
