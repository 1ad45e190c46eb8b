package org.ysthmos.core.decide;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.TaskNow;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/** The tasks of a pair, and what is written to them. */
final class SyncTasks {

  private final String bridge;
  private final CompiledTwoWay both;
  private final Event event;
  private final World world;

  SyncTasks(String bridge, CompiledTwoWay both, Event event, World world) {
    this.bridge = bridge;
    this.both = both;
    this.event = event;
    this.world = world;
  }

  /** Why nothing is written to the pair any more: one of its tasks was taken back, or left gone. */
  Optional<String> stays(MatchKey pair) {
    for (Side side : Side.values()) {
      Optional<World.Stays> stays =
          world
              .pair(bridge, Synced.taskKey(pair, side))
              .map(World.PairState::stays)
              .filter(any -> any != World.Stays.NO);
      if (stays.isPresent()) {
        return stays.map(World.Stays::words);
      }
    }
    return Optional.empty();
  }

  /** Values by the keys of a side's fields. */
  SequencedMap<String, Value> keyed(Side side, Map<String, Value> byName) {
    SequencedMap<String, Value> keyed = new LinkedHashMap<>();
    for (CompiledTwoWay.Field field : both.fields()) {
      Value value = byName.get(field.rule().name());
      if (value != null) {
        keyed.put(field.at().of(side).shape().key(), value);
      }
    }
    return keyed;
  }

  /** A task as it is once it is written. */
  SequencedMap<String, Value> whole(Side side, TaskNow now, Map<String, Value> writes) {
    Map<String, Value> all = new HashMap<>(now.fields());
    all.putAll(writes);
    all.values().removeIf(value -> value == Nothing.NOTHING);
    return keyed(side, all);
  }

  /**
   * How many of its tasks are gone: one that was made before, and is to be made, is one of them.
   */
  private static int madeBefore(World.PairState state) {
    return state.anew() + (state.target().isPresent() ? 1 : 0);
  }

  /**
   * What becomes of the task of one side.
   *
   * @param record its id; empty if it is to be made
   * @param writes what is written to it; nothing if it is left as it is
   * @param tag of what was read, which must not have changed when it is written
   */
  TaskDecision task(
      MatchKey pair,
      Side side,
      Optional<String> record,
      Map<String, Value> fields,
      SequencedMap<String, Value> writes,
      Optional<String> tag) {
    MatchKey key = Synced.taskKey(pair, side);
    Optional<World.PairState> state = world.pair(bridge, key);
    if (writes.isEmpty()) {
      return TaskDecision.left(Synced.word(side), key, fields, record, "");
    }
    TwoWay.Place at = both.place(side).rule();
    String purpose =
        record.isPresent()
            ? "change:" + event.id()
            : World.PairState.making(state.map(SyncTasks::madeBefore).orElse(0));
    PlannedDelivery delivery =
        new PlannedDelivery(
            key.effect(purpose),
            at.system(),
            at.collection(),
            record,
            writes,
            Optional.empty(),
            Optional.empty(),
            tag,
            false);
    return new TaskDecision(
        Synced.word(side),
        record.isPresent() ? Verdict.UPDATE : Verdict.CREATE,
        key,
        fields,
        Optional.of(delivery),
        "",
        record,
        false);
  }

  /**
   * Takes the task of one side away, whose other one is gone.
   *
   * @param tag as for one that is written
   */
  TaskDecision removal(MatchKey pair, Side side, String record, Optional<String> tag) {
    MatchKey key = Synced.taskKey(pair, side);
    TwoWay.Place at = both.place(side).rule();
    PlannedDelivery delivery =
        new PlannedDelivery(
            key.effect("remove:" + event.id()),
            at.system(),
            at.collection(),
            Optional.of(record),
            new LinkedHashMap<>(),
            Optional.empty(),
            Optional.empty(),
            tag,
            true);
    return new TaskDecision(
        Synced.word(side),
        Verdict.UPDATE,
        key,
        Map.of(),
        Optional.of(delivery),
        "",
        Optional.of(record),
        false);
  }
}
