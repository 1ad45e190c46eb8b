package org.ysthmos.core.likeness;

import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/**
 * How many characters must be put in, taken out or replaced to make other texts of one text
 * (Levenshtein, “Binary codes capable of correcting deletions, insertions and reversals”, 1966).
 *
 * <p>A text of at most 64 characters is compared with a whole column of the table in one word of 64
 * bits (Myers, “A fast bit-vector algorithm for approximate string matching based on dynamic
 * programming”, 1999, as Hyyrö, “A bit-vector algorithm for computing Levenshtein and Damerau edit
 * distances”, 2003, has it for whole texts); of a longer one only the cells that can matter are
 * reckoned (Ukkonen, “Algorithms for approximate string matching”, 1985).
 */
final class EditDistance {

  private static final int WORD = Long.SIZE;
  private static final int COMMON = 128;

  private final String from;

  /** Of each character, the places at which it stands in the text. */
  private final long[] common = new long[COMMON];

  private final Map<Character, Long> others = new HashMap<>();

  private EditDistance(String from) {
    this.from = from;
    for (int i = 0; i < Math.min(WORD, from.length()); i++) {
      char here = from.charAt(i);
      if (here < COMMON) {
        common[here] |= 1L << i;
      } else {
        long unused = others.merge(here, 1L << i, (one, other) -> one | other);
      }
    }
  }

  /** Prepares to compare a text with many others. */
  static EditDistance from(String text) {
    return new EditDistance(text);
  }

  static int within(String one, String other, int most) {
    return from(one).to(other, most);
  }

  /**
   * Gives up as soon as the distance is certain to be larger.
   *
   * @param most not less than 0
   * @return the distance; {@code most + 1} if it is larger than that
   */
  int to(String other, int most) {
    if (Math.abs(from.length() - other.length()) > most) {
      return most + 1;
    }
    if (from.isEmpty()) {
      return other.length();
    }
    return from.length() <= WORD ? inOneWord(other, most) : inABand(other, most);
  }

  private long places(char of) {
    return of < COMMON ? common[of] : others.getOrDefault(of, 0L);
  }

  /**
   * The bits say of a column of the table where a cell is greater by one, or less by one, than the
   * cell above it.
   */
  private int inOneWord(String other, int most) {
    long greater = -1L;
    long less = 0;
    long last = 1L << (from.length() - 1);
    int distance = from.length();
    int left = other.length();
    for (int j = 0; j < other.length(); j++) {
      long same = places(other.charAt(j));
      long diagonal = (((same & greater) + greater) ^ greater) | same | less;
      long right = less | ~(diagonal | greater);
      long lessRight = greater & diagonal;
      if ((right & last) != 0) {
        distance++;
      } else if ((lessRight & last) != 0) {
        distance--;
      }
      left--;
      // Each character that is left can take off one at the most.
      if (distance - left > most) {
        return most + 1;
      }
      long shifted = right << 1 | 1;
      greater = lessRight << 1 | ~(diagonal | shifted);
      less = shifted & diagonal;
    }
    return distance;
  }

  private int inABand(String other, int most) {
    int rows = from.length();
    int columns = other.length();
    int far = most + 1;
    int[] above = new int[columns + 1];
    int[] row = new int[columns + 1];
    for (int j = 0; j <= columns; j++) {
      above[j] = Math.min(j, far);
    }
    for (int i = 1; i <= rows; i++) {
      int begin = Math.max(1, i - most);
      int until = Math.min(columns, i + most);
      Arrays.fill(row, far);
      row[0] = Math.min(i, far);
      int least = begin == 1 ? row[0] : far;
      for (int j = begin; j <= until; j++) {
        int replaced = above[j - 1] + (from.charAt(i - 1) == other.charAt(j - 1) ? 0 : 1);
        row[j] = Math.min(far, Math.min(replaced, Math.min(above[j], row[j - 1]) + 1));
        least = Math.min(least, row[j]);
      }
      if (least > most) {
        return far;
      }
      int[] unused = above;
      above = row;
      row = unused;
    }
    return Math.min(above[columns], far);
  }
}
