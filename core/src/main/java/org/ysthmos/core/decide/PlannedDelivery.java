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
 * @param awaited the parent whose id is not known yet; empty if none is waited for
 */
public record PlannedDelivery(
    String idempotencyKey,
    String system,
    String collection,
    Optional<String> record,
    SequencedMap<String, Value> fields,
    Optional<AwaitedParent> awaited) {

  /**
   * A parent that must be made first.
   *
   * @param key the match key of the parent's pair, which gets its id
   * @param field the target field in which the parent's id is kept
   */
  public record AwaitedParent(MatchKey key, String field) {}

  public PlannedDelivery {
    fields = fields instanceof FieldValues ? fields : Collections.unmodifiableSequencedMap(fields);
  }
}
