package org.ysthmos.app.event;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.hook.PushReader;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.event.VersionMark;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.json.Pointer;

/** Looking among the events that were received. */
@Component
public class ReceivedEvents {

  /** How many of a collection's newest events a lookup goes through. */
  static final int MOST_LOOKED_THROUGH = 20_000;

  private static final int PAGE = 500;

  /** Among how many earlier events of its record a later version is looked for. */
  private static final int MOST_BEFORE = 20;

  private final EventMapper mapper;
  private final EventIndex index;

  ReceivedEvents(EventMapper mapper, EventIndex index) {
    this.mapper = mapper;
    this.index = index;
  }

  /**
   * What came with the events whose fields hold these values, the newest first. Keys are addresses
   * into what came with an event. They are found by an index of these keys, however many events
   * there are; while a new index does not reach back to the first event, the newest that it lacks
   * are read.
   */
  public World.LookupAnswer find(World.Question question) {
    EventIndex.Known known = index.find(question.system(), question.collection(), question.keys());
    List<JsonNode> found =
        known.events().stream()
            .flatMap(seq -> Stream.ofNullable(mapper.find(seq)))
            .flatMap(row -> holding(row, question.keys()).stream())
            .toList();
    return found.isEmpty() && known.from() > 0
        ? lookThrough(question, known.from())
        : new World.Found(found);
  }

  /** The same by reading the newest events, for who asks once. */
  public World.LookupAnswer lookThrough(World.Question question) {
    return lookThrough(question, Long.MAX_VALUE);
  }

  /**
   * Where there are more events than are looked through and none was found, it cannot be said that
   * there is none.
   */
  private World.LookupAnswer lookThrough(World.Question question, long first) {
    List<JsonNode> found = new ArrayList<>();
    long before = first;
    int looked = 0;
    while (true) {
      List<EventMapper.EventRow> page =
          mapper.newest(question.system(), question.collection(), before, PAGE);
      page.forEach(row -> holding(row, question.keys()).ifPresent(found::add));
      looked += page.size();
      if (page.size() < PAGE || (!found.isEmpty() && looked >= MOST_LOOKED_THROUGH)) {
        return new World.Found(found);
      }
      if (looked >= MOST_LOOKED_THROUGH) {
        return notAmong(question, looked, page.getLast().receivedAt());
      }
      before = page.getLast().seq();
    }
  }

  private static World.LookupAnswer notAmong(World.Question question, int looked, Instant since) {
    return new World.Unanswered(
        Failure.of(
                FailureKind.LOOKUP_EMPTY,
                String.format(
                    Locale.ENGLISH,
                    "Not among the newest %,d events of %s, which go back to %s",
                    looked,
                    question.collection(),
                    since.truncatedTo(ChronoUnit.SECONDS)))
            .withRemedy("Look it up in the system itself, then send again"));
  }

  /** What came with an event, if its fields hold these values. */
  private static Optional<JsonNode> holding(EventMapper.EventRow row, Map<String, String> keys) {
    // One that cannot be read holds nothing; whoever decides it learns why.
    return json(row).filter(data -> has(data, keys));
  }

  private static boolean has(JsonNode data, Map<String, String> keys) {
    List<Pointer> fields = keys.keySet().stream().map(Pointer::parse).toList();
    return EventIndex.values(data, fields).filter(List.copyOf(keys.values())::equals).isPresent();
  }

  /** What came with the event before this one of the same record. */
  public Optional<JsonNode> previous(Event event) {
    return Optional.ofNullable(
            mapper.previous(event.system(), event.collection(), event.record(), seq(event)))
        .map(ReceivedEvents::body);
  }

  /**
   * The latest version of the event's record that came before it, if it is later than the event's.
   *
   * @param versionAt where what comes with an event says the version
   */
  public Optional<World.Overtaken> overtaken(
      Event event, Pointer versionAt, Collection<String> kinds) {
    String own = versionAt.in(event.data()).asText("");
    if (own.isEmpty()) {
      return Optional.empty();
    }
    String latest = own;
    for (EventMapper.EventRow row :
        mapper.before(
            event.system(), event.collection(), event.record(), seq(event), kinds, MOST_BEFORE)) {
      String other = versionAt.in(body(row)).asText("");
      latest = VersionMark.compare(other, latest).orElse(0) > 0 ? other : latest;
    }
    return latest.equals(own) ? Optional.empty() : Optional.of(new World.Overtaken(own, latest));
  }

  /** The order number of an event; one that is not kept comes after all that are. */
  private long seq(Event event) {
    Long seq = mapper.findSeq(event.system(), event.id());
    return seq == null ? Long.MAX_VALUE : seq;
  }

  /** An event as the core knows it. */
  public static Event event(EventMapper.EventRow row) {
    return event(row, body(row));
  }

  private static Event event(EventMapper.EventRow row, JsonNode body) {
    return new Event(
        row.sourceId(),
        row.systemId(),
        row.collectionId(),
        row.kind(),
        row.recordId(),
        row.happenedAt(),
        body);
  }

  /** The same; empty if what was kept cannot be read as JSON. */
  public static Optional<Event> readable(EventMapper.EventRow row) {
    return json(row).map(body -> event(row, body));
  }

  /** What came with an event; empty if it cannot be read as JSON. */
  public static Optional<JsonNode> json(EventMapper.EventRow row) {
    return json(row.body());
  }

  /** The same of its bytes. */
  public static Optional<JsonNode> json(byte[] body) {
    try {
      return Optional.of(PushReader.kept(body));
    } catch (PushReader.Unreadable e) {
      return Optional.empty();
    }
  }

  /**
   * What came with an event as JSON.
   *
   * @throws IllegalStateException if it cannot be read
   */
  public static JsonNode body(EventMapper.EventRow row) {
    try {
      return PushReader.kept(row.body());
    } catch (PushReader.Unreadable e) {
      throw new IllegalStateException("an event was kept that cannot be read: " + row.id(), e);
    }
  }
}
