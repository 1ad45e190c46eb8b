package org.ysthmos.core.sync;

import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;

/** What a value of one side is on the other. */
public sealed interface Crossing {

  record Becomes(Value value) implements Crossing {}

  /** It is nothing over there, on purpose: the other side keeps what it has. */
  record Stays(String because) implements Crossing {}

  /**
   * It cannot be said yet: the task that it names is not on the other side so far.
   *
   * @param task its id on the side that it comes from
   * @param underWay whether it is being made there
   */
  record Waits(String task, boolean underWay) implements Crossing {

    /** As a sentence without its end. */
    public String because() {
      return underWay
          ? "“%s” is being made on the other side".formatted(task)
          : "“%s” is not on the other side".formatted(task);
    }
  }

  /** It cannot be computed. */
  record Fails(Problem problem) implements Crossing {}
}
