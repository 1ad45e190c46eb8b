package org.ysthmos.core.decide;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.bridge.CompiledEffect;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.Made;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * Decides what comes after the tasks of an event: in order, each under its own condition, and each
 * once for its match key. A change of the record that the event came from is made whenever what is
 * to stand there is another than when it was last written.
 */
final class Effects {

  private final TaskComparison tasks;
  private final DecisionNotes notes;
  private final Reading reading;
  private final MatchValues match;

  /** Computes the values of a match key; fewer than it has parts if one is not known. */
  @FunctionalInterface
  interface MatchValues {
    List<Value> of(CompiledEffect effect);
  }

  Effects(TaskComparison tasks, Reading reading, MatchValues match) {
    this.tasks = tasks;
    this.notes = tasks.notes();
    this.reading = reading;
    this.match = match;
  }

  /**
   * @param before the tasks of the event, at least one
   */
  List<TaskDecision> decide(List<CompiledEffect> effects, List<TaskDecision> before) {
    List<TaskDecision> decided = new ArrayList<>(effects.size());
    Optional<MatchKey> last = awaited(before);
    for (CompiledEffect effect : effects) {
      Optional<TaskDecision> one = one(effect, before.getFirst(), last);
      one.ifPresent(decided::add);
      if (one.flatMap(TaskDecision::delivery).isPresent()) {
        last = one.map(TaskDecision::key);
      }
    }
    return decided;
  }

  /** The last of the tasks that are delivered, after which what comes then is done. */
  private static Optional<MatchKey> awaited(List<TaskDecision> before) {
    return before.reversed().stream()
        .filter(task -> task.delivery().isPresent())
        .findFirst()
        .map(TaskDecision::key);
  }

  private Optional<TaskDecision> one(
      CompiledEffect effect, TaskDecision task, Optional<MatchKey> after) {
    String name = effect.rule().name();
    List<Value> parts = match.of(effect);
    if (parts.size() < effect.match().size()) {
      return Optional.empty();
    }
    MatchKey key = tasks.key(parts, Text.of(Explanation.ofThen(name)));
    switch (effect.when().ask(reading, null)) {
      case CompiledCondition.Unknown unknown -> {
        notes.fail(
            DecisionNotes.mapping(
                unknown.field().shape().name() + " (" + Explanation.ofThen(name) + ")",
                unknown.problem()));
        return Optional.empty();
      }
      case CompiledCondition.Known known -> {
        if (!known.met()) {
          return Optional.of(left(name, key, Map.of(), Optional.empty(), known.because()));
        }
      }
    }
    Optional<Made> made = made(task);
    if (made.isEmpty() && effect.namesTheTask()) {
      return Optional.of(
          left(name, key, Map.of(), Optional.empty(), "there is no task that it could name"));
    }
    FieldValues fields =
        tasks.compute(
            effect.fields(), Explanation.ofThen(name), reading.after(made.orElse(Made.NONE)));
    TaskComparison.At at = tasks.at(effect.rule().to(), effect.changed(), reading);
    if (!notes.failures().isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(compare(effect, at, key, fields, after));
  }

  private TaskDecision compare(
      CompiledEffect effect,
      TaskComparison.At at,
      MatchKey key,
      FieldValues fields,
      Optional<MatchKey> after) {
    Optional<World.PairState> pair = tasks.pair(key);
    String name = effect.rule().name();
    Optional<String> there = pair.flatMap(World.PairState::target);
    if (effect.changed().isEmpty() && there.isPresent()) {
      return left(name, key, fields, there, "it was done before, and is done once");
    }
    return tasks
        .compare(at, effect.fields(), name, key, fields, pair)
        .with(
            delivery ->
                delivery
                    .after(
                        delivery.fields(),
                        after.map(first -> new PlannedDelivery.Awaited(first, Optional.empty())))
                    .asThen(name))
        .asThen();
  }

  private static TaskDecision left(
      String name,
      MatchKey key,
      Map<String, Value> fields,
      Optional<String> target,
      String because) {
    return TaskDecision.left(name, key, fields, target, because).asThen();
  }

  /** The task that was made, or is to be made; empty if there is none and none is to be. */
  private Optional<Made> made(TaskDecision task) {
    if (task.target().isPresent()) {
      var to = tasks.bridge().definition().to();
      String id = task.target().get();
      return Optional.of(Made.of(id, tasks.world().page(to.system(), to.collection(), id)));
    }
    return task.delivery().isPresent() ? Optional.of(Made.LATER) : Optional.empty();
  }
}
