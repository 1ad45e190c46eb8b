package org.ysthmos.app.courier;

import java.time.Instant;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryMapper.Result;
import org.ysthmos.app.guard.Ceilings;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.sync.SyncedLooks;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.delivery.Doubt;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.guard.CeilingWords;

/** Stores what becomes of deliveries whose task others removed or changed meanwhile. */
@Component
class ByOthersWriter {

  private final DeliveryQueue queue;
  private final DeliveryMapper deliveries;
  private final DeliveryEnd end;
  private final DeliveryLog log;
  private final DeliveryPauses pauses;
  private final TraceMapper traces;
  private final TraceQueue traceQueue;
  private final Pairs pairs;
  private final Bridges bridges;
  private final Ceilings ceilings;
  private final SyncedPairs synced;
  private final SyncedLooks looks;
  private final Journal journal;
  private final AppClock clock;
  private final WorkSignals signals;

  ByOthersWriter(
      DeliveryQueue queue,
      DeliveryMapper deliveries,
      DeliveryEnd end,
      DeliveryLog log,
      DeliveryPauses pauses,
      TraceMapper traces,
      TraceQueue traceQueue,
      Pairs pairs,
      Bridges bridges,
      Ceilings ceilings,
      SyncedPairs synced,
      SyncedLooks looks,
      Journal journal,
      AppClock clock,
      WorkSignals signals) {
    this.queue = queue;
    this.deliveries = deliveries;
    this.end = end;
    this.log = log;
    this.pauses = pauses;
    this.traces = traces;
    this.traceQueue = traceQueue;
    this.pairs = pairs;
    this.bridges = bridges;
    this.ceilings = ceilings;
    this.synced = synced;
    this.looks = looks;
    this.journal = journal;
    this.clock = clock;
    this.signals = signals;
  }

  /**
   * Its task was removed by others: what was to be a change makes it anew, as the bridge says. That
   * counts as a new task; if the ceiling would be passed, the bridge is held and it waits.
   */
  void makesAnew(Attempt attempt, Pairs.Anew anew, Ceiling ceiling) {
    DeliveryRow delivery = attempt.delivery();
    long letThrough = bridges.live(delivery.bridgeId()).map(Bridges.Live::letThrough).orElse(0L);
    Optional<Ceiling.Passed> passed =
        journal.now(
            () -> ceilings.take(delivery.bridgeId(), ceiling, Map.of(EffectKind.CREATE, 1)));
    if (passed.isPresent()) {
      bridges.holdItself(delivery.bridgeId(), CeilingWords.because(passed.get()), letThrough);
      journal.run(() -> pauses.uncounted(attempt, Doubt.NONE, clock.instant()));
      return;
    }
    Line made =
        AttemptWords.plain(
            clock.instant(),
            Mark.DONE,
            "Others removed task %s; it is made anew".formatted(delivery.recordId()),
            "As the bridge says");
    log.store(
        attempt,
        log.trace(delivery),
        DeliveryLog.told(attempt, Optional.empty()).with(made),
        () -> {
          pairs.gone(delivery.bridgeId(), delivery.matchHash(), gone(delivery));
          deliveries.makesAnew(delivery.seq(), anew.effect(), anew.fields());
          traceQueue.comesTo(delivery.traceSeq(), Verdict.CREATE);
          pauses.uncounted(attempt, Doubt.NONE, clock.instant());
        });
    signals.toDeliver().raise();
  }

  /** Its task was removed by others and is left so, as the bridge says. */
  void leaves(Attempt attempt) {
    DeliveryRow delivery = attempt.delivery();
    TraceRow trace = log.trace(delivery);
    Instant now = clock.instant();
    Line left =
        AttemptWords.plain(
            now,
            Mark.DONE,
            "Others removed task %s; it is left so".formatted(delivery.recordId()),
            "As the bridge says");
    log.store(
        attempt,
        trace,
        DeliveryLog.told(attempt, Optional.empty()).with(left),
        () -> {
          queue.end(attempt.claimed());
          deliveries.end(delivery.seq(), Result.LEFT, delivery.recordId(), null);
          pairs.leave(delivery.bridgeId(), delivery.matchHash(), gone(delivery));
          attempt.synced().ifPresent(synced::notWritten);
          if (deliveries.ofTrace(delivery.traceSeq()).size() == 1) {
            traceQueue.comesTo(delivery.traceSeq(), Verdict.UNCHANGED);
          }
          end.ended(attempt, trace, now, Optional.of(gone(delivery)));
        });
    log.tellEnd(delivery, Optional.empty());
    signals.toDecide().raise();
  }

  /**
   * Somebody changed the task after both of its pair were read: nothing is written over that, and
   * both are looked at again.
   */
  void overtaken(Attempt attempt, Failure changed) {
    DeliveryRow delivery = attempt.delivery();
    TraceRow trace = log.trace(delivery);
    Instant now = clock.instant();
    SyncedPairs.Sending sending = attempt.synced().orElseThrow();
    Line again =
        AttemptWords.plain(
            now,
            Mark.DONE,
            "Task %s was changed meanwhile; both are looked at again"
                .formatted(delivery.recordId()),
            "Nothing was written over what is there now");
    log.store(
        attempt,
        trace,
        DeliveryLog.told(attempt, Optional.of(changed)).with(again),
        () -> {
          queue.end(attempt.claimed());
          deliveries.end(delivery.seq(), Result.PASSED, delivery.recordId(), null);
          synced.notWritten(sending);
          if (deliveries.ofTrace(delivery.traceSeq()).size() == 1) {
            traceQueue.comesTo(delivery.traceSeq(), Verdict.UNCHANGED);
          }
          looks.again(
              sending,
              trace.eventSeq(),
              "trace " + trace.id(),
              "Looked at again, as task %s was changed meanwhile".formatted(delivery.recordId()));
          end.ended(attempt, trace, now, Optional.ofNullable(delivery.recordId()));
        });
    log.tellEnd(delivery, Optional.empty());
    signals.toDecide().raise();
    traceQueue.raise();
  }

  private static String gone(DeliveryRow delivery) {
    return Objects.requireNonNull(delivery.recordId(), "only a task that was made can be gone");
  }

  /** A task whose other one is gone was taken away, and they are a pair no more. */
  void removed(Attempt attempt) {
    isGone(attempt, () -> attempt.synced().ifPresent(sending -> synced.written(sending, Map.of())));
  }

  /** A task was taken away as its bridge says; an event that wants it again makes another. */
  void takenAway(Attempt attempt) {
    DeliveryRow delivery = attempt.delivery();
    isGone(attempt, () -> pairs.gone(delivery.bridgeId(), delivery.matchHash(), gone(delivery)));
  }

  private void isGone(Attempt attempt, Runnable with) {
    DeliveryRow delivery = attempt.delivery();
    TraceRow trace = log.trace(delivery);
    Instant now = clock.instant();
    Optional<String> record = Optional.of(gone(delivery));
    log.store(
        attempt,
        trace,
        DeliveryLog.told(attempt, Optional.empty()),
        () -> {
          queue.end(attempt.claimed());
          deliveries.end(delivery.seq(), Result.MADE, delivery.recordId(), now);
          with.run();
          traces.delivered(trace.seq(), attempt.claimed().tries(), delivery.recordId());
          end.ended(attempt, trace, now, record);
        });
    log.tellEnd(delivery, Optional.empty());
    signals.toDecide().raise();
  }
}
