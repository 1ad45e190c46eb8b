package org.ysthmos.app.sync;

import org.jspecify.annotations.Nullable;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;

/** A task was made, or found, that stands for another task than the one that it was made for. */
public final class InAnotherPair extends RuntimeException {

  private final transient Failure failure;

  /**
   * @param partner the other task; null if it has none any more
   */
  InAnotherPair(String record, @Nullable String partner) {
    super(record + " is in another pair");
    this.failure =
        Failure.of(
                FailureKind.LOOKUP_AMBIGUOUS,
                partner == null
                    ? "What was made is “%s”, which was left as it is".formatted(record)
                    : "What was made is “%s”, which is in a pair with “%s”"
                        .formatted(record, partner))
            .withRemedy(
                "Find it on Pairs by its id; one of the two that it was made for is one too many");
  }

  /** What a person is told. */
  public Failure failure() {
    return failure;
  }
}
