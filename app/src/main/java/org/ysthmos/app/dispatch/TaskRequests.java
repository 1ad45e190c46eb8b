package org.ysthmos.app.dispatch;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.hook.PolledEvent;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceStart;
import org.ysthmos.core.bridge.BridgeDefinition.From;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.bridge.LookupRule.NoneFound;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.gateway.ChangeGateway.Changed;

/**
 * Gives other bridges the records whose tasks an event waits for. A bridge is given a record once
 * by one trace, and not while it has something of that record under way, so that bridges that ask
 * each other come to an end.
 */
@Component
class TaskRequests {

  private static final String CREATED = "created";

  private final Bridges bridges;
  private final Systems systems;
  private final EventMapper events;
  private final TraceMapper traces;
  private final TraceQueue queue;
  private final TraceStart start;
  private final IntakeWriter intake;
  private final Journal journal;
  private final AppClock clock;

  TaskRequests(
      Bridges bridges,
      Systems systems,
      EventMapper events,
      TraceMapper traces,
      TraceQueue queue,
      TraceStart start,
      IntakeWriter intake,
      Journal journal,
      AppClock clock) {
    this.bridges = bridges;
    this.systems = systems;
    this.events = events;
    this.traces = traces;
    this.queue = queue;
    this.start = start;
    this.intake = intake;
    this.journal = journal;
    this.clock = clock;
  }

  /**
   * Asks for each task that a decision lacks and that is to be made.
   *
   * @return how that stands, for people; empty if nothing of it is to be made
   */
  Optional<String> ask(DecisionWriter.Deciding deciding) {
    for (LookupRule rule : deciding.bridge().definition().lookups()) {
      if (rule.none() == NoneFound.MAKE) {
        Optional<World.Question> lacking =
            deciding.decision().answers().stream()
                .filter(answer -> answer.lookup().equals(rule.name()))
                .filter(answer -> answer.records().isEmpty())
                .map(Decision.Answer::question)
                .findFirst();
        if (lacking.isPresent()) {
          String record =
              Objects.requireNonNull(lacking.get().keys().get(LookupRule.RECORD), "no record");
          return Optional.of(ask(deciding.trace(), rule.collection(), record));
        }
      }
    }
    return Optional.empty();
  }

  private String ask(TraceRow asking, String bridge, String record) {
    Optional<Bridges.Live> live = bridges.live(bridge);
    if (live.isEmpty()) {
      return "No bridge “%s” is live that could make it".formatted(bridge);
    }
    From from = live.get().version().definition().from();
    String name = live.get().version().definition().name();
    String orderKey = from.system() + "/" + from.collection() + "/" + record;
    if (queue.isUnderWay(bridge, orderKey)) {
      return "Bridge “%s” has the record under way".formatted(name);
    }
    String askedBy = "trace " + asking.id();
    TraceRow before = traces.askedFor(bridge, orderKey, askedBy);
    if (before != null) {
      return "Bridge “%s” was given the record: %s".formatted(name, outcome(before));
    }
    EventRow newest =
        events
            .before(from.system(), from.collection(), record, Long.MAX_VALUE, from.events(), 1)
            .stream()
            .findFirst()
            .orElse(null);
    if (newest == null) {
      return read(asking, from, name, record);
    }
    journal.now(
        () ->
            start.begin(
                new TraceStart.Beginning(
                    newest.seq(),
                    bridge,
                    orderKey,
                    null,
                    null,
                    askedBy,
                    "Asked for by %s, which waits for this task".formatted(askedBy)),
                clock.instant()));
    queue.raise();
    return "Bridge “%s” was given the newest event of the record".formatted(name);
  }

  private static String outcome(TraceRow ended) {
    return ended.reason() == null
        ? "trace %s came to another end than a task".formatted(ended.id())
        : "trace %s: %s".formatted(ended.id(), ended.reason());
  }

  /** No event of the record was ever received: it is read where it stands and taken in as one. */
  private String read(TraceRow asking, From from, String bridge, String record) {
    Optional<SystemCollection> collection = systems.collection(from.system(), from.collection());
    if (collection.isEmpty()
        || collection.get().polled().isEmpty()
        || !collection.get().findsBy().contains(List.of("id"))) {
      return "No event of the record was received that bridge “%s” hears, and %s cannot be asked for it"
          .formatted(bridge, from.system());
    }
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", record);
    World.LookupAnswer answer =
        systems.find(from.system()).orElseThrow().gateway().find(from.collection(), keys, c -> {});
    return switch (answer) {
      case World.Unanswered unanswered ->
          "The record could not be read for bridge “%s”: %s"
              .formatted(bridge, unanswered.failure().message());
      case World.Found found when found.records().isEmpty() ->
          "The record is not there, so that bridge “%s” cannot make a task of it".formatted(bridge);
      case World.Found found -> {
        intake
            .keep(event(asking, from, collection.get(), record, found.records().getFirst()))
            .join();
        yield "The record was read and given to bridge “%s”".formatted(bridge);
      }
    };
  }

  private EventRow event(
      TraceRow asking, From from, SystemCollection collection, String record, JsonNode data) {
    Instant now = clock.instant();
    String kind = from.events().contains(CREATED) ? CREATED : from.events().getFirst();
    String version = "asked for by " + asking.id();
    Changed read = new Changed(record, version, Optional.empty(), Optional.empty(), data);
    return new EventRow(
        0,
        from.system(),
        PolledEvent.id(from.collection(), record, version),
        from.collection(),
        kind,
        record,
        now,
        now,
        EventMapper.Origin.POLLED,
        PolledEvent.data(collection, read, kind).toString().getBytes(StandardCharsets.UTF_8));
  }
}
