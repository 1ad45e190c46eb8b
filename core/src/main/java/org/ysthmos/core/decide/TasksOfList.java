package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.ysthmos.core.bridge.CompiledPlan;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.json.TypedReader;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;

/** Decides a task for each item of a list: of each record by its key, or of each value. */
final class TasksOfList {

  private final TaskComparison tasks;
  private final DecisionNotes notes;
  private final Reading reading;
  private final List<Value> match;
  private final Set<String> known = new HashSet<>();
  private final List<TaskDecision> decided = new ArrayList<>();

  TasksOfList(TaskComparison tasks, Reading reading, List<Value> match) {
    this.tasks = tasks;
    this.notes = tasks.notes();
    this.reading = reading;
    this.match = match;
  }

  List<TaskDecision> ofRecords(CompiledPlan.EachRecord plan) {
    Computed list = TypedReader.list(plan.list().reader().node(reading));
    if (list instanceof Problem problem) {
      notes.fail(DecisionNotes.mapping(plan.list().shape().name(), problem));
      return List.of();
    }
    for (JsonNode record : plan.list().reader().node(reading)) {
      Reading holding = reading.holding(record);
      Computed key = plan.key().read(holding);
      if (key instanceof Value value && !Operator.isBlank(value)) {
        item(plan.fields(), value, holding, plan.list().shape().name());
      } else {
        notes.fail(
            key instanceof Problem problem
                ? DecisionNotes.mapping(plan.key().shape().name(), problem)
                : withoutKey(plan));
      }
    }
    return decided;
  }

  private static Failure withoutKey(CompiledPlan.EachRecord plan) {
    return Failure.of(
            FailureKind.MAPPING_ERROR,
            "An item of %s has no value for its key “%s”"
                .formatted(plan.list().shape().name(), plan.key().shape().name()))
        .withField(plan.key().shape().name(), "")
        .withRemedy("Fill the field at its source, then send again");
  }

  List<TaskDecision> ofValues(CompiledPlan.EachValue plan) {
    Computed computed = notes.origin(plan.list(), "for-each", reading);
    if (computed instanceof Problem problem) {
      notes.fail(DecisionNotes.mapping("for-each", problem));
      return List.of();
    }
    List<Value> items = computed instanceof ListValue list ? list.items() : List.of();
    for (Value item : items) {
      if (!Operator.isBlank(item)) {
        item(plan.fields(), item, reading.holding(item), "the list");
      }
    }
    return decided;
  }

  private void item(List<CompiledField> rules, Value item, Reading holding, String list) {
    if (!known.add(item.display())) {
      notes
          .warnings()
          .add(
              new Decision.Warning(
                  item.display(),
                  "for-each",
                  "“%s” stands more than once in %s; one task is made"
                      .formatted(item.display(), list)));
      return;
    }
    FieldValues fields = tasks.compute(rules, item.display(), holding);
    if (notes.failures().isEmpty()) {
      decided.add(tasks.compare(rules, item.display(), tasks.key(match, item), fields));
    }
  }

  /** One task of an event: the plan without a list. */
  static List<TaskDecision> one(
      CompiledPlan.One plan, TaskComparison tasks, Reading reading, List<Value> match) {
    FieldValues fields = tasks.compute(plan.fields(), "", reading);
    TaskComparison.At at = tasks.at(tasks.bridge().definition().to(), plan.changed(), reading);
    if (!tasks.notes().failures().isEmpty()) {
      return List.of();
    }
    MatchKey key = tasks.key(match);
    return List.of(tasks.compare(at, plan.fields(), "", key, fields, tasks.pair(key)));
  }
}
