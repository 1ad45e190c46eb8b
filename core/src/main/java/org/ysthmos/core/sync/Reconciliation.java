package org.ysthmos.core.sync;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.sync.FieldOutcome.Adopted;
import org.ysthmos.core.sync.FieldOutcome.Carried;
import org.ysthmos.core.sync.FieldOutcome.Left;
import org.ysthmos.core.sync.FieldOutcome.Merged;
import org.ysthmos.core.value.Value;

/**
 * What is to be done with the fields of a pair.
 *
 * @param outcomes one for each field, in the order of the rules
 * @param agreed what both held when they last agreed
 */
public record Reconciliation(
    List<FieldOutcome> outcomes, Agreed agreed, TaskNow one, TaskNow other) {

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
      case Merged merged -> to == Side.ONE ? merged.one() : merged.other();
      default -> Optional.empty();
    };
  }

  /**
   * What both sides hold by now, once it is written: the next change is held against this. A field
   * that waits, fails or is in conflict keeps what it agreed on before, so that it comes up again.
   *
   * @param storedOne what {@link Side#ONE} stored of what was written to it; a field that it does
   *     not tell is taken as it was written
   * @param storedOther the same
   */
  public Agreed after(Map<String, Value> storedOne, Map<String, Value> storedOther) {
    Map<String, Value> ones = new HashMap<>();
    Map<String, Value> others = new HashMap<>();
    for (FieldOutcome outcome : outcomes) {
      String field = outcome.field();
      switch (outcome) {
        case Carried carried -> {
          ones.put(field, held(outcome, Side.ONE, storedOne));
          others.put(field, held(outcome, Side.OTHER, storedOther));
        }
        case Merged merged -> {
          ones.put(field, held(outcome, Side.ONE, storedOne));
          others.put(field, held(outcome, Side.OTHER, storedOther));
        }
        case Adopted adopted -> {
          ones.put(field, one.of(field));
          others.put(field, other.of(field));
        }
        case Left left -> {
          ones.put(field, one.of(field));
          others.put(field, other.of(field));
        }
        default -> {}
      }
    }
    return agreed.with(ones, others);
  }

  private Value held(FieldOutcome outcome, Side side, Map<String, Value> stored) {
    Value now = (side == Side.ONE ? one : other).of(outcome.field());
    return written(outcome, side)
        .map(value -> stored.getOrDefault(outcome.field(), value))
        .orElse(now);
  }
}
