package org.ysthmos.core.decide;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Value;

/**
 * What a bridge version makes of one event.
 *
 * @param key the match key; empty if the event was stopped before it was needed
 * @param task every target field with its value, whether or not it needs to be delivered
 * @param because why the event was passed by, in words; empty otherwise
 * @param failures why it failed; the first is the one to act on
 */
public record Decision(
    Verdict verdict,
    Optional<MatchKey> key,
    Map<String, Value> task,
    List<PlannedDelivery> deliveries,
    String because,
    List<Failure> failures,
    List<Warning> warnings,
    Explanation explanation) {

  /** Something to look at, though the task could be made. */
  public record Warning(String field, String message) {}

  public Decision {
    deliveries = List.copyOf(deliveries);
    failures = List.copyOf(failures);
    warnings = List.copyOf(warnings);
  }
}
