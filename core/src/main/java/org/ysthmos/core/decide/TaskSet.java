package org.ysthmos.core.decide;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.CompiledPlan;
import org.ysthmos.core.bridge.TaskPlan;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Move;
import org.ysthmos.core.step.MoveWorkingDays;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.Warned;

/** Decides the tasks around an anchor day. */
final class TaskSet {

  private final TaskComparison tasks;
  private final DecisionNotes notes;
  private final Reading reading;
  private final List<Value> match;

  TaskSet(TaskComparison tasks, Reading reading, List<Value> match) {
    this.tasks = tasks;
    this.notes = tasks.notes();
    this.reading = reading;
    this.match = match;
  }

  /**
   * None if it has no anchor, and nothing was made for it.
   *
   * @param instead the anchor in place of the one that stands there, to see what would move
   */
  List<TaskDecision> decide(CompiledPlan.Set plan, Optional<Anchor> instead) {
    if (plan.noAnchor().isPresent()
        && instead.map(Anchor::isGone).orElseGet(() -> plan.anchor().readsNothing(reading))) {
      return new AnchorGone(tasks, match, this::wasTouched).decide(plan);
    }
    Computed computed =
        instead
            .<Computed>flatMap(Anchor::day)
            .orElseGet(() -> notes.origin(plan.anchor(), "anchor", reading));
    if (!(computed instanceof Day anchor)) {
      notes.fail(
          computed instanceof Problem problem
              ? DecisionNotes.mapping("anchor day", problem)
              : Failure.of(FailureKind.MAPPING_ERROR, "The set of tasks has no anchor day")
                  .withField("anchor day", "")
                  .withRemedy("Fill the day at its source, then send again"));
      return List.of();
    }
    Map<String, FieldValues> fields = new LinkedHashMap<>();
    for (CompiledPlan.Member member : plan.members()) {
      Computed day = day(anchor, member.rule().offset());
      if (day instanceof Problem problem) {
        notes.fail(DecisionNotes.mapping(member.rule().name(), problem));
        continue;
      }
      Reading holding = reading.holding(Warned.valueOf(day), anchor);
      fields.put(
          member.rule().name(), tasks.compute(member.fields(), member.rule().name(), holding));
    }
    return notes.failures().isEmpty() ? compareSet(plan, fields) : List.of();
  }

  private Computed day(Day anchor, TaskPlan.Offset offset) {
    return switch (offset) {
      case TaskPlan.ByPeriod by -> Move.by(by.period()).moved(anchor.date());
      case TaskPlan.ByWorkingDays by ->
          MoveWorkingDays.move(anchor.date(), by.days(), by.calendars(), reading);
    };
  }

  /** A set is made only if none of it exists; what exists is moved unless someone worked on it. */
  private List<TaskDecision> compareSet(CompiledPlan.Set plan, Map<String, FieldValues> fields) {
    Map<String, MatchKey> keys = new HashMap<>();
    Map<String, World.PairState> pairs = new HashMap<>();
    for (CompiledPlan.Member member : plan.members()) {
      String name = member.rule().name();
      MatchKey key = tasks.key(match, Text.of(name));
      keys.put(name, key);
      tasks.pair(key).ifPresent(pair -> pairs.put(name, pair));
    }
    SequencedMap<String, TaskDecision> decided = new LinkedHashMap<>();
    for (CompiledPlan.Member member : plan.members()) {
      String name = member.rule().name();
      MatchKey key = Objects.requireNonNull(keys.get(name));
      FieldValues values = Objects.requireNonNull(fields.get(name));
      Optional<World.PairState> pair = Optional.ofNullable(pairs.get(name));
      if (pair.isEmpty() && !pairs.isEmpty()) {
        decided.put(
            name,
            TaskDecision.left(
                name,
                key,
                values,
                Optional.empty(),
                "others of its set were made before; a set is made once"));
        continue;
      }
      TaskDecision task = tasks.compare(member.fields(), name, key, values, pair);
      if (task.verdict() == Verdict.UPDATE && wasTouched(key, pair.orElseThrow())) {
        task =
            TaskDecision.left(
                name,
                key,
                values,
                task.target(),
                "someone has worked on it since; it is left as it is");
      }
      decided.put(name, underParent(task, member.rule().parent(), decided, pairs));
    }
    return List.copyOf(decided.values());
  }

  private boolean wasTouched(MatchKey key, World.PairState pair) {
    return switch (tasks.world().touched(key, pair)) {
      case World.Touched touched -> touched.yes();
      case World.Unanswered unanswered -> {
        notes.fail(unanswered.failure());
        yield true;
      }
    };
  }

  /**
   * A task that is made under a parent carries the parent's id, or waits for it. Where the parent
   * is not made, there is nothing to wait for.
   */
  private TaskDecision underParent(
      TaskDecision task,
      Optional<String> parent,
      Map<String, TaskDecision> decided,
      Map<String, World.PairState> pairs) {
    if (parent.isEmpty() || task.verdict() != Verdict.CREATE) {
      return task;
    }
    TaskDecision above = Objects.requireNonNull(decided.get(parent.get()));
    Optional<String> made =
        Optional.ofNullable(pairs.get(parent.get())).flatMap(World.PairState::target);
    if (made.isEmpty() && above.delivery().isEmpty()) {
      return TaskDecision.left(
          task.member(),
          task.key(),
          task.fields(),
          Optional.empty(),
          "it belongs under “%s”, which is not there and is not made".formatted(parent.get()));
    }
    return task.with(delivery -> under(delivery, made, above.key()));
  }

  private PlannedDelivery under(PlannedDelivery delivery, Optional<String> made, MatchKey above) {
    CollectionShape target = tasks.bridge().target();
    FieldShape field = target.field(target.parentField()).orElseThrow();
    SequencedMap<String, Value> fields = new LinkedHashMap<>(delivery.fields());
    made.ifPresent(id -> fields.put(field.key(), Constant.parse(id, field.type())));
    return delivery.after(
        fields,
        made.isPresent()
            ? Optional.empty()
            : Optional.of(new PlannedDelivery.Awaited(above, Optional.of(field.key()))));
  }
}
