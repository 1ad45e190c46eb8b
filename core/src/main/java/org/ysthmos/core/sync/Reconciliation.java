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
   * What both sides hold by now, once it is written: the next change is held against this. A field
   * that waits, fails or is in conflict keeps what it agreed on before, so that it comes up again.
   *
   * @param storedLeft what {@link Side#LEFT} stored of what was written to it; a field that it does
   *     not tell is taken as it was written
   * @param storedRight the same
   */
  public Agreed after(Map<String, Value> storedLeft, Map<String, Value> storedRight) {
    Map<String, Value> lefts = new HashMap<>();
    Map<String, Value> rights = new HashMap<>();
    for (FieldOutcome outcome : outcomes) {
      String field = outcome.field();
      switch (outcome) {
        case Carried carried -> {
          lefts.put(field, held(outcome, Side.LEFT, storedLeft));
          rights.put(field, held(outcome, Side.RIGHT, storedRight));
        }
        case Merged merged -> {
          lefts.put(field, held(outcome, Side.LEFT, storedLeft));
          rights.put(field, held(outcome, Side.RIGHT, storedRight));
        }
        case Adopted adopted -> {
          lefts.put(field, left.of(field));
          rights.put(field, right.of(field));
        }
        case NotCarried not -> {
          lefts.put(field, left.of(field));
          rights.put(field, right.of(field));
        }
        default -> {}
      }
    }
    return agreed.with(lefts, rights);
  }

  private Value held(FieldOutcome outcome, Side side, Map<String, Value> stored) {
    Value now = (side == Side.LEFT ? left : right).of(outcome.field());
    return written(outcome, side)
        .map(value -> stored.getOrDefault(outcome.field(), value))
        .orElse(now);
  }
}
