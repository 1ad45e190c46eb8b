package org.ysthmos.app.courier;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryMapper.Result;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.sync.SyncedLooks;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.sync.SyncedWaits;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.decide.Explanation;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.gateway.TaskGateway.Delivered;
import org.ysthmos.core.value.Value;

/**
 * Stores what became of deliveries: delivery, pair, story and the end of the trace in one change.
 */
@Component
class DeliveryWriter {

  private final DeliveryQueue queue;
  private final DeliveryMapper deliveries;
  private final TraceMapper traces;
  private final TraceEnds ends;
  private final Pairs pairs;
  private final DeliveryEnd end;
  private final Recalling recalling;
  private final SyncedPairs synced;
  private final SyncedLooks looks;
  private final Journal journal;
  private final AppClock clock;
  private final SyncedWaits waits;
  private final WorkSignals signals;
  private final DeliveryLog log;

  DeliveryWriter(
      DeliveryQueue queue,
      DeliveryMapper deliveries,
      TraceMapper traces,
      TraceEnds ends,
      Pairs pairs,
      DeliveryEnd end,
      Recalling recalling,
      SyncedPairs synced,
      SyncedLooks looks,
      Journal journal,
      AppClock clock,
      SyncedWaits waits,
      WorkSignals signals,
      DeliveryLog log) {
    this.queue = queue;
    this.deliveries = deliveries;
    this.traces = traces;
    this.ends = ends;
    this.pairs = pairs;
    this.end = end;
    this.recalling = recalling;
    this.synced = synced;
    this.looks = looks;
    this.journal = journal;
    this.clock = clock;
    this.waits = waits;
    this.signals = signals;
    this.log = log;
  }

  /** The task exists: written down at once, so that no restart makes a second one. */
  void made(Attempt attempt, String record) {
    DeliveryRow delivery = attempt.delivery();
    journal.run(
        () -> {
          queue.check(attempt.claimed());
          deliveries.made(delivery.seq(), record);
          if (delivery.effectName() == null) {
            traces.made(delivery.traceSeq(), record);
          }
          pairs.made(delivery.bridgeId(), delivery.matchHash(), record, delivery.traceSeq());
          attempt
              .synced()
              .ifPresent(
                  sending -> {
                    synced.made(sending, record);
                    waits.made(sending, byTraceOf(delivery));
                  });
        });
    if (attempt.synced().isPresent()) {
      signals.toDecide().raise();
    }
  }

  /** Who asks for what is looked at because of a delivery. */
  private String byTraceOf(DeliveryRow delivery) {
    return "trace " + log.trace(delivery).id();
  }

  /**
   * @param held what a side of a pair that is kept alike holds now, by the names of its fields
   */
  void delivered(
      Attempt attempt,
      SequencedMap<String, Value> fields,
      Delivered delivered,
      Map<String, Value> held) {
    DeliveryRow delivery = attempt.delivery();
    TraceRow trace = log.trace(delivery);
    Instant now = clock.instant();
    Line kept =
        AttemptWords.plain(
            now,
            Mark.DONE,
            kept(delivery, trace, delivered.record()),
            (delivery.effectName() == null ? "Task " : "Record ")
                + delivered.record()
                + " on "
                + attempt.systemName());
    TraceStory told =
        DeliveryLog.told(attempt, Optional.empty())
            .with(kept)
            .withStored(stored(delivery, delivered));
    Runnable agreed =
        pairs.agreed(
            delivery.bridgeId(),
            delivery.matchHash(),
            delivered,
            fields,
            trace.eventSeq(),
            trace.seq());
    log.store(
        attempt,
        trace,
        told,
        () -> {
          queue.end(attempt.claimed());
          deliveries.end(delivery.seq(), Result.MADE, delivered.record(), now);
          agreed.run();
          attempt
              .synced()
              .ifPresent(
                  sending -> {
                    synced.made(sending, delivered.record());
                    synced.written(sending, held);
                    if (delivery.kind() == EffectKind.CREATE) {
                      looks.made(sending, "trace " + trace.id());
                      waits.made(sending, "trace " + trace.id());
                    }
                  });
          if (attempt.isRecall()) {
            recalling.went(delivery, true);
          } else {
            traces.delivered(
                trace.seq(),
                attempt.claimed().tries(),
                delivery.effectName() == null ? delivered.record() : trace.targetRecord());
          }
          end.ended(attempt, trace, now, Optional.of(delivered.record()));
        });
    log.tellEnd(delivery, Optional.empty());
    signals.toDecide().raise();
    signals.toDeliver().raise();
  }

  /** What the system says it keeps; fields of what comes after a task stand under its name. */
  private static Map<String, String> stored(DeliveryRow delivery, Delivered delivered) {
    if (delivery.effectName() == null) {
      return delivered.storedTexts();
    }
    Map<String, String> stored = new LinkedHashMap<>();
    delivered
        .storedTexts()
        .forEach(
            (field, text) ->
                stored.put(Explanation.ofThen(delivery.effectName()) + "/" + field, text));
    return stored;
  }

  private static String kept(DeliveryRow delivery, TraceRow trace, String record) {
    String key = Optional.ofNullable(trace.matchText()).orElse("");
    if (delivery.effectName() != null) {
      return "Then done: %s, for %s".formatted(delivery.effectName(), key);
    }
    return (trace.isTry() ? "Noted, to be taken back: " : "Pair kept: ")
        + key
        + " and task "
        + record;
  }

  void failed(Attempt attempt, Failure failure) {
    failed(attempt, failure, failure.kind() == FailureKind.ANSWER_UNKNOWN);
  }

  /**
   * @param mayBeThere whether a record may have been made all the same
   */
  void failed(Attempt attempt, Failure failure, boolean mayBeThere) {
    DeliveryRow delivery = attempt.delivery();
    TraceRow trace = log.trace(delivery);
    Instant now = clock.instant();
    Line given =
        AttemptWords.plain(
            now, Mark.FAILED, "Given up: " + failure.kind().words(), Words.sentence(failure));
    log.store(
        attempt,
        trace,
        DeliveryLog.told(attempt, Optional.of(failure)).with(given),
        () -> {
          queue.end(attempt.claimed());
          Result result = GoneTasks.isGone(failure) ? Result.GONE : Result.FAILED;
          deliveries.end(delivery.seq(), result, delivery.recordId(), null);
          attempt.synced().ifPresent(synced::notWritten);
          if (attempt.isRecall()) {
            recalling.failed(delivery, Words.sentence(failure));
          } else {
            failsItsTrace(attempt, trace, failure);
          }
          if (mayBeThere) {
            pairs.inDoubt(delivery.bridgeId(), delivery.matchHash());
            attempt
                .synced()
                .filter(sending -> delivery.kind() == EffectKind.CREATE)
                .filter(sending -> delivery.recordId() == null)
                .ifPresent(sending -> synced.unnamed(sending, delivery.fields()));
          }
          end.ended(attempt, trace, now, Optional.empty());
        });
    log.tellEnd(delivery, Optional.of(failure));
    signals.toDecide().raise();
    signals.toDeliver().raise();
  }

  private void failsItsTrace(Attempt attempt, TraceRow trace, Failure failure) {
    DeliveryRow delivery = attempt.delivery();
    traces.tried(trace.seq(), attempt.claimed().tries(), failure.kind(), Words.sentence(failure));
    ends.deliveryFailed(
        trace.seq(),
        delivery.kind(),
        new CollectionRef(delivery.systemId(), delivery.collectionId()),
        failure);
  }
}
