package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * Knows a task that was made from here though no answer said so: it holds what was sent. Taken for
 * a new one it would be made a second time where it came from.
 */
record SyncUnnamed(String bridge, CompiledTwoWay both, World world) {

  /**
   * The pair of a record that is of none so far; empty if it was not made from here.
   *
   * @param here the record as it was read
   */
  Optional<World.SyncedPair> pairOf(String record, SyncReads.Read here) {
    Side from = both.from();
    List<World.Unnamed> unnamed = here.record().isEmpty() ? List.of() : world.unnamed(bridge, from);
    if (unnamed.isEmpty()
        || !(values(record, here.record().get()) instanceof SyncValues.Read(var held))) {
      return Optional.empty();
    }
    // The pair that is asked for last is the one that the decision saw when it is kept.
    return unnamed.stream()
        .filter(one -> holds(held, one.sent()))
        .findFirst()
        .flatMap(one -> world.synced(bridge, from.across(), one.partner()))
        .filter(pair -> pair.records().of(from).isEmpty() && pair.parted().isEmpty())
        .map(pair -> pair.with(from, record))
        .or(() -> world.synced(bridge, from, record));
  }

  private SyncValues values(String record, JsonNode task) {
    return SyncValues.of(both, both.from(), record, task, world);
  }

  /**
   * Whether a record holds what was sent, and is called so. Another field may be empty, as a record
   * that is made by several calls may lack what a later one writes, or filled in over there.
   */
  private boolean holds(Map<String, Value> held, Map<String, Value> sent) {
    boolean called = false;
    for (CompiledTwoWay.Field field : both.fields()) {
      String key = field.at().of(both.from()).shape().key();
      Value is = held.getOrDefault(field.rule().name(), Nothing.NOTHING);
      Value was = sent.getOrDefault(key, Nothing.NOTHING);
      boolean same = is.equals(was);
      if (!same && is != Nothing.NOTHING && was != Nothing.NOTHING) {
        return false;
      }
      called |=
          same && is != Nothing.NOTHING && key.equals(both.place(both.from()).shape().titleField());
    }
    return called;
  }
}
