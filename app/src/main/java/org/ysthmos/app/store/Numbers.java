package org.ysthmos.app.store;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.IntFunction;

/**
 * Order numbers, taken from a sequence of the database some at a time. Only used inside changes, so
 * that they are given in the order in which changes are made; those that are not used by a stop are
 * left out, which does no harm.
 */
public final class Numbers {

  private static final int SOME = 64;

  private final IntFunction<List<Long>> sequence;
  private final Deque<Long> taken = new ArrayDeque<>();

  /**
   * @param sequence gives so many numbers, ascending
   */
  public Numbers(IntFunction<List<Long>> sequence) {
    this.sequence = sequence;
  }

  /** The next numbers, ascending. */
  public synchronized List<Long> next(int count) {
    List<Long> numbers = new ArrayList<>(count);
    while (numbers.size() < count) {
      if (taken.isEmpty()) {
        taken.addAll(sequence.apply(Math.max(SOME, count - numbers.size())));
      }
      numbers.add(taken.removeFirst());
    }
    return numbers;
  }

  public long next() {
    return next(1).getFirst();
  }
}
