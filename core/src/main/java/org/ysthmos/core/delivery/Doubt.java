package org.ysthmos.core.delivery;

import java.time.Instant;

/** Whether an earlier try may have made an effect. */
public sealed interface Doubt {

  /** No try was ever begun, or each was answered. */
  record None() implements Doubt {}

  /**
   * A try was begun and its answer never came.
   *
   * @param since when the answer was known to be lost
   * @param looks how often it was looked for since without being found
   */
  record Open(Instant since, int looks) implements Doubt {}

  Doubt NONE = new None();

  /** The answer to a try was lost just now. */
  static Doubt since(Instant now) {
    return new Open(now, 0);
  }
}
