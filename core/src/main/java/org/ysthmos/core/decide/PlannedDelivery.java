package org.ysthmos.core.decide;

import java.util.Collections;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.value.Value;

/**
 * One effect to make in an outside system.
 *
 * @param idempotencyKey the same for the same effect, however often it is decided
 * @param record the id of the task to change; empty to create one
 * @param fields target field to value, in the order of the rules; handed over, not copied
 */
public record PlannedDelivery(
    String idempotencyKey,
    String system,
    String collection,
    Optional<String> record,
    SequencedMap<String, Value> fields) {

  public PlannedDelivery {
    fields = Collections.unmodifiableSequencedMap(fields);
  }
}
