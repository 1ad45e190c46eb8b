package org.ysthmos.core.sync;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.sync.FieldOutcome.Adopted;
import org.ysthmos.core.sync.FieldOutcome.Carried;
import org.ysthmos.core.sync.FieldOutcome.Merged;
import org.ysthmos.core.sync.FieldOutcome.NotCarried;
import org.ysthmos.core.value.Value;

/**
 * What is to be done with the fields of a pair.
 *
 * @param outcomes one for each field, in the order of the rules
 * @param agreed what both held when they last agreed
 */
public record Reconciliation(
    List<FieldOutcome> outcomes, Agreed agreed, TaskNow left, TaskNow right) {

  public Reconciliation {
    outcomes = List.copyOf(outcomes);
  }

  /** What is to be written to a side, by the names of the fields. */
  public SequencedMap<String, Value> writes(Side to) {
    SequencedMap<String, Value> writes = new LinkedHashMap<>();
    for (FieldOutcome outcome : outcomes) {
      written(outcome, to).ifPresent(value -> writes.put(outcome.field(), value));
    }
    return writes;
  }

  private static Optional<Value> written(FieldOutcome outcome, Side to) {
    return switch (outcome) {
      case Carried carried when carried.to() == to -> Optional.of(carried.value());
      case Merged merged -> to == Side.LEFT ? merged.left() : merged.right();
      default -> Optional.empty();
    };
  }

  /**
   * What both sides agree on as they are, with nothing written: the next change is held against
   * this. A field that is written keeps what it agreed on before until that is done, and one that
   * waits, fails or is in conflict too, so that it comes up again.
   */
  public Agreed atOnce() {
    Map<String, Value> lefts = new HashMap<>();
    Map<String, Value> rights = new HashMap<>();
    for (FieldOutcome outcome : outcomes) {
      if (outcome instanceof Adopted || outcome instanceof NotCarried) {
        lefts.put(outcome.field(), left.of(outcome.field()));
        rights.put(outcome.field(), right.of(outcome.field()));
      }
    }
    return agreed.with(lefts, rights);
  }

  /** What a side holds once it is written, of the fields that are written to either of them. */
  public Map<String, Value> heldOnceWritten(Side side) {
    Map<String, Value> held = new HashMap<>();
    for (FieldOutcome outcome : outcomes) {
      if (outcome instanceof Carried || outcome instanceof Merged) {
        Value now = (side == Side.LEFT ? left : right).of(outcome.field());
        held.put(outcome.field(), written(outcome, side).orElse(now));
      }
    }
    return held;
  }

  /**
   * What both sides agree on once all is written.
   *
   * @param storedLeft what {@link Side#LEFT} stored of what was written to it; a field that it does
   *     not tell is taken as it was written
   * @param storedRight the same
   */
  public Agreed after(Map<String, Value> storedLeft, Map<String, Value> storedRight) {
    return atOnce().with(stored(Side.LEFT, storedLeft), stored(Side.RIGHT, storedRight));
  }

  private Map<String, Value> stored(Side side, Map<String, Value> told) {
    Map<String, Value> stored = heldOnceWritten(side);
    writes(side).keySet().forEach(field -> stored.computeIfPresent(field, told::getOrDefault));
    return stored;
  }
}
