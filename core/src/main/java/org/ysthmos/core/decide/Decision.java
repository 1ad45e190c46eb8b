package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.table.TableUse;
import org.ysthmos.core.value.Value;

/**
 * What a bridge version makes of one event.
 *
 * @param key the match key; empty if the event was stopped before it was needed
 * @param tasks what is made of each task; none unless all of them could be decided
 * @param computed the fields of the first task as far as they could be computed, for showing what a
 *     failed event would have become
 * @param because why the event was passed by, in words; empty otherwise
 * @param failures why it failed; the first is the one to act on
 * @param tableUses which keys were asked of reference tables
 * @param answers what the lookups found, so that a later explanation shows what was known then
 * @param chore what it says of when its record comes round, where that matters
 * @param synced what it comes to for the pair of a bridge that goes both ways
 */
public record Decision(
    Verdict verdict,
    Optional<MatchKey> key,
    List<TaskDecision> tasks,
    Map<String, Value> computed,
    String because,
    List<Failure> failures,
    List<Warning> warnings,
    List<TableUse> tableUses,
    List<Answer> answers,
    Explanation explanation,
    Optional<ChoreLook> chore,
    Optional<Synced> synced) {

  /**
   * Something to look at, though the task could be made.
   *
   * @param member which of several tasks; empty where there is one
   * @param field the key of the target field
   */
  public record Warning(String member, String field, String message) {}

  /**
   * What a lookup found.
   *
   * @param lookup its name in the bridge
   * @param records all that were found, of which the first counts
   */
  public record Answer(String lookup, World.Question question, List<JsonNode> records) {
    public Answer {
      records = List.copyOf(records);
    }
  }

  public Decision {
    tasks = List.copyOf(tasks);
    failures = List.copyOf(failures);
    warnings = List.copyOf(warnings);
    tableUses = List.copyOf(tableUses);
    answers = List.copyOf(answers);
  }

  /** The same, but nothing of it is carried out for a reason that lies outside the rules. */
  public Decision refused(Failure failure) {
    return new Decision(
        Verdict.FAILED,
        key,
        List.of(),
        task(),
        because,
        List.of(failure),
        warnings,
        tableUses,
        answers,
        explanation,
        Optional.empty(),
        Optional.empty());
  }

  /** The fields of the first task; those computed so far if it failed. */
  public Map<String, Value> task() {
    return tasks.isEmpty() ? computed : tasks.getFirst().fields();
  }

  /** All deliveries, in the order in which they are to be made. */
  public List<PlannedDelivery> deliveries() {
    List<PlannedDelivery> deliveries = new ArrayList<>(tasks.size());
    for (TaskDecision task : tasks) {
      task.delivery().ifPresent(deliveries::add);
    }
    return deliveries;
  }
}
