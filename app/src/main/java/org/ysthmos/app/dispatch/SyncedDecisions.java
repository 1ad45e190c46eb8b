package org.ysthmos.app.dispatch;

import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.dispatch.DecisionWriter.Deciding;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.sync.SyncedHistory;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.sync.SyncedWaits;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.PlannedDelivery;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Value;

/**
 * Stores what bridges that go both ways come to for their pairs; what is of other bridges, or tried
 * from the desk, passes.
 */
@Component
class SyncedDecisions {

  private final SyncedPairs pairs;
  private final SyncedWaits waits;
  private final SyncedHistory history;
  private final Pairs tasks;

  SyncedDecisions(SyncedPairs pairs, SyncedWaits waits, SyncedHistory history, Pairs tasks) {
    this.pairs = pairs;
    this.tasks = tasks;
    this.waits = waits;
    this.history = history;
  }

  private static Optional<Synced> of(Deciding deciding) {
    return deciding.trace().isTry() ? Optional.empty() : deciding.decision().synced();
  }

  /**
   * Keeps what a decision comes to for its pair; inside the change that stores it.
   *
   * @param title of its trace
   * @return false if another changed the pair since the decision saw it
   */
  boolean keep(Deciding deciding, String title) {
    return of(deciding).map(synced -> keep(deciding, synced, title)).orElse(true);
  }

  private boolean keep(Deciding deciding, Synced synced, String title) {
    SyncedPairs.Seen seen = deciding.world().syncedSeen();
    boolean kept =
        pairs.keep(
            new SyncedPairs.Looked(
                synced, seen, title(deciding, title), deciding.row().seq(), deciding.trace().seq()),
            deciding.carried().stream().anyMatch(task -> task.delivery().isPresent()));
    if (kept) {
      CompiledTwoWay both = deciding.bridge().between().orElseThrow();
      nameTasks(synced, seen, deciding.trace().seq());
      history.keep(synced, seen.pair(), both, deciding.trace().seq());
      if (both.namesTasks()) {
        waits.keep(synced, seen.pair(), "trace " + deciding.trace().id());
      }
    }
    return kept;
  }

  /** A task that was made from here, though no answer said so, is known by its id from now on. */
  private void nameTasks(Synced synced, SyncedPairs.Seen seen, long trace) {
    MatchKey key = synced.key();
    for (Side side : Side.values()) {
      boolean had = seen.pair().flatMap(pair -> pair.records().of(side)).isPresent();
      if (seen.pair().isPresent() && !had) {
        synced
            .records()
            .of(side)
            .ifPresent(
                record -> {
                  pairs.named(key.bridge(), side, key.hash());
                  tasks.made(key.bridge(), Synced.taskKey(key, side).hash(), record, trace);
                });
      }
    }
  }

  /** As the left side calls it, so that a pair does not change its name with who told of it. */
  private static String title(Deciding deciding, String otherwise) {
    return deciding.decision().tasks().stream()
        .filter(task -> Synced.sideOf(task.member()) == Side.LEFT)
        .flatMap(
            task ->
                deciding.bridge().between().stream()
                    .map(both -> both.place(Side.LEFT).shape().titleField())
                    .flatMap(field -> Stream.ofNullable(task.fields().get(field))))
        .map(Value::display)
        .findFirst()
        .map(title -> Words.limited(title, 300))
        .orElse(otherwise);
  }

  /** Notes to which side a delivery goes; inside the change that stores it. */
  void sends(Deciding deciding, long delivery, MatchKey key, PlannedDelivery planned) {
    of(deciding)
        .ifPresent(synced -> pairs.sends(delivery, synced, sideOf(deciding, key), planned.tag()));
  }

  private static Side sideOf(Deciding deciding, MatchKey key) {
    return deciding.decision().tasks().stream()
        .filter(task -> task.key().equals(key))
        .map(task -> Synced.sideOf(task.member()))
        .findFirst()
        .orElseThrow();
  }

  /** What a task comes from: the event's record, or where that is the task itself its other one. */
  static Event sourceOf(Deciding deciding, TaskDecision task) {
    Event event = deciding.event();
    Optional<Synced> synced = deciding.decision().synced();
    Optional<Side> here = deciding.bridge().between().map(CompiledTwoWay::from);
    if (synced.isEmpty() || Synced.sideOf(task.member()) != here.orElseThrow()) {
      return event;
    }
    return new Event(
        event.id(),
        deciding.bridge().target().system(),
        deciding.bridge().target().collection(),
        event.kind(),
        synced.get().records().of(here.get().across()).orElse(""),
        event.time(),
        event.data());
  }
}
