package org.ysthmos.app.dispatch;

import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.dispatch.DecisionWriter.Deciding;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.delivery.Doubt;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Value;

/** The deliveries that a decision comes to, as they stand before anything of them is sent. */
@Component
class DecidedDeliveries {

  private final DeliveryQueue queue;
  private final SyncedDecisions synced;
  private final Systems systems;
  private final Restart restart;

  DecidedDeliveries(DeliveryQueue queue, SyncedDecisions synced, Systems systems, Restart restart) {
    this.queue = queue;
    this.synced = synced;
    this.systems = systems;
    this.restart = restart;
  }

  /** Adds one; inside the change that stores the decision. */
  void add(Deciding deciding, MatchKey key, PlannedDelivery planned) {
    EffectKind kind = systems.kindOf(planned);
    DeliveryRow row =
        new DeliveryRow(
            queue.number(),
            deciding.trace().seq(),
            key.bridge(),
            key.hash(),
            planned.system(),
            planned.collection(),
            planned.idempotencyKey(),
            kind,
            planned.record().orElse(null),
            KeptFields.write(planned.fields()),
            planned.awaited().flatMap(PlannedDelivery.Awaited::field).orElse(null),
            planned.then().orElse(null),
            DeliveryMapper.Result.OPEN,
            null);
    queue.add(
        row,
        deciding.trace().queue(),
        doubt(deciding, key, planned, kind),
        planned.awaited().map(first -> first.key().hash()).orElse(null));
    synced.sends(deciding, row.seq(), key, planned);
    if (kind == EffectKind.CHANGE) {
      queue.heldBefore(row.seq(), KeptFields.write(heldBefore(deciding, key, planned)));
    }
  }

  /** What the fields that are changed were written with before, as far as they were. */
  private static Map<String, Value> heldBefore(
      Deciding deciding, MatchKey key, PlannedDelivery planned) {
    Map<String, Value> before = new LinkedHashMap<>();
    deciding
        .world()
        .seen(key)
        .state()
        .ifPresent(
            pair ->
                planned
                    .fields()
                    .keySet()
                    .forEach(
                        field -> {
                          Value value = pair.agreed().get(field);
                          if (value != null) {
                            before.put(field, value);
                          }
                        }));
    return before;
  }

  /**
   * What nobody knows of a task that is to be made. If the answer to an earlier try was lost, only
   * a person who sends it again has decided that it was not made. A pair without a task means that
   * an earlier try failed, and what was taken in before this start may have been delivered by the
   * one of which our data is a copy: both are settled by a look, where one is possible.
   */
  private Doubt doubt(Deciding deciding, MatchKey key, PlannedDelivery planned, EffectKind kind) {
    Pairs.Seen pair = deciding.world().seen(key);
    boolean sentAgain = deciding.trace().resendOf() != null;
    if (!kind.doublesWhenRepeated()) {
      return Doubt.NONE;
    }
    if (pair.doubtSince().isPresent() && !sentAgain) {
      return new Doubt.Open(pair.doubtSince().get(), 0);
    }
    return restart.about(
        deciding.row(), pair.revision() > 0, planned.system(), planned.collection());
  }
}
