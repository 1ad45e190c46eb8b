package org.ysthmos.core.decide;

import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;

/** What pair two tasks become of which a person says that they are the same. */
final class SyncMeeting {

  sealed interface Outcome {}

  /** They are one already, or were before it was parted. */
  record Known(World.SyncedPair pair) implements Outcome {}

  /**
   * They have agreed on nothing yet: what stands for each other is agreed on, what only one of them
   * has goes to the other, and of the rest it is as where both changed a field.
   */
  record Fresh(World.SyncedPair pair) implements Outcome {}

  /** One of them has another one. */
  record InPair(Failure failure) implements Outcome {}

  private final String bridge;
  private final CompiledTwoWay both;
  private final World world;

  SyncMeeting(String bridge, CompiledTwoWay both, World world) {
    this.bridge = bridge;
    this.both = both;
    this.world = world;
  }

  /**
   * @param record the task of the side from which it is looked at
   * @param other the task of the other side
   */
  Outcome of(String record, String other) {
    Side from = both.from();
    Side to = from.across();
    // The pair that is asked for last is the one that the decision saw when it is kept.
    Optional<World.SyncedPair> ofOther = world.synced(bridge, to, other);
    Optional<World.SyncedPair> ofThis = world.synced(bridge, from, record);
    if (ofThis.isPresent() && ofThis.get().records().of(to).equals(Optional.of(other))) {
      return new Known(ofThis.get().united());
    }
    if (ofThis.isPresent() && (!isAlone(ofThis.get()) || ofOther.isPresent())) {
      return new InPair(inPair(from, record));
    }
    if (ofOther.isPresent() && !isAlone(ofOther.get())) {
      return new InPair(inPair(to, other));
    }
    // One that was left as it is has the row of a pair, which is the one that they become.
    Optional<World.SyncedPair> alone = ofThis.or(() -> world.synced(bridge, to, other));
    return new Fresh(
        new World.SyncedPair(
            alone.map(World.SyncedPair::key).orElseGet(() -> Synced.key(bridge, from, record)),
            Both.by(side -> Optional.of(side == from ? record : other)),
            new Agreed(Map.of(), Map.of()),
            Map.of(),
            Optional.empty()));
  }

  /** Whether a person said of it that it is left as it is, with no other one. */
  private static boolean isAlone(World.SyncedPair pair) {
    return pair.parted().isPresent()
        && (pair.records().left().isEmpty() || pair.records().right().isEmpty());
  }

  private Failure inPair(Side side, String record) {
    CompiledTwoWay.CompiledPlace place = both.place(side);
    return Failure.of(
            FailureKind.LOOKUP_AMBIGUOUS,
            "%s “%s” of %s is in a pair with another, or was"
                .formatted(place.shape().recordWord(), record, place.shape().systemName()))
        .withRemedy("Find it on Pairs by its id");
  }
}
