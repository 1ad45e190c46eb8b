package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledPlan;
import org.ysthmos.core.bridge.TaskPlan;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.json.TypedReader;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Move;
import org.ysthmos.core.step.MoveWorkingDays;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.Warned;

/** Decides the tasks of one event, each against its pair. */
final class TaskDecider {

  private final BridgeVersion bridge;
  private final Event event;
  private final World world;
  private final Reading reading;
  private final DecisionNotes notes;
  private Map<String, Value> firstComputed = Map.of();

  TaskDecider(
      BridgeVersion bridge, Event event, World world, Reading reading, DecisionNotes notes) {
    this.bridge = bridge;
    this.event = event;
    this.world = world;
    this.reading = reading;
    this.notes = notes;
  }

  /** The fields of the first task, as far as they could be computed. */
  Map<String, Value> firstComputed() {
    return firstComputed;
  }

  /**
   * @param match the values of the match key
   * @return the tasks; what could not be decided is with the notes, and then the tasks mean nothing
   */
  List<TaskDecision> decide(List<Value> match) {
    return switch (bridge.plan()) {
      case CompiledPlan.One one -> one(one, match);
      case CompiledPlan.EachRecord each -> eachRecord(each, match);
      case CompiledPlan.EachValue each -> eachValue(each, match);
      case CompiledPlan.Set set -> set(set, match);
    };
  }

  private List<TaskDecision> one(CompiledPlan.One plan, List<Value> match) {
    FieldValues fields = compute(plan.fields(), "");
    if (!notes.failures().isEmpty()) {
      return List.of();
    }
    MatchKey key = MatchKey.of(bridge.definition().id(), match);
    return List.of(compare(plan.fields(), "", key, fields));
  }

  private List<TaskDecision> eachRecord(CompiledPlan.EachRecord plan, List<Value> match) {
    Computed list = TypedReader.list(plan.list().reader().node(reading));
    if (list instanceof Problem problem) {
      notes.fail(DecisionNotes.mapping(plan.list().shape().name(), problem));
      return List.of();
    }
    List<TaskDecision> tasks = new ArrayList<>();
    Set<String> known = new HashSet<>();
    for (JsonNode record : plan.list().reader().node(reading)) {
      reading.takeInHand(record);
      Computed key = plan.key().read(reading);
      if (!(key instanceof Value value) || Operator.isBlank(value)) {
        notes.fail(
            key instanceof Problem problem
                ? DecisionNotes.mapping(plan.key().shape().name(), problem)
                : Failure.of(
                        FailureKind.MAPPING_ERROR,
                        "An item of %s has no value for its key “%s”"
                            .formatted(plan.list().shape().name(), plan.key().shape().name()))
                    .withField(plan.key().shape().name(), "")
                    .withRemedy("Fill the field at its source, then send again"));
        continue;
      }
      if (known.add(value.display())) {
        member(plan.fields(), value, match).ifPresent(tasks::add);
      } else {
        warnOfTwice(plan.list().shape().name(), value);
      }
    }
    return tasks;
  }

  private List<TaskDecision> eachValue(CompiledPlan.EachValue plan, List<Value> match) {
    Computed computed = notes.origin(plan.list(), "for-each", reading);
    if (computed instanceof Problem problem) {
      notes.fail(DecisionNotes.mapping("for-each", problem));
      return List.of();
    }
    List<TaskDecision> tasks = new ArrayList<>();
    Set<String> known = new HashSet<>();
    List<Value> items = computed instanceof ListValue list ? list.items() : List.of();
    for (Value item : items) {
      reading.takeInHand(item);
      if (Operator.isBlank(item)) {
        continue;
      }
      if (known.add(item.display())) {
        member(plan.fields(), item, match).ifPresent(tasks::add);
      } else {
        warnOfTwice("the list", item);
      }
    }
    return tasks;
  }

  private void warnOfTwice(String list, Value item) {
    notes
        .warnings()
        .add(
            new Decision.Warning(
                item.display(),
                "for-each",
                "“"
                    + item.display()
                    + "” stands more than once in "
                    + list
                    + "; one task is made"));
  }

  private Optional<TaskDecision> member(List<CompiledField> rules, Value item, List<Value> match) {
    FieldValues fields = compute(rules, item.display());
    return notes.failures().isEmpty()
        ? Optional.of(compare(rules, item.display(), memberKey(match, item), fields))
        : Optional.empty();
  }

  private MatchKey memberKey(List<Value> match, Value member) {
    List<Value> parts = new ArrayList<>(match);
    parts.add(member);
    return MatchKey.of(bridge.definition().id(), parts);
  }

  private List<TaskDecision> set(CompiledPlan.Set plan, List<Value> match) {
    Computed computed = notes.origin(plan.anchor(), "anchor", reading);
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
      reading.takeInHand(Warned.valueOf(day), anchor);
      fields.put(member.rule().name(), compute(member.fields(), member.rule().name()));
    }
    return notes.failures().isEmpty() ? compareSet(plan, match, fields) : List.of();
  }

  private Computed day(Day anchor, TaskPlan.Offset offset) {
    return switch (offset) {
      case TaskPlan.ByPeriod by -> Move.by(by.period()).moved(anchor.date());
      case TaskPlan.ByWorkingDays by ->
          MoveWorkingDays.move(anchor.date(), by.days(), by.calendar(), reading);
    };
  }

  /** A set is made only if none of it exists; what exists is moved unless someone worked on it. */
  private List<TaskDecision> compareSet(
      CompiledPlan.Set plan, List<Value> match, Map<String, FieldValues> fields) {
    Map<String, MatchKey> keys = new HashMap<>();
    Map<String, World.PairState> pairs = new HashMap<>();
    for (CompiledPlan.Member member : plan.members()) {
      String name = member.rule().name();
      MatchKey key = memberKey(match, Text.of(name));
      keys.put(name, key);
      world.pair(bridge.definition().id(), key).ifPresent(pair -> pairs.put(name, pair));
    }
    List<TaskDecision> tasks = new ArrayList<>();
    for (CompiledPlan.Member member : plan.members()) {
      String name = member.rule().name();
      MatchKey key = Objects.requireNonNull(keys.get(name));
      FieldValues values = Objects.requireNonNull(fields.get(name));
      Optional<World.PairState> pair = Optional.ofNullable(pairs.get(name));
      if (pair.isEmpty() && !pairs.isEmpty()) {
        tasks.add(
            left(name, key, values, "others of its set were made before; a set is made once"));
        continue;
      }
      TaskDecision task = compare(member.fields(), name, key, values, pair);
      if (task.verdict() == Verdict.UPDATE && wasTouched(key, pair.orElseThrow())) {
        task = left(name, key, values, "someone has worked on it since; it is left as it is");
      }
      tasks.add(underParent(task, member.rule().parent(), keys, pairs));
    }
    return tasks;
  }

  private static TaskDecision left(
      String member, MatchKey key, FieldValues values, String because) {
    return new TaskDecision(member, Verdict.UNCHANGED, key, values, Optional.empty(), because);
  }

  private boolean wasTouched(MatchKey key, World.PairState pair) {
    return switch (world.touched(key, pair)) {
      case World.Touched touched -> touched.yes();
      case World.Unanswered unanswered -> {
        notes.fail(unanswered.failure());
        yield true;
      }
    };
  }

  /** A task that is made under a parent carries the parent's id, or waits for it. */
  private TaskDecision underParent(
      TaskDecision task,
      Optional<String> parent,
      Map<String, MatchKey> keys,
      Map<String, World.PairState> pairs) {
    if (parent.isEmpty() || task.verdict() != Verdict.CREATE) {
      return task;
    }
    PlannedDelivery delivery = task.delivery().orElseThrow();
    FieldShape field = bridge.target().field(bridge.target().parentField()).orElseThrow();
    Optional<String> made =
        Optional.ofNullable(pairs.get(parent.get())).flatMap(World.PairState::target);
    SequencedMap<String, Value> fields = new LinkedHashMap<>(delivery.fields());
    made.ifPresent(id -> fields.put(field.key(), Constant.parse(id, field.type())));
    PlannedDelivery.AwaitedParent awaited =
        new PlannedDelivery.AwaitedParent(
            Objects.requireNonNull(keys.get(parent.get())), field.key());
    PlannedDelivery under =
        new PlannedDelivery(
            delivery.idempotencyKey(),
            delivery.system(),
            delivery.collection(),
            delivery.record(),
            fields,
            made.isPresent() ? Optional.empty() : Optional.of(awaited));
    return new TaskDecision(
        task.member(),
        task.verdict(),
        task.key(),
        task.fields(),
        Optional.of(under),
        task.because());
  }

  private FieldValues compute(List<CompiledField> rules, String member) {
    FieldValues values = new FieldValues(rules);
    if (firstComputed.isEmpty()) {
      firstComputed = values;
    }
    for (int i = 0; i < rules.size(); i++) {
      CompiledField field = rules.get(i);
      switch (notes.field(field, member, reading)) {
        case Value value -> values.set(i, value);
        case Problem problem -> {
          String name =
              member.isEmpty()
                  ? field.target().name()
                  : field.target().name() + " (" + member + ")";
          notes.fail(DecisionNotes.mapping(name, problem));
        }
        case Warned warned ->
            throw new IllegalStateException("a compiled field settles its warnings");
      }
    }
    return values;
  }

  private TaskDecision compare(
      List<CompiledField> rules, String member, MatchKey key, FieldValues fields) {
    return compare(rules, member, key, fields, world.pair(bridge.definition().id(), key));
  }

  private TaskDecision compare(
      List<CompiledField> rules,
      String member,
      MatchKey key,
      FieldValues fields,
      Optional<World.PairState> pair) {
    Optional<String> target = pair.flatMap(World.PairState::target);
    // With no task yet nothing is agreed on, so that only what has a value is wanted.
    Map<String, Value> agreed = target.isPresent() ? pair.orElseThrow().agreed() : Map.of();
    FieldValues wanted = new FieldValues(rules);
    for (int i = 0; i < rules.size(); i++) {
      Value value = fields.at(i);
      Value before =
          agreed.isEmpty()
              ? Nothing.NOTHING
              : agreed.getOrDefault(rules.get(i).target().key(), Nothing.NOTHING);
      if (value != null && !value.equals(before)) {
        wanted.set(i, value);
      }
    }
    if (target.isPresent() && wanted.isEmpty()) {
      return new TaskDecision(member, Verdict.UNCHANGED, key, fields, Optional.empty(), "");
    }
    Verdict verdict = target.isPresent() ? Verdict.UPDATE : Verdict.CREATE;
    String effect = key.effect(target.isPresent() ? "change:" + event.id() : "task");
    var to = bridge.definition().to();
    PlannedDelivery delivery =
        new PlannedDelivery(effect, to.system(), to.collection(), target, wanted, Optional.empty());
    return new TaskDecision(member, verdict, key, fields, Optional.of(delivery), "");
  }
}
