package org.ysthmos.core.sync;

import java.util.Optional;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;

/** What becomes of one field. */
public sealed interface FieldOutcome {

  String field();

  /** Nothing changed on either side. */
  record Unchanged(String field) implements FieldOutcome {}

  /** Something changed, and both agree as they are. */
  record Adopted(String field) implements FieldOutcome {}

  /**
   * One side is written what the other has.
   *
   * @param over what a person entered there and is written over; empty if nobody did
   */
  record Carried(String field, Side to, Value value, Optional<Value> over)
      implements FieldOutcome {}

  /**
   * What was done on both sides is brought together.
   *
   * @param left what is written to {@link Side#LEFT}; empty if it has that already
   * @param right the same
   */
  record Merged(String field, Optional<Value> left, Optional<Value> right)
      implements FieldOutcome {}

  /** A change that is not carried across: of the side that only follows, or not mapped. */
  record NotCarried(String field, Side on, String because) implements FieldOutcome {}

  /** A person says what it is; both sides keep what they have until then. */
  record Conflict(String field, String because) implements FieldOutcome {}

  /** It is carried once what it names is on the other side. */
  record Waiting(String field, Side from, Crossing.Waits on) implements FieldOutcome {}

  record Failed(String field, Side from, Problem problem) implements FieldOutcome {}
}
