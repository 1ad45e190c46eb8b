package org.ysthmos.app.courier;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.courier.Courier.Carried;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.StoryCodec;
import org.ysthmos.app.trace.StoryWriter;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.work.WorkSignals;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.TaskGateway.Delivered;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** Stores what became of deliveries: delivery, pair and trace in one transaction. */
@Component
class DeliveryWriter {

  private final DeliveryMapper deliveries;
  private final TraceMapper traces;
  private final Pairs pairs;
  private final Systems systems;
  private final StoryCodec codec;
  private final TransactionTemplate transaction;
  private final AppClock clock;
  private final WorkSignals signals;
  private final LiveFeed feed;

  DeliveryWriter(
      DeliveryMapper deliveries,
      TraceMapper traces,
      Pairs pairs,
      Systems systems,
      StoryCodec codec,
      TransactionTemplate transaction,
      AppClock clock,
      WorkSignals signals,
      LiveFeed feed) {
    this.deliveries = deliveries;
    this.traces = traces;
    this.pairs = pairs;
    this.systems = systems;
    this.codec = codec;
    this.transaction = transaction;
    this.clock = clock;
    this.signals = signals;
    this.feed = feed;
  }

  /** The task exists: written down at once, so that no restart makes a second one. */
  void made(DeliveryRow delivery, String record) {
    transaction.executeWithoutResult(
        status -> {
          deliveries.made(delivery.id(), record);
          traces.made(delivery.traceId(), record);
          pairs.made(delivery.bridgeId(), delivery.matchHash(), record);
        });
  }

  void delivered(Carried carried, SequencedMap<String, Value> fields, Delivered delivered) {
    DeliveryRow delivery = carried.delivery();
    TraceRow trace = trace(delivery);
    Instant now = clock.instant();
    Line kept =
        plain(
            now,
            Mark.DONE,
            (trace.tryDocument() == null ? "Pair kept: " : "Noted, to be taken back: ")
                + Optional.ofNullable(trace.matchText()).orElse("")
                + " and task "
                + delivered.record(),
            "Task " + delivered.record() + " on " + carried.systemName());
    store(
        carried,
        story -> story.with(kept).withStored(delivered.stored()),
        null,
        () -> {
          deliveries.finish(delivery.id(), "done");
          pairs.agreed(delivery.bridgeId(), delivery.matchHash(), delivered, fields);
          letChildrenGo(delivery, delivered.record());
          finishIfLast(trace, now);
        });
    signals.toDecide().raise();
  }

  void again(Carried carried, Failure failure, boolean uncertain, Duration pause, Instant next) {
    Line waiting =
        new Line(
            clock.instant(),
            pause.toNanos() / 1000,
            Mark.WAITING,
            failure.retryAfter().isPresent() ? "Waits as told" : "Waits before the next try",
            failure.message(),
            "",
            "",
            null);
    store(
        carried,
        story -> story.with(waiting),
        failure,
        () -> deliveries.again(carried.delivery().id(), uncertain, next));
  }

  /** Puts back what found no room for all of its calls; the calls it made are told. */
  void held(Carried carried, Instant next) {
    store(carried, story -> story, null, () -> deliveries.held(carried.delivery().id(), next));
  }

  void failed(Carried carried, Failure failure) {
    Instant now = clock.instant();
    Line given =
        plain(now, Mark.FAILED, "Given up: " + failure.kind().words(), Words.sentence(failure));
    store(
        carried,
        story -> story.with(given),
        failure,
        () -> {
          failWithChildren(carried.delivery());
          finishIfLast(trace(carried.delivery()), now);
        });
    signals.toDecide().raise();
  }

  /** Tasks that waited for their parent get its id and can be made. */
  private void letChildrenGo(DeliveryRow parent, String record) {
    for (DeliveryRow child : deliveries.waitingFor(parent.bridgeId(), parent.matchHash())) {
      SequencedMap<String, Value> fields = new LinkedHashMap<>(pairs.fields(child.fields()));
      String field = Objects.requireNonNull(child.parentField());
      ValueType type =
          systems
              .find(child.systemId(), child.collectionId())
              .flatMap(shape -> shape.field(field))
              .map(FieldShape::type)
              .orElse(ValueType.TEXT);
      fields.put(field, Constant.parse(record, type));
      deliveries.parentMade(child.id(), pairs.bytes(fields));
      signals.toDeliver().raise();
    }
  }

  /** A task whose parent could not be made is not made either; sending again makes both. */
  private void failWithChildren(DeliveryRow delivery) {
    deliveries.finish(delivery.id(), "failed");
    deliveries
        .waitingFor(delivery.bridgeId(), delivery.matchHash())
        .forEach(this::failWithChildren);
  }

  /** A trace is finished when all its deliveries are, and failed if one of them is. */
  private void finishIfLast(TraceRow trace, Instant now) {
    if (deliveries.unfinishedOf(trace.id()) == 0) {
      String verdict = Optional.ofNullable(trace.verdict()).orElse("create");
      traces.finish(trace.id(), deliveries.failedOf(trace.id()) > 0 ? "failed" : verdict, now);
    }
  }

  private void store(
      Carried carried,
      java.util.function.UnaryOperator<TraceStory> ending,
      @Nullable Failure failure,
      Runnable rest) {
    DeliveryRow delivery = carried.delivery();
    transaction.executeWithoutResult(
        status -> {
          // Several deliveries of one trace may end at once; each goes on from the other's lines.
          TraceStory story = codec.read(traces.storyToGoOn(delivery.traceId()));
          for (Line line : lines(carried, failure)) {
            story = story.with(line);
          }
          traces.tried(
              delivery.traceId(),
              delivery.tries(),
              failure == null ? null : Words.word(failure.kind()),
              failure == null ? null : Words.sentence(failure),
              codec.write(ending.apply(story)));
          rest.run();
        });
    feed.changed(delivery.bridgeId(), delivery.traceId());
  }

  private static List<Line> lines(Carried carried, @Nullable Failure failure) {
    List<Line> lines = new ArrayList<>();
    List<RemoteCall> calls = carried.calls();
    for (int i = 0; i < calls.size(); i++) {
      // Every call but the last was answered well, or the last would not have been made.
      boolean last = i == calls.size() - 1;
      lines.add(line(carried.systemName(), calls.get(i), last ? failure : null));
    }
    return lines;
  }

  private static Line line(String system, RemoteCall call, @Nullable Failure failure) {
    String method = call.request().getFirst().split(" ", 2)[0];
    if (failure == null) {
      String did =
          switch (method) {
            case "GET", "SEARCH" -> "Looked for the task by its key at ";
            case "SEND" -> "Handed the letter in at ";
            case "APPEND" -> "Kept a copy of the letter at ";
            case "POST" -> "Made the task at ";
            case "PUT" -> "Added the details at ";
            default -> "Changed the task at ";
          };
      // A copy that could not be kept takes nothing from a letter that is sent.
      Mark mark = call.problem().isEmpty() ? Mark.DONE : Mark.FAILED;
      String answer = call.status() > 0 ? "Answered " + call.status() : call.problem();
      return StoryWriter.line(call, mark, did + system, answer);
    }
    String tried =
        switch (method) {
          case "GET", "SEARCH" -> "looking for the task by its key";
          case "SEND" -> "handing the letter in";
          case "POST" -> "making the task";
          case "PUT" -> "adding the details";
          default -> "changing the task";
        };
    return StoryWriter.line(
        call,
        Mark.FAILED,
        "%s, %s: %s".formatted(system, tried, failure.kind().words()),
        failure.message());
  }

  private static Line plain(Instant at, Mark mark, String text, String detail) {
    return new Line(at, 0, mark, text, detail, "", "", null);
  }

  private TraceRow trace(DeliveryRow delivery) {
    return Optional.ofNullable(traces.find(delivery.traceId()))
        .orElseThrow(
            () -> new IllegalStateException("a delivery without its trace: " + delivery.id()));
  }
}
