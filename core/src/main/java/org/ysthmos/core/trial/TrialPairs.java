package org.ysthmos.core.trial;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.json.PlainJson;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.OnceWritten;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Value;

/** The pairs that a bridge which goes both ways would keep, in a world without effect. */
final class TrialPairs {

  private final Map<String, SyncedPair> pairs = new LinkedHashMap<>();
  private int made;

  Optional<SyncedPair> of(Side side, String record) {
    return pairs.values().stream()
        .filter(pair -> pair.records().of(side).filter(record::equals).isPresent())
        .findFirst();
  }

  /**
   * Writes to given records what a decision would have written, and keeps what both agree on then.
   */
  void carryOut(CompiledTwoWay both, Decision decision, TrialRecords records) {
    Synced synced = decision.synced().orElse(null);
    if (synced == null) {
      return;
    }
    OnceWritten once = synced.onceWritten();
    Map<Side, String> ids = new HashMap<>();
    boolean writes = false;
    for (TaskDecision task : decision.tasks()) {
      PlannedDelivery delivery = task.delivery().orElse(null);
      if (delivery != null) {
        Side side = Synced.sideOf(task.member());
        String id = delivery.record().orElseGet(() -> "new-" + ++made);
        ids.put(side, id);
        once = once.written(side, written(both, side, id, delivery, records));
        writes = true;
      }
    }
    pairs.put(
        synced.key().hash(),
        new SyncedPair(
            synced.key(),
            Both.by(side -> synced.records().of(side).or(() -> Optional.ofNullable(ids.get(side)))),
            writes ? once.agreed(synced.agreed()) : synced.agreed(),
            Map.of(),
            synced.parted()));
  }

  /** What a side holds once it is written, by the names of the fields. */
  private static Map<String, Value> written(
      CompiledTwoWay both, Side side, String id, PlannedDelivery delivery, TrialRecords records) {
    CollectionRef place = new CollectionRef(delivery.system(), delivery.collection());
    if (delivery.removes()) {
      records.remove(place, id);
      return Map.of();
    }
    ObjectNode record =
        records
            .find(place, id)
            .<ObjectNode>map(JsonNode::deepCopy)
            .orElseGet(() -> JsonNodeFactory.instance.objectNode().put(TrialRecords.ID, id));
    Map<String, Value> holds = new HashMap<>();
    for (CompiledTwoWay.Field field : both.fields()) {
      CompiledTwoWay.FieldOf at = field.at().of(side);
      Value value = delivery.fields().get(at.shape().key());
      if (value != null) {
        PlainJson.set(record, at.read(), PlainJson.of(value));
      }
      if (at.valueOf(at.read().in(record)) instanceof Value now) {
        holds.put(field.rule().name(), now);
      }
    }
    records.put(place, id, record);
    return holds;
  }
}
