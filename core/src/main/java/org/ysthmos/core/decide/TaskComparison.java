package org.ysthmos.core.decide;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.Warned;

/** What all plans do with a task: compute its fields and hold them against its pair. */
final class TaskComparison {

  /** Why an event that came late writes nothing over what a later one wrote. */
  private static final String LATER_STANDS =
      "a later event has written this task since; nothing older is written over it";

  private static final String NOTHING_TO_CHANGE = "there is no record that it could change";

  private final BridgeVersion bridge;
  private final Event event;
  private final World world;
  private final DecisionNotes notes;
  private Map<String, Value> firstComputed = Map.of();

  TaskComparison(BridgeVersion bridge, Event event, World world, DecisionNotes notes) {
    this.bridge = bridge;
    this.event = event;
    this.world = world;
    this.notes = notes;
  }

  BridgeVersion bridge() {
    return bridge;
  }

  World world() {
    return world;
  }

  String eventId() {
    return event.id();
  }

  DecisionNotes notes() {
    return notes;
  }

  /** The fields of the first task, as far as they could be computed. */
  Map<String, Value> firstComputed() {
    return firstComputed;
  }

  /** The match key of one of several tasks. */
  MatchKey key(List<Value> match, Value member) {
    List<Value> parts = new ArrayList<>(match);
    parts.add(member);
    return key(parts);
  }

  MatchKey key(List<Value> parts) {
    return MatchKey.of(bridge.definition().id(), parts);
  }

  Optional<World.PairState> pair(MatchKey key) {
    return world.pair(bridge.definition().id(), key);
  }

  /** Computes all fields; what cannot be is with the notes. */
  FieldValues compute(List<CompiledField> rules, String member, Reading reading) {
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

  TaskDecision compare(List<CompiledField> rules, String member, MatchKey key, FieldValues fields) {
    return compare(rules, member, key, fields, pair(key));
  }

  TaskDecision compare(
      List<CompiledField> rules,
      String member,
      MatchKey key,
      FieldValues fields,
      Optional<World.PairState> pair) {
    return compare(new Making(bridge.definition().to()), rules, member, key, fields, pair);
  }

  /** Where a task is made, or which record is changed instead. */
  sealed interface At {
    BridgeDefinition.To to();
  }

  /** A task that is made where it is not there. */
  private record Making(BridgeDefinition.To to) implements At {}

  /**
   * A record that is there already.
   *
   * @param id empty where what names it is
   */
  private record Changing(BridgeDefinition.To to, Optional<String> id) implements At {}

  /**
   * @param changed the id of the record that is changed, where none is made; one that cannot be
   *     read is with the notes
   */
  At at(BridgeDefinition.To to, Optional<BoundField> changed, Reading reading) {
    if (changed.isEmpty()) {
      return new Making(to);
    }
    Computed id = changed.get().read(reading);
    if (id instanceof Problem problem) {
      notes.fail(DecisionNotes.mapping(changed.get().shape().name(), problem));
    }
    return new Changing(
        to,
        Optional.of(id)
            .filter(Value.class::isInstance)
            .map(Value.class::cast)
            .filter(value -> !Operator.isBlank(value))
            .map(Value::display));
  }

  /** Holds fields against the pair of a task, or of what comes after it. */
  TaskDecision compare(
      At at,
      List<CompiledField> rules,
      String member,
      MatchKey key,
      FieldValues fields,
      Optional<World.PairState> pair) {
    Optional<String> known = pair.flatMap(World.PairState::target);
    Optional<String> target = at instanceof Changing changing ? changing.id() : known;
    if (at instanceof Changing && target.isEmpty()) {
      return TaskDecision.left(member, key, fields, target, NOTHING_TO_CHANGE);
    }
    if (pair.filter(World.PairState::later).isPresent()) {
      return TaskDecision.left(member, key, fields, target, LATER_STANDS);
    }
    World.Stays stays = pair.map(World.PairState::stays).orElse(World.Stays.NO);
    if (stays != World.Stays.NO) {
      return TaskDecision.left(member, key, fields, target, stays.words());
    }
    // With no task yet, or another one, nothing is agreed on: only what has a value is wanted.
    Map<String, Value> agreed =
        target.isPresent() && target.equals(known)
            ? pair.map(World.PairState::agreed).orElse(Map.of())
            : Map.of();
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
      return TaskDecision.left(member, key, fields, target, "");
    }
    Verdict verdict = target.isPresent() ? Verdict.UPDATE : Verdict.CREATE;
    int anew = pair.map(World.PairState::anew).orElse(0);
    String effect =
        key.effect(target.isPresent() ? "change:" + event.id() : World.PairState.making(anew));
    PlannedDelivery delivery =
        new PlannedDelivery(
            effect,
            at.to().system(),
            collection(at, target.flatMap(id -> pair)),
            target,
            wanted,
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            false);
    return new TaskDecision(member, verdict, key, fields, Optional.of(delivery), "", target, false);
  }

  /**
   * A task is changed where it was made: a table may have come to name another place for what is
   * made from now on.
   */
  private static String collection(At at, Optional<World.PairState> made) {
    return Optional.of(at.to())
        .filter(to -> to.place().isPresent())
        .flatMap(to -> made)
        .flatMap(World.PairState::stands)
        .orElse(at.to().collection());
  }
}
