package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.decide.SyncReads.Read;
import org.ysthmos.core.decide.SyncReads.Stopped;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.OnceWritten;
import org.ysthmos.core.sync.Reconciler;
import org.ysthmos.core.sync.Reconciliation;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.sync.SyncField;
import org.ysthmos.core.sync.TaskNow;
import org.ysthmos.core.value.Value;

/**
 * Decides the events of a bridge that goes both ways. An event only says when to look: both tasks
 * are read as they stand now and held against what they agreed on last.
 */
final class SyncDecider {

  /** How long a task waits for its parent that is being made, before it is made without. */
  private static final Duration LONGEST_FOR_ANOTHER = Duration.ofMinutes(10);

  private final BridgeVersion bridge;
  private final CompiledTwoWay both;
  private final Event event;
  private final World world;
  private final DecisionNotes notes;
  private final SyncTasks tasks;
  private final SyncReads reads;
  private @Nullable Reading reading;

  SyncDecider(BridgeVersion bridge, Event event, World world, DecisionNotes notes) {
    this.bridge = bridge;
    this.both = bridge.between().orElseThrow();
    this.event = event;
    this.world = world;
    this.notes = notes;
    this.tasks = new SyncTasks(id(), both, event, world);
    this.reads = new SyncReads(both, world);
  }

  Decision decide() {
    try {
      Side from = both.from();
      Optional<String> meets = Look.of(event).meets();
      if (meets.isPresent()) {
        return met(from, meets.get());
      }
      Optional<World.SyncedPair> known = world.synced(id(), from, event.record());
      // Nothing of the task comes with a look.
      boolean told = known.isEmpty() && !event.kind().equals(Look.KIND);
      Optional<Decision> early = told ? early(from) : Optional.empty();
      if (early.isPresent()) {
        return early.get();
      }
      Read here = reads.read(from, event.record());
      Optional<World.SyncedPair> pair =
          known.or(() -> new SyncUnnamed(id(), both, world).pairOf(event.record(), here));
      return pair.isPresent() ? known(pair.get(), here) : unknown(from, here);
    } catch (Stopped stopped) {
      notes.fail(stopped.failure());
      return decision(Verdict.FAILED, Optional.empty(), List.of(), "", Optional.empty());
    }
  }

  /** What need not be read, as what came with the event says that it is not made across. */
  private Optional<Decision> early(Side from) {
    return both.place(from)
        .early()
        .map(when -> when.ask(Reading.of(event, world), null))
        .filter(CompiledCondition.Known.class::isInstance)
        .map(CompiledCondition.Known.class::cast)
        .filter(answer -> !answer.met())
        .map(answer -> passedBy(answer.because()));
  }

  private String id() {
    return bridge.definition().id();
  }

  /**
   * What the rules read from: the record as it stands now, in place of what came with the event.
   */
  private Reading reading(JsonNode record) {
    Event now =
        new Event(
            event.id(),
            event.system(),
            event.collection(),
            event.kind(),
            event.record(),
            event.time(),
            record);
    Reading made = Reading.of(now, world);
    reading = made;
    return made;
  }

  /** The record is of no pair so far. */
  private Decision unknown(Side from, Read here) throws Stopped {
    if (here.record().isEmpty()) {
      return nothingMade();
    }
    JsonNode record = here.record().get();
    Reading now = reading(record);
    switch (both.place(from).when().ask(now, notes.tests())) {
      case CompiledCondition.Unknown unknown ->
          throw new Stopped(
              DecisionNotes.mapping(unknown.field().shape().name(), unknown.problem()));
      case CompiledCondition.Known met when !met.met() -> {
        return passedBy(met.because());
      }
      case CompiledCondition.Known met -> {}
    }
    if (!both.place(from).rule().begins()) {
      return passedBy("what begins here is not made on the other side");
    }
    MatchKey key = Synced.key(id(), from, event.record());
    return make(key, from, event.record(), record, now);
  }

  /**
   * There is no task, and nothing was made of it. Unless that was told, somebody should know: an
   * address that is wrong, or a right that is lacking, looks the same.
   */
  private Decision nothingMade() throws Stopped {
    if (SyncGone.isTold(both.from(), both, event)) {
      return passedBy("it was removed, and nothing was made of it");
    }
    throw new Stopped(reads.notThere(both.from(), event.record()));
  }

  /**
   * Makes the task of the other side.
   *
   * @param from the side of the task that is there
   */
  private Decision make(MatchKey key, Side from, String id, JsonNode record, Reading now)
      throws Stopped {
    Map<String, Value> values = reads.values(from, id, record);
    SyncMaking.Made made =
        new SyncMaking(both.seenFrom(from), notes, tasks, within(now), isYoung())
            .make(key, id, values);
    if (!notes.failures().isEmpty()) {
      return decision(Verdict.FAILED, Optional.of(key), List.of(), "", Optional.empty());
    }
    TaskDecision task = made.task();
    return decision(
        task.verdict(),
        Optional.of(key),
        List.of(task),
        task.because(),
        Optional.of(made.synced()));
  }

  /** A person says that two tasks are the same. */
  private Decision met(Side from, String other) throws Stopped {
    return switch (new SyncMeeting(id(), both, world).of(event.record(), other)) {
      case SyncMeeting.Known known -> known(known.pair(), reads.read(from, event.record()));
      case SyncMeeting.InPair taken -> throw new Stopped(taken.failure());
      case SyncMeeting.Fresh fresh -> {
        Side to = from.across();
        Read here = reads.read(from, event.record());
        Read there = reads.read(to, other);
        if (here.record().isEmpty()) {
          throw new Stopped(reads.notThere(from, event.record()));
        }
        if (there.record().isEmpty()) {
          throw new Stopped(reads.notThere(to, other));
        }
        Both<Read> read = Both.by(side -> side == from ? here : there);
        yield reconcile(fresh.pair(), read, reading(here.record().get()));
      }
    };
  }

  private Decision known(World.SyncedPair pair, Read here) throws Stopped {
    if (pair.parted().isPresent()) {
      return passedBy("its pair was parted: " + pair.parted().get());
    }
    Optional<String> stays = tasks.stays(pair.key());
    if (stays.isPresent()) {
      return passedBy(stays.get());
    }
    Side from = both.from();
    Side to = from.across();
    Optional<String> partner = pair.records().of(to);
    if (here.record().isEmpty()) {
      return partner.isEmpty() ? nothingMade() : gone(pair, from, reads.read(to, partner.get()));
    }
    JsonNode record = here.record().get();
    Reading now = reading(record);
    if (partner.isEmpty()) {
      return make(pair.key(), from, event.record(), record, now);
    }
    Read there = reads.read(to, partner.get());
    if (there.record().isEmpty()) {
      return gone(pair, to, here);
    }
    Both<Read> read = Both.by(side -> side == from ? here : there);
    return reconcile(pair, read, now);
  }

  private Decision reconcile(World.SyncedPair pair, Both<Read> read, Reading now) throws Stopped {
    TaskNow left = reads.taskNow(pair, Side.LEFT, read.left());
    TaskNow right = reads.taskNow(pair, Side.RIGHT, read.right());
    CompiledTwoWay.Within within = within(now);
    List<SyncField> fields = both.fields().stream().map(one -> one.synced(within)).toList();
    Reconciler reconciler = new Reconciler(fields);
    Reconciliation result =
        Look.of(event)
            .leads()
            .map(side -> reconciler.follow(pair.agreed(), left, right, side))
            .orElseGet(() -> reconciler.reconcile(pair.agreed(), left, right, pair.answers()));
    for (FieldOutcome outcome : result.outcomes()) {
      if (outcome instanceof FieldOutcome.Failed failed) {
        notes.fail(DecisionNotes.mapping(failed.field(), failed.problem()));
      }
    }
    if (!notes.failures().isEmpty()) {
      return decision(Verdict.FAILED, Optional.of(pair.key()), List.of(), "", Optional.empty());
    }
    Both<TaskNow> stand = new Both<>(left, right);
    Side from = both.from();
    List<TaskDecision> decided = new ArrayList<>(2);
    for (Side side : List.of(from.across(), from)) {
      decided.add(
          tasks.task(
              pair.key(),
              side,
              pair.records().of(side),
              tasks.whole(side, stand.of(side), result.writes(side)),
              tasks.keyed(side, result.writes(side)),
              read.of(side).tag()));
    }
    List<Synced.Disagreement> conflicts = Synced.Disagreement.of(result, pair.agreed());
    Synced synced =
        new Synced(
            pair.key(),
            from,
            pair.records(),
            result.atOnce(),
            new OnceWritten(
                Both.by(result::heldOnceWritten),
                Both.by(side -> Set.copyOf(result.writes(side).keySet())),
                Set.of()),
            result.outcomes().stream()
                .filter(outcome -> !(outcome instanceof FieldOutcome.Unchanged))
                .toList(),
            conflicts,
            Synced.Awaited.of(result.outcomes()),
            Optional.empty());
    boolean writes = decided.stream().anyMatch(task -> task.delivery().isPresent());
    return decision(
        writes ? Verdict.UPDATE : Verdict.UNCHANGED,
        Optional.of(pair.key()),
        decided,
        writes || conflicts.isEmpty() ? "" : "both sides disagree, and a person is asked",
        Optional.of(synced));
  }

  /** Whether a task that it names and that is being made just now is waited for. */
  private boolean isYoung() {
    return world.waits(event, LONGEST_FOR_ANOTHER);
  }

  private CompiledTwoWay.Within within(Reading now) {
    return new CompiledTwoWay.Within(now, notes, new SyncPartners(id(), world));
  }

  /**
   * One task of a pair is gone.
   *
   * @param gone the side that lacks it
   * @param left the task of the other, if that is there
   */
  private Decision gone(World.SyncedPair pair, Side gone, Read left) throws Stopped {
    boolean told = SyncGone.isTold(gone, both, event) || Look.of(event).gone().isPresent();
    if (left.record().isEmpty() && told) {
      return parted(pair, "both tasks are gone", Optional.empty());
    }
    TaskNow remaining =
        left.record().isPresent()
            ? reads.taskNow(pair, gone.across(), left)
            : new TaskNow(Map.of(), Optional.empty());
    return switch (new SyncGone(both, event, world, tasks).of(pair, gone, remaining, left.tag())) {
      case SyncGone.Parts parts -> parted(pair, parts.why(), parts.last());
      case SyncGone.MadeAgain again -> {
        Side of = gone.across();
        JsonNode record = left.record().orElseThrow();
        String id = pair.records().of(of).orElseThrow();
        yield make(pair.key(), of, id, record, reading(record));
      }
      case SyncGone.Fails fails -> throw new Stopped(fails.failure());
    };
  }

  private Decision parted(World.SyncedPair pair, String why, Optional<TaskDecision> last) {
    Synced synced =
        new Synced(
            pair.key(),
            both.from(),
            pair.records(),
            pair.agreed(),
            last.map(task -> OnceWritten.parting(Synced.sideOf(task.member()), why))
                .orElse(OnceWritten.NOTHING),
            List.of(),
            List.of(),
            List.of(),
            Optional.of(why));
    boolean writes = last.flatMap(TaskDecision::delivery).isPresent();
    return decision(
        writes ? Verdict.UPDATE : Verdict.UNCHANGED,
        Optional.of(pair.key()),
        last.stream().toList(),
        writes ? "" : "the two are a pair no more, as " + why,
        Optional.of(synced));
  }

  private Decision passedBy(String because) {
    return decision(Verdict.PASSED_BY, Optional.empty(), List.of(), because, Optional.empty());
  }

  private Decision decision(
      Verdict verdict,
      Optional<MatchKey> key,
      List<TaskDecision> tasks,
      String because,
      Optional<Synced> synced) {
    return new Decision(
        verdict,
        key,
        tasks,
        Map.of(),
        because,
        notes.failures(),
        notes.warnings(),
        reading == null ? List.of() : reading.tableUses(),
        reads.answers(),
        notes.explanation(),
        Optional.empty(),
        synced);
  }
}
