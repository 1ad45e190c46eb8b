package org.ysthmos.app.courier;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.problem.ApiProblem;
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
import org.ysthmos.core.decide.World;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.TaskGateway;

/**
 * Takes back what a try made. Taking away a task that is gone already counts as taken away, so that
 * a second press after a lost answer does no harm.
 */
@Component
class TakeBack {

  private final TraceMapper traces;
  private final DeliveryMapper deliveries;
  private final Pairs pairs;
  private final Systems systems;
  private final StoryCodec codec;
  private final AppClock clock;
  private final LiveFeed feed;

  TakeBack(
      TraceMapper traces,
      DeliveryMapper deliveries,
      Pairs pairs,
      Systems systems,
      StoryCodec codec,
      AppClock clock,
      LiveFeed feed) {
    this.traces = traces;
    this.deliveries = deliveries;
    this.pairs = pairs;
    this.systems = systems;
    this.codec = codec;
    this.clock = clock;
    this.feed = feed;
  }

  /**
   * Takes the tasks of a try away, the last made first, so that no parent goes before its children.
   *
   * @param evenIfTouched whether a task goes that someone worked on since
   * @throws ApiProblem if something stays; what is gone by then is told in the story
   */
  synchronized void run(String id, boolean evenIfTouched) {
    TraceRow trace = traces.find(id);
    if (trace == null) {
      throw ApiProblem.notFound("trace", id);
    }
    if (trace.tryDocument() == null) {
      throw refused("No try", "Only what a try made is taken back here.");
    }
    if (!trace.state().equals("done")) {
      throw refused("Still under way", "The try is not finished; take it back when it is.");
    }
    if (trace.takenBackAt() != null) {
      return;
    }
    TraceStory story = codec.read(traces.story(id));
    for (DeliveryRow delivery : deliveries.ofTrace(id).reversed()) {
      if (delivery.recordId() == null) {
        continue;
      }
      Taken taken = take(delivery, evenIfTouched);
      for (Line line : taken.lines()) {
        story = story.with(line);
      }
      if (taken.problem().isPresent()) {
        traces.tell(id, codec.write(story));
        feed.changed(trace.bridgeId(), id);
        throw taken.problem().get();
      }
    }
    traces.takenBack(id, clock.instant(), codec.write(story));
    feed.changed(trace.bridgeId(), id);
  }

  private record Taken(List<Line> lines, Optional<ApiProblem> problem) {}

  private Taken take(DeliveryRow delivery, boolean evenIfTouched) {
    String record = Optional.ofNullable(delivery.recordId()).orElseThrow();
    Systems.Connected system =
        systems
            .find(delivery.systemId())
            .orElseThrow(() -> ApiProblem.notFound("system", delivery.systemId()));
    String name = system.description().name();
    List<RemoteCall> calls = new ArrayList<>();
    if (!evenIfTouched && touched(delivery, record, system, calls)) {
      return new Taken(
          lines(calls, "Looked at the task at " + name, Mark.DONE, "someone changed it since"),
          Optional.of(
              refused(
                  "Changed since",
                  "Someone changed task %s at %s since it was made. It stays until you say that it goes all the same."
                      .formatted(record, name))));
    }
    return switch (system.gateway().remove(delivery.collectionId(), record, calls::add)) {
      case TaskGateway.Removed removed ->
          new Taken(
              lines(calls, "Took task %s back at %s".formatted(record, name), Mark.DONE, ""),
              Optional.empty());
      case TaskGateway.NotRemoved notRemoved -> {
        Failure failure = notRemoved.failure();
        yield new Taken(
            lines(
                calls,
                "%s, taking task %s back: %s".formatted(name, record, failure.kind().words()),
                Mark.FAILED,
                failure.message()),
            Optional.of(refused("Not taken back", Words.sentence(failure))));
      }
    };
  }

  private boolean touched(
      DeliveryRow delivery, String record, Systems.Connected system, List<RemoteCall> calls) {
    Optional<Pairs.Side> side = pairs.target(delivery.bridgeId(), delivery.matchHash());
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", record);
    return side.isPresent()
        && system.gateway().find(delivery.collectionId(), keys, calls::add)
            instanceof World.Found found
        && !found.records().isEmpty()
        && side.get().differsFrom(found.records().getFirst());
  }

  /** The reading before it is told as such; the last call is what it was about. */
  private static List<Line> lines(List<RemoteCall> calls, String last, Mark mark, String detail) {
    List<Line> lines = new ArrayList<>();
    for (int i = 0; i < calls.size(); i++) {
      RemoteCall call = calls.get(i);
      lines.add(
          i < calls.size() - 1
              ? StoryWriter.line(call, Mark.DONE, "Looked whether someone changed the task", "")
              : StoryWriter.line(call, mark, last, detail));
    }
    return lines;
  }

  private static ApiProblem refused(String title, String detail) {
    return new ApiProblem(HttpStatus.CONFLICT, title, detail);
  }
}
