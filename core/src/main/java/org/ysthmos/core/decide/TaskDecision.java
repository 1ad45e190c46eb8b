package org.ysthmos.core.decide;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * What a bridge version makes of one of an event's tasks, or of what comes after them.
 *
 * @param member which of the tasks: the name in a set, the item of a list, or the name of what
 *     comes after; empty where there is one task
 * @param key the match key of its pair
 * @param fields every target field with its value, whether or not it needs to be delivered
 * @param delivery what is to be made of it; empty if nothing is
 * @param because why it is left as it is, where that needs a word; empty otherwise
 * @param target the id of its record; empty while it was never made
 * @param then whether it comes after the tasks
 */
public record TaskDecision(
    String member,
    Verdict verdict,
    MatchKey key,
    Map<String, Value> fields,
    Optional<PlannedDelivery> delivery,
    String because,
    Optional<String> target,
    boolean then) {

  /**
   * Its pair as it would be once this was carried out.
   *
   * @param before as it was; empty if there was none
   * @param fresh gives the id of a task that is made
   */
  public World.PairState carriedOut(Optional<World.PairState> before, Supplier<String> fresh) {
    String id = before.flatMap(World.PairState::target).or(this::target).orElseGet(fresh);
    Map<String, Value> agreed = new LinkedHashMap<>(fields);
    agreed.values().removeIf(value -> value == Nothing.NOTHING);
    return new World.PairState(Optional.of(id), agreed);
  }

  /** A task that is left as it is. */
  static TaskDecision left(
      String member,
      MatchKey key,
      Map<String, Value> fields,
      Optional<String> target,
      String because) {
    return new TaskDecision(
        member, Verdict.UNCHANGED, key, fields, Optional.empty(), because, target, false);
  }

  /** The same with another delivery in place of its own. */
  TaskDecision with(UnaryOperator<PlannedDelivery> change) {
    return new TaskDecision(
        member, verdict, key, fields, delivery.map(change), because, target, then);
  }

  /** The same as something that comes after the tasks. */
  TaskDecision asThen() {
    return new TaskDecision(member, verdict, key, fields, delivery, because, target, true);
  }
}
