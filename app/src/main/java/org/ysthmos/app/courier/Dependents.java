package org.ysthmos.app.courier;

import java.util.LinkedHashMap;
import java.util.SequencedMap;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryMapper.Result;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.reading.Made;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** What waits for a task: what stands under it, and what comes after it. Inside changes. */
@Component
class Dependents {

  private final DeliveryQueue queue;
  private final DeliveryMapper deliveries;
  private final Systems systems;

  Dependents(DeliveryQueue queue, DeliveryMapper deliveries, Systems systems) {
    this.queue = queue;
    this.deliveries = deliveries;
    this.systems = systems;
  }

  /** What waited for a task gets its id and can be made. */
  void letGo(DeliveryRow made, String record) {
    if (made.effectName() == null) {
      fillEffects(made, record);
    }
    for (DeliveryRow next : queue.awaiting(made.bridgeId(), made.matchHash())) {
      if (next.parentField() != null) {
        fillParent(next, next.parentField(), record);
      }
      queue.parentMade(next);
    }
  }

  private void fillParent(DeliveryRow child, String field, String record) {
    SequencedMap<String, Value> fields = new LinkedHashMap<>(KeptFields.read(child.fields()));
    ValueType type =
        systems
            .find(child.systemId(), child.collectionId())
            .flatMap(shape -> shape.field(field))
            .map(FieldShape::type)
            .orElse(ValueType.TEXT);
    fields.put(field, Constant.parse(record, type));
    deliveries.fill(child.seq(), KeptFields.write(fields));
  }

  /** What comes after a task can name its id and its link now. */
  private void fillEffects(DeliveryRow task, String record) {
    Made made = Made.of(record, systems.page(task.systemId(), task.collectionId(), record));
    for (DeliveryRow effect : deliveries.ofTrace(task.traceSeq())) {
      if (effect.effectName() != null && effect.result() == Result.OPEN) {
        SequencedMap<String, Value> fields = new LinkedHashMap<>(KeptFields.read(effect.fields()));
        SequencedMap<String, Value> filled = new LinkedHashMap<>(fields);
        filled.replaceAll((field, value) -> made.filled(value));
        if (!filled.equals(fields)) {
          deliveries.fill(effect.seq(), KeptFields.write(filled));
        }
      }
    }
  }

  /** What waits for a task that could not be made is not made either; sending again makes both. */
  void fail(DeliveryRow parent) {
    for (DeliveryRow child : queue.awaiting(parent.bridgeId(), parent.matchHash())) {
      queue.parentFailed(child);
      deliveries.end(child.seq(), Result.FAILED, null, null);
      fail(child);
    }
  }
}
