package org.ysthmos.app.courier;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryMapper.Result;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Stories;
import org.ysthmos.app.trace.StoryWriter;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.who.By;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.delivery.Doubt;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.RemoteCall;

/**
 * Takes back what a try made: by deliveries of their own, which go through the courier like all
 * others. Taking away a task that is gone already counts as taken away, so that a second press
 * after a lost answer does no harm.
 */
@Component
class TakeBack {

  /** How long a person is kept waiting; what is not done by then goes on by itself. */
  private static final Duration LONGEST_WAIT = Duration.ofSeconds(20);

  private final TraceMapper traces;
  private final DeliveryMapper deliveries;
  private final DeliveryQueue queue;
  private final DeliveryLog log;
  private final TaskLooks looks;
  private final Systems systems;
  private final Stories stories;
  private final Journal journal;
  private final AppClock clock;
  private final WorkSignals signals;
  private final LiveFeed feed;

  TakeBack(
      TraceMapper traces,
      DeliveryMapper deliveries,
      DeliveryQueue queue,
      DeliveryLog log,
      TaskLooks looks,
      Systems systems,
      Stories stories,
      Journal journal,
      AppClock clock,
      WorkSignals signals,
      LiveFeed feed) {
    this.traces = traces;
    this.deliveries = deliveries;
    this.queue = queue;
    this.log = log;
    this.looks = looks;
    this.systems = systems;
    this.stories = stories;
    this.journal = journal;
    this.clock = clock;
    this.signals = signals;
    this.feed = feed;
  }

  /**
   * Takes the tasks of a try away, the last made first, so that no parent goes before its children.
   *
   * @param evenIfTouched whether a task goes that someone worked on since
   * @throws ApiProblem if something stays; what is gone by then is told in the story
   */
  synchronized void run(String id, boolean evenIfTouched, By by) {
    TraceRow trace =
        Optional.ofNullable(traces.find(id)).orElseThrow(() -> ApiProblem.notFound("trace", id));
    if (!trace.isTry()) {
      throw refused("No try", "Only what a try made is taken back here.");
    }
    if (trace.verdict() == null) {
      throw refused("Still under way", "The try is not finished; take it back when it is.");
    }
    if (trace.takenBackAt() != null) {
      return;
    }
    boolean underWay =
        deliveries.ofTrace(trace.seq()).stream().anyMatch(one -> one.result() == Result.OPEN);
    if (underWay) {
      throw refused(
          "Not taken back yet", "It is being taken back already; the trace tells how it goes.");
    }
    for (DeliveryRow made : toRemove(trace)) {
      if (!evenIfTouched) {
        refuseIfTouched(trace, made);
      }
      remove(trace, made, by);
    }
    journal.run(() -> traces.takenBack(trace.seq(), clock.instant()));
    feed.changed(trace.bridgeId(), id);
  }

  /** What the try made and is not taken away yet, the last made first. */
  private List<DeliveryRow> toRemove(TraceRow trace) {
    Map<String, DeliveryRow> there = new LinkedHashMap<>();
    for (DeliveryRow delivery : deliveries.ofTrace(trace.seq())) {
      String record = delivery.recordId();
      if (record == null) {
        continue;
      }
      String where = delivery.systemId() + "/" + delivery.collectionId() + "/" + record;
      if (delivery.kind() == EffectKind.REMOVE && delivery.result() == Result.MADE) {
        there.remove(where);
      } else if (delivery.kind() != EffectKind.REMOVE) {
        there.putIfAbsent(where, delivery);
      }
    }
    return new ArrayList<>(there.values()).reversed();
  }

  private void remove(TraceRow trace, DeliveryRow made, By by) {
    long seq =
        journal.now(
            () -> {
              long number = queue.number();
              DeliveryRow remove =
                  new DeliveryRow(
                      number,
                      trace.seq(),
                      made.bridgeId(),
                      made.matchHash(),
                      made.systemId(),
                      made.collectionId(),
                      made.idempotencyKey(),
                      EffectKind.REMOVE,
                      made.recordId(),
                      KeptFields.write(Map.of()),
                      null,
                      null,
                      Result.OPEN,
                      null);
              queue.add(remove, TraceRow.TRIES, Doubt.NONE, null);
              stories.add(trace.seq(), stories.pack(asked(made, by)));
              return number;
            });
    CompletableFuture<Optional<Failure>> ended = log.whenEnded(seq);
    signals.toDeliver().raise();
    try {
      Optional<Failure> failure = ended.get(LONGEST_WAIT.toMillis(), TimeUnit.MILLISECONDS);
      if (failure.isPresent()) {
        throw refused("Not taken back", Words.sentence(failure.get()));
      }
    } catch (TimeoutException e) {
      throw refused(
          "Not taken back yet",
          "It is still being tried; the trace tells how it goes. Take it back again later.");
    } catch (ExecutionException e) {
      throw new IllegalStateException("the end of a delivery is never exceptional", e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw refused("Not taken back yet", "We are stopping; it goes on at the next start.");
    }
  }

  private TraceStory asked(DeliveryRow made, By by) {
    return TraceStory.EMPTY.with(
        AttemptWords.plain(
            clock.instant(),
            Mark.DONE,
            "Task " + made.recordId() + " is to be taken back",
            "Asked for by a " + by.name()));
  }

  private void refuseIfTouched(TraceRow trace, DeliveryRow made) {
    String record = Optional.ofNullable(made.recordId()).orElseThrow();
    Systems.Connected system =
        systems
            .find(made.systemId())
            .orElseThrow(() -> ApiProblem.notFound("system", made.systemId()));
    List<RemoteCall> calls = new ArrayList<>();
    TaskLooks.Look look = looks.look(made.systemId(), made.collectionId(), record, calls::add);
    if (!(look instanceof TaskLooks.Changed)) {
      return;
    }
    List<Line> lines =
        calls.stream()
            .map(
                call ->
                    StoryWriter.line(
                        call,
                        Mark.DONE,
                        "Looked at the task at " + system.description().name(),
                        "someone changed it since"))
            .toList();
    byte[] part = stories.pack(TraceStory.EMPTY.withAll(lines));
    journal.run(() -> stories.add(trace.seq(), part));
    feed.changed(trace.bridgeId(), trace.id());
    throw refused(
        "Changed since",
        "Someone changed task %s at %s since it was made. It stays until you say that it goes all the same."
            .formatted(record, system.description().name()));
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, title, detail);
  }
}
