package org.ysthmos.app.store;

import java.util.SortedSet;

/** Order numbers of rows, by which they stand in the database. */
public final class OrderNumbers {

  private static final int SPAN_FOR_ONE = 2;

  private OrderNumbers() {}

  /**
   * Whether all that stands between the first and the last is read sooner than each by itself. Read
   * through, a page of the database is met once; looked up row by row it is met as often as it has
   * rows, is taken for one that is used often, and stays in memory until it is old.
   *
   * @param numbers at least one
   */
  public static boolean areClose(SortedSet<Long> numbers) {
    return numbers.last() - numbers.first() < (long) SPAN_FOR_ONE * numbers.size();
  }
}
