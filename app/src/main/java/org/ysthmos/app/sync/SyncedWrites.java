package org.ysthmos.app.sync;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.sync.SyncedPairs.Sending;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.RecordGateway;
import org.ysthmos.core.gateway.TaskGateway.Delivered;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What a side made of what was written to it. It counts as agreed, so that what a system trims,
 * shortens or rounds never comes back as if somebody had changed it.
 */
@Component
public class SyncedWrites {

  private final Bridges bridges;
  private final SyncedPairs pairs;

  SyncedWrites(Bridges bridges, SyncedPairs pairs) {
    this.bridges = bridges;
    this.pairs = pairs;
  }

  /** What a delivery is of a pair that is kept alike; empty if it is of another bridge. */
  public Optional<Sending> sending(String bridge, long delivery) {
    // A bridge that goes one way is nearly every one, and is not asked for.
    boolean oneWay =
        bridges.live(bridge).filter(live -> live.version().between().isEmpty()).isPresent();
    return oneWay ? Optional.empty() : pairs.sending(delivery);
  }

  /**
   * What a side holds of the fields that were written to it, by their names. Where its answer does
   * not say all of them, the record is read once more.
   *
   * @param collection in which the record stands
   */
  public Map<String, Value> held(
      Sending sending, String collection, Delivered made, RecordGateway system, CallLog calls) {
    Optional<CompiledTwoWay> both =
        bridges.live(sending.bridge()).flatMap(live -> live.version().between());
    if (both.isEmpty()) {
      return Map.of();
    }
    Set<String> wanted = pairs.wanted(sending);
    Map<String, Value> held = new HashMap<>();
    for (CompiledTwoWay.Field field : both.get().fields()) {
      JsonNode stored = made.stored().get(field.at().of(sending.side()).shape().key());
      if (stored != null) {
        put(held, field, sending, stored);
      }
    }
    if (!held.keySet().containsAll(wanted)) {
      made.whole()
          .or(() -> read(made.record(), collection, system, calls))
          .ifPresent(
              record -> {
                for (CompiledTwoWay.Field field : both.get().fields()) {
                  Pointer at = field.at().of(sending.side()).read();
                  put(held, field, sending, at.in(record));
                }
              });
    }
    return held;
  }

  /**
   * What both agreed on last, as the side that is written to stored it, by the keys of its fields;
   * nothing of a task that is to be made.
   */
  public Map<String, Value> agreed(Sending sending) {
    Map<String, Value> agreed = new HashMap<>();
    bridges
        .live(sending.bridge())
        .flatMap(live -> live.version().between())
        .ifPresent(
            both -> {
              Agreed last = pairs.agreed(sending);
              for (CompiledTwoWay.Field field : both.fields()) {
                Value value = last.of(sending.side(), field.rule().name());
                if (value != Nothing.NOTHING) {
                  agreed.put(field.at().of(sending.side()).shape().key(), value);
                }
              }
            });
    return agreed;
  }

  private static Optional<JsonNode> read(
      String record, String collection, RecordGateway system, CallLog calls) {
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", record);
    return system.find(collection, keys, calls) instanceof World.Found found
        ? found.records().stream().findFirst()
        : Optional.empty();
  }

  private static void put(
      Map<String, Value> held, CompiledTwoWay.Field field, Sending sending, JsonNode stored) {
    if (field.at().of(sending.side()).valueOf(stored) instanceof Value value) {
      held.put(field.rule().name(), value);
    }
  }
}
