package org.ysthmos.core.decide;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.OnceWritten;
import org.ysthmos.core.sync.Reconciliation;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * What a decision of a bridge that goes both ways comes to for its pair, beside what is delivered.
 *
 * @param key of the pair
 * @param records the tasks of the pair; empty for one that is to be made
 * @param agreed what both sides agree on as they are now, with nothing written
 * @param onceWritten what they will agree on besides, once it is delivered
 * @param outcomes what became of each field that is not as it was; none where a task is made
 * @param conflicts the fields on which a person is asked
 * @param awaits the tasks that it names and that are not on the other side so far
 * @param parted why the two are a pair no more; empty if they are
 */
public record Synced(
    MatchKey key,
    Side from,
    Both<Optional<String>> records,
    Agreed agreed,
    OnceWritten onceWritten,
    List<FieldOutcome> outcomes,
    List<Disagreement> conflicts,
    List<Awaited> awaits,
    Optional<String> parted) {

  public Synced {
    outcomes = List.copyOf(outcomes);
    conflicts = List.copyOf(conflicts);
    awaits = List.copyOf(awaits);
  }

  /**
   * A task that another of its side names, such as its parent, and that is not on the other side so
   * far. Once it is, the two of the pair are to be looked at again.
   */
  public record Awaited(Side side, String task) {

    /** Those for which fields wait. */
    static List<Awaited> of(List<FieldOutcome> outcomes) {
      return outcomes.stream()
          .filter(FieldOutcome.Waiting.class::isInstance)
          .map(FieldOutcome.Waiting.class::cast)
          .map(waiting -> new Awaited(waiting.from(), waiting.on().task()))
          .distinct()
          .toList();
    }
  }

  /**
   * A field on which both sides disagree until a person says what it is.
   *
   * @param before what each side held when they last agreed
   */
  public record Disagreement(String field, String because, Both<Value> before, Both<Value> now) {

    /** Those that a person is asked about, in the order of the fields. */
    static List<Disagreement> of(Reconciliation result, Agreed agreed) {
      List<Disagreement> all = new ArrayList<>();
      for (FieldOutcome outcome : result.outcomes()) {
        if (outcome instanceof FieldOutcome.Conflict conflict) {
          String field = conflict.field();
          all.add(
              new Disagreement(
                  field,
                  conflict.because(),
                  Both.by(side -> agreed.of(side, field)),
                  new Both<>(result.left().of(field), result.right().of(field))));
        }
      }
      return all;
    }
  }

  /** The key of a pair that is begun by a record of one side. */
  public static MatchKey key(String bridge, Side side, String record) {
    MatchKey key = MatchKey.of(bridge, List.of(Text.of(word(side)), Text.of(record)));
    return new MatchKey(bridge, record, key.hash());
  }

  /** The key under which what is written to a side of a pair is made once. */
  public static MatchKey taskKey(MatchKey pair, Side side) {
    MatchKey key = MatchKey.of(pair.bridge(), List.of(Text.of(pair.hash()), Text.of(word(side))));
    return new MatchKey(pair.bridge(), pair.text(), key.hash());
  }

  /** The side of a task, by how it is called. */
  public static Side sideOf(String word) {
    return word.equals(word(Side.LEFT)) ? Side.LEFT : Side.RIGHT;
  }

  /** A side as people call it. */
  public static String word(Side side) {
    return side == Side.LEFT ? "left" : "right";
  }
}
