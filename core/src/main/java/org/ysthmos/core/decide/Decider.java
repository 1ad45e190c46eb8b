package org.ysthmos.core.decide;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.ChoreSource;
import org.ysthmos.core.bridge.CompiledChores;
import org.ysthmos.core.bridge.CompiledPlan;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.Warned;

/**
 * The one function that decides. The live engine, a resend and every preview call it with the same
 * inputs and get the same answer. It never throws for what it finds in an event.
 *
 * <p>The order of a decision: whether a later version of the record came before, whether it tells
 * of our own writing, the lookups that the condition needs, the condition, the other lookups, the
 * match key, the fields of each task, the pairs, and last what comes after the tasks.
 */
public final class Decider {

  public static final String OWN_WRITING =
      "it tells of what was written there from here, and of nothing else";

  private static final String ELSEWHERE = "the place that it came from is none of the bridge's now";

  /** The kind of the event that a record is gone. */
  private static final String REMOVED = "removed";

  private final BridgeVersion bridge;
  private final Event event;
  private final World world;
  private final Reading reading;
  private final Lookups lookups;
  private final DecisionNotes notes;
  private final TaskComparison tasks;
  private final Optional<Anchor> instead;

  private Decider(
      BridgeVersion bridge, Event event, World world, Mode mode, Optional<Anchor> instead) {
    this.instead = instead;
    this.bridge = bridge;
    this.event = event;
    this.world = world;
    this.notes = new DecisionNotes(mode);
    this.lookups = new Lookups(world);
    this.reading =
        new Reading(
            event, world, bridge.lookups().size(), bridge.values().size(), this::namedValue);
    this.tasks = new TaskComparison(bridge, event, world, notes);
  }

  /**
   * @param bridge seen from anywhere: it decides as it looks from where the event came
   */
  public static Decision decide(BridgeVersion bridge, Event event, World world, Mode mode) {
    return new Decider(seen(bridge, event), event, world, mode, Optional.empty()).decide();
  }

  private static BridgeVersion seen(BridgeVersion bridge, Event event) {
    return bridge.seenFrom(event.system(), event.collection());
  }

  /** The same with another anchor day, to see what would become of the tasks of a set. */
  public static Decision decide(
      BridgeVersion bridge, Event event, World world, Mode mode, Anchor instead) {
    return new Decider(seen(bridge, event), event, world, mode, Optional.of(instead)).decide();
  }

  private Computed namedValue(int place, Reading current) {
    return notes.named(bridge.values().get(place), nameAt(place), current);
  }

  private String nameAt(int place) {
    return bridge.valueNames().get(place);
  }

  private Decision decide() {
    if (bridge.between().isPresent()) {
      return bothWays();
    }
    if (bridge.leftPlace(event.system(), event.collection())) {
      return passedBy(ELSEWHERE);
    }
    Optional<String> missed = TimeSource.missed(event);
    if (missed.isPresent()) {
      return passedBy(missed.get());
    }
    if (bridge.chores().isPresent() && !ChoreSource.isTime(event)) {
      return row(bridge.chores().get());
    }
    if (bridge.chores().isEmpty()) {
      Optional<String> nothing = oldOrOwn();
      if (nothing.isPresent()) {
        return passedBy(nothing.get());
      }
    }
    Decision stopped = lookUp(0, bridge.lookupsBeforeWhen());
    if (stopped != null) {
      return stopped;
    }
    CompiledCondition.Answer answer = bridge.when().ask(reading, notes.tests());
    if (answer instanceof CompiledCondition.Unknown unknown) {
      return failed(DecisionNotes.mapping(unknown.field().shape().name(), unknown.problem()));
    }
    if (answer instanceof CompiledCondition.Known known && !known.met()) {
      return passedBy(known.because());
    }
    stopped = lookUp(bridge.lookupsBeforeWhen(), bridge.lookups().size());
    return stopped == null ? carry() : stopped;
  }

  /**
   * What is told of a row makes no task: it says when the row comes round from now on. What was
   * written to it from here says so too.
   */
  private Decision row(CompiledChores chores) {
    Optional<World.Overtaken> overtaken = overtaken();
    if (overtaken.isPresent()) {
      return passedBy(words(overtaken.get()));
    }
    ChoreLook look =
        event.kind().equals(REMOVED)
            ? new ChoreLook.Rests("its row is gone, so that it comes round no more")
            : new ChoreRow(chores, reading, notes).look();
    boolean unusable = !notes.failures().isEmpty();
    String because =
        switch (look) {
          case ChoreLook.Comes comes -> "it comes round " + comes.chore().sentence();
          case ChoreLook.Rests rests -> unusable ? "" : rests.because();
        };
    return decision(
        unusable ? Verdict.FAILED : Verdict.PASSED_BY,
        Optional.empty(),
        List.of(),
        because,
        Optional.of(look));
  }

  /** Why nothing comes of an event of a record, whatever the rules say. */
  private Optional<String> oldOrOwn() {
    Optional<World.Overtaken> overtaken = overtaken();
    if (overtaken.isPresent()) {
      return overtaken.map(Decider::words);
    }
    return !bridge.definition().from().ownWrites() && world.isOwnWrite(event)
        ? Optional.of(OWN_WRITING)
        : Optional.empty();
  }

  private Optional<World.Overtaken> overtaken() {
    return world.overtaken(event, bridge.definition().from().events());
  }

  private static String words(World.Overtaken overtaken) {
    return "it tells of version %s, and version %s came before it"
        .formatted(overtaken.version(), overtaken.by());
  }

  /** Tasks are looked at as they stand now, so that no event comes too late. */
  private Decision bothWays() {
    return world.isOwnWrite(event)
        ? passedBy(OWN_WRITING)
        : new SyncDecider(bridge, event, world, notes).decide();
  }

  /** Asks some of the lookups; gives the decision if one of them stops the event. */
  private @Nullable Decision lookUp(int from, int to) {
    for (int i = from; i < to; i++) {
      switch (lookups.ask(bridge.lookups().get(i), reading)) {
        case Lookups.GoesOn goesOn -> reading.found(i, goesOn.record());
        case Lookups.PassesBy passesBy -> {
          return passedBy(passesBy.because());
        }
        case Lookups.Fails fails -> {
          return failed(fails.failure());
        }
      }
    }
    return null;
  }

  private Decision carry() {
    List<Value> parts = matchParts(bridge.match());
    List<TaskDecision> decided = tasks(parts);
    Optional<MatchKey> key =
        parts.size() == bridge.match().size()
            ? Optional.of(MatchKey.of(bridge.definition().id(), parts))
            : Optional.empty();
    if (!notes.failures().isEmpty()) {
      return decision(Verdict.FAILED, key, List.of(), "");
    }
    if (decided.isEmpty()) {
      return decision(
          Verdict.PASSED_BY,
          key,
          List.of(),
          bridge.plan() instanceof CompiledPlan.Set
              ? "it has no anchor day, and nothing was made for it so far"
              : "the list that gives a task each has no items");
    }
    List<TaskDecision> all = new ArrayList<>(decided);
    all.addAll(
        new Effects(tasks, reading, effect -> matchParts(effect.match()))
            .decide(bridge.then(), decided));
    return notes.failures().isEmpty()
        ? decision(verdict(all), key, all, "")
        : decision(Verdict.FAILED, key, List.of(), "");
  }

  /** The tasks; what could not be decided is with the notes, and then the tasks mean nothing. */
  private List<TaskDecision> tasks(List<Value> match) {
    return switch (bridge.plan()) {
      case CompiledPlan.One one -> TasksOfList.one(one, tasks, reading, match);
      case CompiledPlan.EachRecord each -> new TasksOfList(tasks, reading, match).ofRecords(each);
      case CompiledPlan.EachValue each -> new TasksOfList(tasks, reading, match).ofValues(each);
      case CompiledPlan.Set set -> new TaskSet(tasks, reading, match).decide(set, instead);
    };
  }

  /** The values of the match key; fewer than it has parts if one of them is absent. */
  private List<Value> matchParts(List<BoundField> match) {
    List<Value> parts = new ArrayList<>(match.size());
    for (int i = 0; i < match.size(); i++) {
      BoundField part = match.get(i);
      switch (part.read(reading)) {
        case Problem problem -> notes.fail(DecisionNotes.mapping(part.shape().name(), problem));
        case Warned warned -> parts.add(warned.value());
        case Value value when Operator.isBlank(value) ->
            notes.fail(
                Failure.of(
                        FailureKind.MAPPING_ERROR,
                        "The match key has no value for “" + part.shape().name() + "”")
                    .withField(part.shape().name(), "")
                    .withRemedy("Fill the field at its source, then send again"));
        case Value value -> parts.add(value);
      }
    }
    return parts;
  }

  private static Verdict verdict(List<TaskDecision> tasks) {
    Verdict verdict = Verdict.UNCHANGED;
    for (TaskDecision task : tasks) {
      if (task.verdict() == Verdict.CREATE && !task.then()) {
        return Verdict.CREATE;
      }
      if (task.verdict() != Verdict.UNCHANGED) {
        verdict = Verdict.UPDATE;
      }
    }
    return verdict;
  }

  private Decision passedBy(String because) {
    return decision(Verdict.PASSED_BY, Optional.empty(), List.of(), because);
  }

  private Decision failed(Failure failure) {
    notes.fail(failure);
    return decision(Verdict.FAILED, Optional.empty(), List.of(), "");
  }

  private Decision decision(
      Verdict verdict, Optional<MatchKey> key, List<TaskDecision> decided, String because) {
    return decision(verdict, key, decided, because, Optional.empty());
  }

  private Decision decision(
      Verdict verdict,
      Optional<MatchKey> key,
      List<TaskDecision> decided,
      String because,
      Optional<ChoreLook> chore) {
    return new Decision(
        verdict,
        key,
        decided,
        tasks.firstComputed(),
        because,
        notes.failures(),
        notes.warnings(),
        reading.tableUses(),
        lookups.answers(),
        notes.explanation(),
        chore,
        Optional.empty());
  }
}
