package org.ysthmos.app.courier;

import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryMapper.Result;
import org.ysthmos.app.guard.Ceilings;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Stories;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.decide.Explanation;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.delivery.Doubt;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.delivery.Promise;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.gateway.TaskGateway.Delivered;
import org.ysthmos.core.guard.Ceiling;
import org.ysthmos.core.reading.Made;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Stores what became of deliveries: delivery, pair, story and the end of the trace in one change.
 */
@Component
class DeliveryWriter {

  private final DeliveryQueue queue;
  private final DeliveryMapper deliveries;
  private final TraceMapper traces;
  private final TraceQueue traceQueue;
  private final TraceEnds ends;
  private final Stories stories;
  private final Pairs pairs;
  private final Bridges bridges;
  private final Ceilings ceilings;
  private final Systems systems;
  private final Journal journal;
  private final AppClock clock;
  private final WorkSignals signals;
  private final LiveFeed feed;
  private final Map<Long, CompletableFuture<Optional<Failure>>> awaited = new ConcurrentHashMap<>();

  DeliveryWriter(
      DeliveryQueue queue,
      DeliveryMapper deliveries,
      TraceMapper traces,
      TraceQueue traceQueue,
      TraceEnds ends,
      Stories stories,
      Pairs pairs,
      Bridges bridges,
      Ceilings ceilings,
      Systems systems,
      Journal journal,
      AppClock clock,
      WorkSignals signals,
      LiveFeed feed) {
    this.queue = queue;
    this.deliveries = deliveries;
    this.traces = traces;
    this.traceQueue = traceQueue;
    this.ends = ends;
    this.stories = stories;
    this.pairs = pairs;
    this.bridges = bridges;
    this.ceilings = ceilings;
    this.systems = systems;
    this.journal = journal;
    this.clock = clock;
    this.signals = signals;
    this.feed = feed;
  }

  /** Tells how a delivery ends: with the failure for which it was given up, or with none. */
  CompletableFuture<Optional<Failure>> whenEnded(long delivery) {
    return awaited.computeIfAbsent(delivery, any -> new CompletableFuture<>());
  }

  private void tellEnd(DeliveryRow delivery, Optional<Failure> failure) {
    Optional.ofNullable(awaited.remove(delivery.seq())).ifPresent(one -> one.complete(failure));
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
          pairs.made(delivery.bridgeId(), delivery.matchHash(), record);
        });
  }

  void delivered(Attempt attempt, SequencedMap<String, Value> fields, Delivered delivered) {
    DeliveryRow delivery = attempt.delivery();
    TraceRow trace = trace(delivery);
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
        told(attempt, Optional.empty()).with(kept).withStored(stored(delivery, delivered));
    Runnable agreed =
        pairs.agreed(
            delivery.bridgeId(), delivery.matchHash(), delivered, fields, trace.eventSeq());
    store(
        attempt,
        trace,
        told,
        () -> {
          queue.end(attempt.claimed());
          deliveries.end(delivery.seq(), Result.MADE, delivered.record(), now);
          traces.delivered(
              trace.seq(),
              attempt.claimed().tries(),
              delivery.effectName() == null ? delivered.record() : trace.targetRecord());
          agreed.run();
          ended(attempt, trace, now, Optional.of(delivered.record()));
        });
    tellEnd(delivery, Optional.empty());
    signals.toDecide().raise();
    signals.toDeliver().raise();
  }

  /** What the system says it keeps; fields of what comes after a task stand under its name. */
  private static Map<String, String> stored(DeliveryRow delivery, Delivered delivered) {
    if (delivery.effectName() == null) {
      return delivered.stored();
    }
    Map<String, String> stored = new LinkedHashMap<>();
    delivered
        .stored()
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

  /** A task was taken away, which ends nothing but this delivery. */
  void removed(Attempt attempt) {
    DeliveryRow delivery = attempt.delivery();
    store(
        attempt,
        trace(delivery),
        told(attempt, Optional.empty()),
        () -> {
          queue.end(attempt.claimed());
          deliveries.end(delivery.seq(), Result.MADE, delivery.recordId(), clock.instant());
        });
    tellEnd(delivery, Optional.empty());
  }

  /**
   * Its task was removed by others: what was to be a change makes it anew, as the bridge says. That
   * counts as a new task; if the ceiling would be passed, the bridge is held and it waits.
   */
  void makesAnew(Attempt attempt, Pairs.Anew anew, Ceiling ceiling) {
    DeliveryRow delivery = attempt.delivery();
    Optional<Ceiling.Passed> passed =
        journal.now(
            () -> ceilings.take(delivery.bridgeId(), ceiling, Map.of(EffectKind.CREATE, 1)));
    if (passed.isPresent()) {
      bridges.holdAtCeiling(delivery.bridgeId(), passed.get());
      journal.run(() -> pauseUncounted(attempt, Doubt.NONE, clock.instant()));
      return;
    }
    Line made =
        AttemptWords.plain(
            clock.instant(),
            Mark.DONE,
            "Others removed task %s; it is made anew".formatted(delivery.recordId()),
            "As the bridge says");
    store(
        attempt,
        trace(delivery),
        told(attempt, Optional.empty()).with(made),
        () -> {
          pairs.gone(delivery.bridgeId(), delivery.matchHash(), gone(delivery));
          deliveries.makesAnew(delivery.seq(), anew.effect(), anew.fields());
          traceQueue.comesTo(delivery.traceSeq(), Verdict.CREATE);
          pauseUncounted(attempt, Doubt.NONE, clock.instant());
        });
    signals.toDeliver().raise();
  }

  /** Its task was removed by others and is left so, as the bridge says. */
  void leaves(Attempt attempt) {
    DeliveryRow delivery = attempt.delivery();
    TraceRow trace = trace(delivery);
    Instant now = clock.instant();
    Line left =
        AttemptWords.plain(
            now,
            Mark.DONE,
            "Others removed task %s; it is left so".formatted(delivery.recordId()),
            "As the bridge says");
    store(
        attempt,
        trace,
        told(attempt, Optional.empty()).with(left),
        () -> {
          queue.end(attempt.claimed());
          deliveries.end(delivery.seq(), Result.LEFT, delivery.recordId(), null);
          pairs.leave(delivery.bridgeId(), delivery.matchHash(), gone(delivery));
          if (deliveries.ofTrace(delivery.traceSeq()).size() == 1) {
            traceQueue.comesTo(delivery.traceSeq(), Verdict.UNCHANGED);
          }
          ended(attempt, trace, now, Optional.of(gone(delivery)));
        });
    tellEnd(delivery, Optional.empty());
    signals.toDecide().raise();
  }

  private static String gone(DeliveryRow delivery) {
    return Objects.requireNonNull(delivery.recordId(), "only a task that was made can be gone");
  }

  /** Tries again at a time. */
  void again(Attempt attempt, int tries, Failure failure, Doubt doubt, Instant until) {
    Instant now = clock.instant();
    TraceRow trace = trace(attempt.delivery());
    String text = failure.retryAfter().isPresent() ? "Waits as told" : "Waits before the next try";
    Line waiting = AttemptWords.waits(now, Duration.between(now, until), text, failure.message());
    store(
        attempt,
        trace,
        told(attempt, Optional.of(failure)).with(waiting),
        () -> {
          queue.pause(attempt.claimed(), tries, attempt.claimed().breaks(), doubt, until);
          traces.tried(
              trace.seq(), attempt.claimed().tries(), failure.kind(), Words.sentence(failure));
        });
  }

  /** Looks again later, as what was asked may still be on its way over there. */
  void looksAgain(Attempt attempt, Doubt doubt, Instant until) {
    Instant now = clock.instant();
    Line waiting =
        AttemptWords.waits(
            now,
            Duration.between(now, until),
            "Waits before looking again",
            "What was sent may still be on its way there");
    store(
        attempt,
        trace(attempt.delivery()),
        told(attempt, Optional.empty()).with(waiting),
        () -> pauseUncounted(attempt, doubt, until));
  }

  /** Puts back what found no room for all of its calls; the calls it made are told. */
  void noRoom(Attempt attempt, Doubt doubt, Instant until) {
    store(
        attempt,
        trace(attempt.delivery()),
        told(attempt, Optional.empty()),
        () -> pauseUncounted(attempt, doubt, until));
  }

  private void pauseUncounted(Attempt attempt, Doubt doubt, Instant until) {
    queue.pause(
        attempt.claimed(), attempt.claimed().tries(), attempt.claimed().breaks(), doubt, until);
  }

  /** Puts back what broke through a fault of ours. */
  void brokeHere(Attempt attempt, int breaks, Doubt doubt, Instant until) {
    journal.run(
        () -> queue.pause(attempt.claimed(), attempt.claimed().tries(), breaks, doubt, until));
  }

  void failed(Attempt attempt, Failure failure) {
    DeliveryRow delivery = attempt.delivery();
    TraceRow trace = trace(delivery);
    Instant now = clock.instant();
    Line given =
        AttemptWords.plain(
            now, Mark.FAILED, "Given up: " + failure.kind().words(), Words.sentence(failure));
    store(
        attempt,
        trace,
        told(attempt, Optional.of(failure)).with(given),
        () -> {
          queue.end(attempt.claimed());
          Result result = GoneTasks.isGone(failure) ? Result.GONE : Result.FAILED;
          deliveries.end(delivery.seq(), result, delivery.recordId(), null);
          traces.tried(
              trace.seq(), attempt.claimed().tries(), failure.kind(), Words.sentence(failure));
          ends.deliveryFailed(
              trace.seq(),
              delivery.kind(),
              new CollectionRef(delivery.systemId(), delivery.collectionId()),
              failure);
          if (failure.kind() == FailureKind.ANSWER_UNKNOWN) {
            pairs.inDoubt(delivery.bridgeId(), delivery.matchHash());
          }
          ended(attempt, trace, now, Optional.empty());
        });
    tellEnd(delivery, Optional.of(failure));
    signals.toDecide().raise();
    signals.toDeliver().raise();
  }

  /** What waited for a task gets its id and can be made. */
  private void letWaitingGo(DeliveryRow made, String record) {
    if (made.effectName() == null) {
      fillEffects(made, record);
    }
    for (DeliveryRow next : queue.awaiting(made.bridgeId(), made.matchHash())) {
      if (next.parentField() != null) {
        fillParent(next, next.parentField(), record);
      }
      queue.parentMade(next);
    }
  }

  private void fillParent(DeliveryRow child, String field, String record) {
    SequencedMap<String, Value> fields = new LinkedHashMap<>(pairs.fields(child.fields()));
    ValueType type =
        systems
            .find(child.systemId(), child.collectionId())
            .flatMap(shape -> shape.field(field))
            .map(FieldShape::type)
            .orElse(ValueType.TEXT);
    fields.put(field, Constant.parse(record, type));
    deliveries.fill(child.seq(), pairs.bytes(fields));
  }

  /** What comes after a task can name its id and its link now. */
  private void fillEffects(DeliveryRow task, String record) {
    Made made = Made.of(record, systems.page(task.systemId(), task.collectionId(), record));
    for (DeliveryRow effect : deliveries.ofTrace(task.traceSeq())) {
      if (effect.effectName() != null && effect.result() == Result.OPEN) {
        SequencedMap<String, Value> fields = new LinkedHashMap<>(pairs.fields(effect.fields()));
        SequencedMap<String, Value> filled = new LinkedHashMap<>(fields);
        filled.replaceAll((field, value) -> made.filled(value));
        if (!filled.equals(fields)) {
          deliveries.fill(effect.seq(), pairs.bytes(filled));
        }
      }
    }
  }

  /** What waits for a task that could not be made is not made either; sending again makes both. */
  private void failChildren(DeliveryRow parent) {
    for (DeliveryRow child : queue.awaiting(parent.bridgeId(), parent.matchHash())) {
      queue.parentFailed(child);
      deliveries.end(child.seq(), Result.FAILED, null, null);
      failChildren(child);
    }
  }

  /**
   * The pair is free, as no two deliveries for one are under way; what belongs under the task goes
   * or fails with it; and the trace ends with its last delivery.
   *
   * @param made the task that was made or changed; empty if it failed
   */
  private void ended(Attempt attempt, TraceRow trace, Instant now, Optional<String> made) {
    DeliveryRow delivery = attempt.delivery();
    traceQueue.pairIsFree(attempt.claimed().queue(), delivery.matchHash());
    boolean others = queue.isDelivering(trace.seq());
    if (others) {
      if (made.isPresent() || delivery.effectName() != null) {
        // What comes next does not depend on what came before it, but on the task alone.
        letWaitingGo(delivery, made.orElse(""));
      } else {
        failChildren(delivery);
      }
      others = queue.isDelivering(trace.seq());
    }
    boolean isUnderWay = trace.verdict() == null && delivery.kind() != EffectKind.REMOVE;
    if (isUnderWay && !others) {
      ends.endDelivered(trace, now);
    }
  }

  private static TraceStory told(Attempt attempt, Optional<Failure> failure) {
    return TraceStory.EMPTY.withAll(AttemptWords.lines(attempt, failure));
  }

  private void store(Attempt attempt, TraceRow trace, TraceStory told, Runnable change) {
    byte[] part = stories.pack(told);
    Runnable whole =
        () -> {
          change.run();
          stories.add(trace.seq(), part);
        };
    if (isFoundAgain(attempt.delivery())) {
      // A kill that undoes it leaves the delivery in doubt, and a look finds what became of it.
      journal.runSoon(whole);
    } else {
      journal.run(whole);
    }
    feed.changed(attempt.delivery().bridgeId(), trace.id());
  }

  private boolean isFoundAgain(DeliveryRow delivery) {
    return !delivery.kind().doublesWhenRepeated()
        || systems
            .collection(delivery.systemId(), delivery.collectionId())
            .filter(collection -> collection.promise() == Promise.FOUND_BY_KEY)
            .isPresent();
  }

  private TraceRow trace(DeliveryRow delivery) {
    return Optional.ofNullable(traces.at(delivery.traceSeq()))
        .orElseThrow(
            () -> new IllegalStateException("a delivery without its trace: " + delivery.seq()));
  }
}
