package org.ysthmos.app.dispatch;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.pair.MadeTasks;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.pair.Writings;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.StoryWriter;
import org.ysthmos.app.trace.TraceStory;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/** What one decision asks of the outside, asked for real, and taken down for its story. */
final class EngineWorld implements World {

  /** How much of what was found among the events is kept with a story. */
  private static final int LONGEST_ANSWER = 20_000;

  /** Where a decision finds what it asks. */
  @Component
  record Sources(
      Systems systems,
      Pairs pairs,
      Writings writings,
      MadeTasks tasks,
      SyncedPairs synced,
      Tables tables,
      ReceivedEvents received) {}

  private final Sources sources;
  private final Systems systems;

  /** So many other pairs are looked through for tasks that had a field. */
  private static final int MOST_OTHERS = 50;

  /** So many of them are read. */
  private static final int OTHERS_READ = 3;

  private final Pairs pairs;
  private final Tables tables;
  private final ReceivedEvents received;
  private final AppClock clock;
  private final EventRow row;
  private final List<TraceStory.Line> lines = new ArrayList<>();
  private final List<JsonNode> records = new ArrayList<>();
  private final Map<String, Pairs.Seen> seen = new HashMap<>();
  private SyncedPairs.Seen syncedSeen = SyncedPairs.Seen.NONE;
  private Optional<FailedLookup> asked = Optional.empty();

  /**
   * @param row the event that is decided
   */
  EngineWorld(Sources sources, AppClock clock, EventRow row) {
    this.sources = sources;
    this.systems = sources.systems();
    this.pairs = sources.pairs();
    this.tables = sources.tables();
    this.received = sources.received();
    this.clock = clock;
    this.row = row;
  }

  @Override
  public LookupAnswer lookUp(String lookup, Question question) {
    LookupAnswer answer =
        switch (question.origin()) {
          case EVENTS -> amongEvents(question);
          case TASKS -> amongTasks(question);
          case SYSTEM -> ask(question.system(), question.collection(), question.keys());
        };
    if (answer instanceof Found found) {
      records.addAll(found.records());
    }
    return answer;
  }

  private LookupAnswer amongEvents(Question question) {
    Instant start = clock.instant();
    return told(question, start, received.find(question), "the events received");
  }

  private LookupAnswer amongTasks(Question question) {
    Instant start = clock.instant();
    return told(
        question,
        start,
        sources.tasks().find(question),
        "the tasks of bridge " + question.collection());
  }

  /** What was found here is kept with the story, as a call's answer is. */
  private LookupAnswer told(Question question, Instant start, LookupAnswer answer, String among) {
    boolean found = answer instanceof Found some && !some.records().isEmpty();
    String came = answer instanceof Found some ? some.records().toString() : "";
    lines.add(
        new TraceStory.Line(
            start,
            Duration.between(start, clock.instant()).toNanos() / 1000,
            found ? TraceStory.Mark.DONE : TraceStory.Mark.FAILED,
            "Looked up %s among %s"
                .formatted(String.join(", ", question.keys().sequencedValues()), among),
            answer instanceof Unanswered unanswered
                ? unanswered.failure().message()
                : ((Found) answer).records().size() + " found",
            "",
            Words.limited(came, LONGEST_ANSWER),
            null));
    return answer;
  }

  private LookupAnswer ask(String system, String collection, SequencedMap<String, String> keys) {
    Optional<Systems.Connected> connected = systems.find(system);
    if (connected.isEmpty()) {
      return new Unanswered(
          Failure.of(FailureKind.NOT_FOUND, "There is no system “" + system + "”"));
    }
    List<RemoteCall> calls = new ArrayList<>();
    LookupAnswer answer = connected.get().gateway().find(collection, keys, calls::add);
    if (answer instanceof Unanswered unanswered) {
      connected.get().note(unanswered.failure(), clock.instant());
      unanswered(system, collection, unanswered.failure());
    } else {
      connected.get().breaker().answered();
    }
    String at = connected.get().description().name();
    String by = String.join(", ", keys.sequencedValues());
    for (RemoteCall call : calls) {
      lines.add(line(call, answer, at, by));
    }
    return answer;
  }

  private void unanswered(String system, String collection, Failure failure) {
    asked = Optional.of(new FailedLookup(system, collection, failure));
  }

  /** Where a lookup was asked last that was not answered. */
  record FailedLookup(String system, String collection, Failure failure) {}

  /** Where a failure comes from; empty if it does not come from a lookup. */
  Optional<FailedLookup> origin(Failure failure) {
    return asked.filter(one -> one.failure().equals(failure));
  }

  private static TraceStory.Line line(
      RemoteCall call, LookupAnswer answer, String system, String by) {
    return switch (answer) {
      case Found found ->
          StoryWriter.line(
              call,
              found.records().isEmpty() ? TraceStory.Mark.FAILED : TraceStory.Mark.DONE,
              "Looked up %s at %s".formatted(by, system),
              found.records().size() + " found");
      case Unanswered unanswered ->
          StoryWriter.line(
              call,
              TraceStory.Mark.FAILED,
              "Looked up %s at %s: %s".formatted(by, system, unanswered.failure().kind().words()),
              unanswered.failure().message());
    };
  }

  @Override
  public Optional<PairState> pair(String bridge, MatchKey key) {
    Pairs.Seen now = pairs.find(bridge, key.hash(), row.seq());
    seen.put(key.hash(), now);
    return now.state();
  }

  @Override
  public Optional<SyncedPair> synced(String bridge, Side side, String record) {
    syncedSeen = sources.synced().find(bridge, side, record);
    return syncedSeen.pair();
  }

  @Override
  public List<Unnamed> unnamed(String bridge, Side side) {
    return sources.synced().unnamed(bridge, side);
  }

  /** Asks for a few other tasks that had the field: what all of them lack, nobody emptied. */
  @Override
  public Optional<Failure> vanished(SyncedPair pair, FieldAsked asked) {
    Side side = asked.side();
    String name = asked.field().rule().name();
    int lacking = 0;
    for (SyncedPair other : sources.synced().some(pair.key().bridge(), MOST_OTHERS)) {
      Optional<String> record = other.records().of(side);
      if (record.isPresent()
          && lacking < OTHERS_READ
          && !other.key().equals(pair.key())
          && other.agreed().of(side, name) != Nothing.NOTHING) {
        SequencedMap<String, String> keys = new LinkedHashMap<>();
        keys.put("id", record.get());
        TwoWay.Place place = asked.place().rule();
        switch (ask(place.system(), place.collection(), keys)) {
          case Unanswered unanswered -> {
            return Optional.of(unanswered.failure());
          }
          case Found found -> {
            for (JsonNode task : found.records()) {
              if (!asked.field().at().of(side).read().in(task).isMissingNode()) {
                return Optional.empty();
              }
              lacking++;
            }
          }
        }
      }
    }
    return lacking == 0 ? Optional.empty() : Optional.of(vanished(asked, lacking));
  }

  private static Failure vanished(FieldAsked asked, int lacking) {
    CollectionShape shape = asked.place().shape();
    CompiledTwoWay.FieldOf at = asked.field().at().of(asked.side());
    return Failure.of(
            FailureKind.SHAPE_CHANGED,
            "%s tells no “%s” of a %s any more (%s): this one had it, and so had %s that %s read"
                .formatted(
                    shape.systemName(),
                    at.shape().name(),
                    shape.recordWord(),
                    at.read(),
                    lacking == 1 ? "another" : lacking + " others",
                    lacking == 1 ? "was" : "were"))
        .withField(at.shape().name(), "")
        .withRemedy(
            "See on Systems what it may be called now and change the bridge, then send again;"
                + " nothing was emptied on the other side");
  }

  /** Another pair than that of the event, which alone is kept as the decision saw it. */
  @Override
  public Optional<SyncedPair> named(String bridge, Side side, String record) {
    return sources.synced().find(bridge, side, record).pair();
  }

  /** The pair of two tasks that are kept alike, as the decision saw it. */
  SyncedPairs.Seen syncedSeen() {
    return syncedSeen;
  }

  @Override
  public Optional<Instant> changedAt(String system, String collection, JsonNode record) {
    return systems.changedAt(system, collection, record);
  }

  @Override
  public Map<String, Value> closing(String system, String collection) {
    return systems
        .collection(system, collection)
        .<Map<String, Value>>map(SystemCollection::closing)
        .orElse(Map.of());
  }

  @Override
  public boolean removes(String system, String collection) {
    return systems.collection(system, collection).filter(SystemCollection::removes).isPresent();
  }

  /** Reads the task and compares it with what its system said it stored when we last wrote. */
  @Override
  public TouchAnswer touched(MatchKey key, PairState pair) {
    Optional<Pairs.Side> side = pairs.target(key.bridge(), key.hash());
    if (side.isEmpty()) {
      return new Touched(false);
    }
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", side.get().record());
    return switch (ask(side.get().system(), side.get().collection(), keys)) {
      case Unanswered unanswered -> unanswered;
      // A task that is gone was worked on: someone took it away.
      case Found found when found.records().isEmpty() -> new Touched(true);
      case Found found -> new Touched(side.get().differsFrom(found.records().getFirst()));
    };
  }

  @Override
  public Optional<ReferenceTable> table(String id) {
    return tables.table(id);
  }

  @Override
  public Optional<WorkingCalendar> calendar(String id) {
    return tables.calendar(id);
  }

  @Override
  public boolean waits(Event event, Duration span) {
    return clock.instant().isBefore(row.receivedAt().plus(span));
  }

  @Override
  public Optional<URI> page(String system, String collection, String record) {
    return systems.page(system, collection, record);
  }

  /** Only what is told can be overtaken; what is asked for is as it is when it is asked. */
  @Override
  public Optional<Overtaken> overtaken(Event event, Collection<String> kinds) {
    return systems
        .collection(event.system(), event.collection())
        .flatMap(SystemCollection::push)
        .flatMap(Push::version)
        .flatMap(version -> received.overtaken(event, version, kinds));
  }

  @Override
  public boolean isOwnWrite(Event event) {
    return systems
        .ownWriting(event)
        .filter(
            own ->
                sources
                    .writings()
                    .isOwnWrite(event.system(), own.in(), event.record(), own.marks()))
        .isPresent();
  }

  @Override
  public Optional<JsonNode> previous(Event event) {
    return received.previous(event);
  }

  List<TraceStory.Line> lines() {
    return lines;
  }

  /** The records that were found, for finding the trace by any value seen. */
  List<JsonNode> records() {
    return records;
  }

  /** The pair of a key as the decision saw it. */
  Pairs.Seen seen(MatchKey key) {
    return seen.getOrDefault(key.hash(), Pairs.Seen.NONE);
  }
}
