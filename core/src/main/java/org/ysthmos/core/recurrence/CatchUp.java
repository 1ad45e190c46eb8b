package org.ysthmos.core.recurrence;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;

/** Which of the times that were missed are made up for. */
public enum CatchUp {
  /** Each of them. */
  EACH,
  /** Only the one that came last. */
  LATEST,
  /** None. */
  NONE;

  /**
   * What of times that came is made.
   *
   * @param passed what is not made up for
   */
  public record Split<T>(List<T> made, List<T> passed) {
    public Split {
      made = List.copyOf(made);
      passed = List.copyOf(passed);
    }
  }

  /**
   * Says which of the times that came are made, the earliest first.
   *
   * @param onTime whether one is looked at when it comes, so that it was not missed
   * @param more whether more came after them
   */
  public <T> Split<T> split(List<T> came, Predicate<T> onTime, boolean more) {
    List<T> made = new ArrayList<>();
    List<T> passed = new ArrayList<>();
    for (int i = 0; i < came.size(); i++) {
      T time = came.get(i);
      boolean latest = this == LATEST && i == came.size() - 1 && !more;
      (this == EACH || latest || onTime.test(time) ? made : passed).add(time);
    }
    return new Split<>(made, passed);
  }
}
