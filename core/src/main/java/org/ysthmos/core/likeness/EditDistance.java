package org.ysthmos.core.likeness;

import java.util.Arrays;

/**
 * How many characters must be put in, taken out or replaced to make one text of another
 * (Levenshtein, “Binary codes capable of correcting deletions, insertions and reversals”, 1966).
 */
final class EditDistance {

  private EditDistance() {}

  /**
   * Reckons only the cells of the table that can matter, and gives up as soon as the distance is
   * certain to be larger (Ukkonen, “Algorithms for approximate string matching”, 1985).
   *
   * @param most not less than 0
   * @return the distance; {@code most + 1} if it is larger than that
   */
  static int within(String one, String other, int most) {
    int rows = one.length();
    int columns = other.length();
    if (Math.abs(rows - columns) > most) {
      return most + 1;
    }
    int far = most + 1;
    int[] above = new int[columns + 1];
    int[] row = new int[columns + 1];
    for (int j = 0; j <= columns; j++) {
      above[j] = Math.min(j, far);
    }
    for (int i = 1; i <= rows; i++) {
      int from = Math.max(1, i - most);
      int until = Math.min(columns, i + most);
      Arrays.fill(row, far);
      row[0] = Math.min(i, far);
      int least = from == 1 ? row[0] : far;
      for (int j = from; j <= until; j++) {
        int replaced = above[j - 1] + (one.charAt(i - 1) == other.charAt(j - 1) ? 0 : 1);
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
