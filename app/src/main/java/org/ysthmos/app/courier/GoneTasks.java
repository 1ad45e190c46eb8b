package org.ysthmos.app.courier;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.DeliveryMapper.Result;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.store.KeptFields;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Resender;
import org.ysthmos.app.trace.Stories;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeDefinition.IfGone;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.TaskGateway;

/**
 * Tasks that others removed, and that an event wants changed: made anew or left, as their bridge
 * says or as a person does.
 */
@Component
class GoneTasks {

  /** The code of the failure by which a person is asked. */
  static final String CODE = "task-gone";

  private final Bridges bridges;
  private final Pairs pairs;
  private final DeliveryWriter writer;
  private final ByOthersWriter others;
  private final DeliveryMapper deliveries;
  private final TraceMapper traces;
  private final TraceEnds ends;
  private final Resender resender;
  private final Stories stories;
  private final Journal journal;
  private final AppClock clock;
  private final LiveFeed feed;

  GoneTasks(
      Bridges bridges,
      Pairs pairs,
      DeliveryWriter writer,
      ByOthersWriter others,
      DeliveryMapper deliveries,
      TraceMapper traces,
      TraceEnds ends,
      Resender resender,
      Stories stories,
      Journal journal,
      AppClock clock,
      LiveFeed feed) {
    this.bridges = bridges;
    this.pairs = pairs;
    this.writer = writer;
    this.others = others;
    this.deliveries = deliveries;
    this.traces = traces;
    this.ends = ends;
    this.resender = resender;
    this.stories = stories;
    this.journal = journal;
    this.clock = clock;
    this.feed = feed;
  }

  /**
   * Asks whether a task that could not be changed, as nothing was found, is truly gone: looking for
   * it finds none, in a collection that answers. An address that is wrong proves nothing.
   *
   * @return the failure to go on with: that it is gone, that it cannot be told just now, or what it
   *     was
   */
  Failure look(Attempt attempt, Systems.Connected system, Failure notFound) {
    DeliveryRow delivery = attempt.delivery();
    String record = delivery.recordId();
    if (delivery.kind() != EffectKind.CHANGE
        || notFound.kind() != FailureKind.NOT_FOUND
        || record == null) {
      return notFound;
    }
    SequencedMap<String, String> id = new LinkedHashMap<>();
    id.put("id", record);
    World.LookupAnswer found =
        system.gateway().find(delivery.collectionId(), id, attempt.calls()::add);
    if (found instanceof World.Unanswered unanswered) {
      return orWhatItWas(unanswered.failure(), notFound);
    }
    if (!((World.Found) found).records().isEmpty()) {
      return notFound;
    }
    Optional<Failure> silent = unlessItAnswers(attempt, system, notFound);
    return silent.isPresent()
        ? orWhatItWas(silent.get(), notFound)
        : Failure.of(
                FailureKind.NOT_FOUND,
                "Task %s is not at %s any more; others removed it"
                    .formatted(record, attempt.systemName()))
            .withCode(CODE)
            .withRemedy("Make it anew, or leave it so");
  }

  /** Empty if the collection answers a question that has nothing to do with the task. */
  private static Optional<Failure> unlessItAnswers(
      Attempt attempt, Systems.Connected system, Failure notFound) {
    DeliveryRow delivery = attempt.delivery();
    SystemCollection collection = system.description().collection(delivery.collectionId());
    if (collection.lists().isPresent()) {
      return system.gateway().list(delivery.collectionId(), 1, attempt.calls()::add)
              instanceof World.Unanswered unanswered
          ? Optional.of(unanswered.failure())
          : Optional.empty();
    }
    return switch (system
        .gateway()
        .findByKey(delivery.collectionId(), delivery.idempotencyKey(), attempt.calls()::add)) {
      case TaskGateway.Searched searched -> Optional.empty();
      case TaskGateway.Unsearched unsearched -> Optional.of(unsearched.failure());
      case TaskGateway.Unsearchable nowhere -> Optional.of(notFound);
    };
  }

  /** What passes by itself is tried again; otherwise nothing is known but what it was. */
  private static Failure orWhatItWas(Failure asked, Failure notFound) {
    return asked.kind().retriesByItself() ? asked : notFound;
  }

  static boolean isGone(Failure failure) {
    return failure.code().filter(CODE::equals).isPresent();
  }

  /** Does what the bridge says about a task that is gone. */
  void settle(Attempt attempt, Failure gone) {
    DeliveryRow delivery = attempt.delivery();
    Optional<Bridges.Live> live = saysWhat(attempt);
    switch (live.map(one -> one.version().definition().to().ifGone()).orElse(IfGone.ASK)) {
      case ASK -> writer.failed(attempt, gone);
      case MAKE_ANEW ->
          others.makesAnew(
              attempt,
              pairs.anew(
                  delivery.bridgeId(), delivery.matchHash(), KeptFields.read(delivery.fields())),
              live.orElseThrow().ceiling());
      case LEAVE -> others.leaves(attempt);
    }
  }

  /**
   * The bridge that says what is done about a task that is gone; empty where a person is asked. Of
   * a try nothing else is made than what it was tried for.
   */
  private Optional<Bridges.Live> saysWhat(Attempt attempt) {
    return attempt.claimed().queue().equals(TraceRow.TRIES)
            || attempt.delivery().effectName() != null
        ? Optional.empty()
        : bridges.live(attempt.delivery().bridgeId());
  }

  /**
   * Lets a task be made anew that a trace found gone, with the newest event that waits for it.
   *
   * @return the id of the trace that makes it
   * @throws ApiProblem if the trace did not fail for a task that is gone
   */
  String makeAnew(String id, By by) {
    TraceRow trace = waiting(id);
    List<DeliveryRow> gone = gone(trace);
    if (gone.stream().anyMatch(one -> makesNone(trace, one))) {
      throw refused(
          "What is gone is a record that the bridge changes and never makes. It is not ours to"
              + " make; leave it so.");
    }
    TraceRow newest = Optional.ofNullable(traces.at(ends.newestWaiting(trace))).orElse(trace);
    journal.run(
        () -> {
          gone.forEach(one -> settled(one, pairs::gone));
          tell(trace, "Its task is to be made anew", by);
        });
    feed.changed(trace.bridgeId(), trace.id());
    return resender.resend(newest.id(), by);
  }

  /**
   * Leaves a task as it is that a trace found gone: nothing that comes later makes it again.
   *
   * @throws ApiProblem if the trace did not fail for a task that is gone
   */
  void leave(String id, By by) {
    TraceRow trace = waiting(id);
    List<DeliveryRow> gone = gone(trace);
    journal.run(
        () -> {
          gone.forEach(one -> settled(one, pairs::leave));
          tell(trace, "Its task is left removed", by);
          ends.dealtWith(trace);
        });
    feed.changed(trace.bridgeId(), trace.id());
  }

  /** Whether a delivery changes a record that is not ours to make. */
  private boolean makesNone(TraceRow trace, DeliveryRow delivery) {
    return bridges
        .live(trace.bridgeId())
        .map(live -> live.version().definition())
        .filter(
            bridge ->
                delivery.effectName() == null
                    ? bridge.to().changes()
                    : bridge.then().stream()
                        .filter(effect -> effect.name().equals(delivery.effectName()))
                        .anyMatch(effect -> effect.to().changes()))
        .isPresent();
  }

  /** What becomes of a pair whose task is gone; false if it has another task meanwhile. */
  @FunctionalInterface
  private interface Settling {
    boolean of(String bridge, String hash, String record);
  }

  private static void settled(DeliveryRow gone, Settling how) {
    if (!how.of(gone.bridgeId(), gone.matchHash(), Objects.requireNonNull(gone.recordId()))) {
      throw refused("Its task is another by now; send the newest trace of it again.");
    }
  }

  private TraceRow waiting(String id) {
    TraceRow trace =
        Optional.ofNullable(traces.find(id)).orElseThrow(() -> ApiProblem.notFound("trace", id));
    if (trace.isTry()) {
      throw refused("This was a try; what it was tried for is changed on the desk.");
    }
    if (!ends.waitsForAPerson(trace)) {
      throw refused("Nothing of this trace waits for a person any more.");
    }
    return trace;
  }

  /**
   * The deliveries of a trace that found their task gone. Where the collection could not be asked
   * for it, the only one of a trace counts if it was answered that nothing was found.
   */
  private List<DeliveryRow> gone(TraceRow trace) {
    List<DeliveryRow> all = deliveries.ofTrace(trace.seq());
    boolean only = all.size() == 1 && ends.isNotFound(trace.seq());
    List<DeliveryRow> gone = new ArrayList<>();
    for (DeliveryRow delivery : all) {
      boolean fits =
          delivery.result() == Result.GONE || (only && delivery.result() == Result.FAILED);
      if (fits && delivery.kind() == EffectKind.CHANGE && delivery.recordId() != null) {
        gone.add(delivery);
      }
    }
    if (gone.isEmpty()) {
      throw refused("This trace did not fail for a task that is gone.");
    }
    return gone;
  }

  private void tell(TraceRow trace, String what, By by) {
    stories.add(
        trace.seq(),
        stories.pack(
            TraceStory.EMPTY.with(
                AttemptWords.plain(clock.instant(), Mark.DONE, what, "Said by a " + by.name()))));
  }

  private static ApiProblem refused(String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, "Not done", detail);
  }
}
