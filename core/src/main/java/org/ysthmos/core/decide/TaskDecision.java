package org.ysthmos.core.decide;

import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Value;

/**
 * What a bridge version makes of one of an event's tasks.
 *
 * @param member which of the tasks: the name in a set, the item of a list; empty where there is one
 * @param key the match key of this task's pair
 * @param fields every target field with its value, whether or not it needs to be delivered
 * @param delivery what is to be made of it; empty if nothing is
 * @param because why it is left as it is, where that needs a word; empty otherwise
 */
public record TaskDecision(
    String member,
    Verdict verdict,
    MatchKey key,
    Map<String, Value> fields,
    Optional<PlannedDelivery> delivery,
    String because) {

  /** The same with another delivery in place of its own. */
  TaskDecision with(UnaryOperator<PlannedDelivery> change) {
    return new TaskDecision(member, verdict, key, fields, delivery.map(change), because);
  }
}
