package org.ysthmos.core.decide;

import java.util.Collections;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Value;

/**
 * One effect to make in an outside system.
 *
 * @param idempotencyKey the same for the same effect, however often it is decided
 * @param record the id of the task to change; empty to create one
 * @param fields target field to value, in the order of the rules
 * @param awaited what must be made first; empty if nothing is waited for
 * @param then the name of what it is that comes after the tasks; empty for a task
 * @param tag the entity tag of what was read before, which must not have changed when it is written
 *     (RFC 9110, 13.1.1); empty where that is not known
 * @param removes whether the record is taken away, and not made or changed
 */
public record PlannedDelivery(
    String idempotencyKey,
    String system,
    String collection,
    Optional<String> record,
    SequencedMap<String, Value> fields,
    Optional<Awaited> awaited,
    Optional<String> then,
    Optional<String> tag,
    boolean removes) {

  /**
   * What must be made first.
   *
   * @param key the match key of its pair, which gets its id
   * @param field the target field in which the id is kept; empty where it is kept in none
   */
  public record Awaited(MatchKey key, Optional<String> field) {}

  /** The same after something else. */
  PlannedDelivery after(SequencedMap<String, Value> with, Optional<Awaited> first) {
    return new PlannedDelivery(
        idempotencyKey, system, collection, record, with, first, then, tag, removes);
  }

  /** The same as something that comes after the tasks. */
  PlannedDelivery asThen(String name) {
    return new PlannedDelivery(
        idempotencyKey,
        system,
        collection,
        record,
        fields,
        awaited,
        Optional.of(name),
        tag,
        removes);
  }

  public PlannedDelivery {
    fields = fields instanceof FieldValues ? fields : Collections.unmodifiableSequencedMap(fields);
  }
}
