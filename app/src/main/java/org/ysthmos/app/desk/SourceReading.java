package org.ysthmos.app.desk;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;

/**
 * Records read at a source, as the events that they would come as, for a bridge whose source sent
 * nothing yet. What was read is remembered for a while, so that typing reads nothing.
 */
@Component
class SourceReading {

  /** How many records are read. */
  static final int MOST = 20;

  private static final Duration REMEMBERED_FOR = Duration.ofMinutes(15);

  /**
   * What reading came to.
   *
   * @param problem why nothing could be read; empty if it could
   */
  record Read(List<Event> events, String problem, Instant at) {}

  private record Place(String system, String collection, String kind) {}

  private final Systems systems;
  private final AppClock clock;
  private final Map<Place, Read> remembered = new ConcurrentHashMap<>();

  SourceReading(Systems systems, AppClock clock) {
    this.systems = systems;
    this.clock = clock;
  }

  /**
   * @param kind the kind that the events shall be of
   */
  Read newest(String system, String collection, String kind) {
    Place place = new Place(system, collection, kind);
    Read known = remembered.get(place);
    if (known != null && known.at().plus(REMEMBERED_FOR).isAfter(clock.instant())) {
      return known;
    }
    Read fresh = read(place);
    remembered.put(place, fresh);
    return fresh;
  }

  void forget() {
    remembered.clear();
  }

  private Read read(Place place) {
    Instant now = clock.instant();
    Optional<SystemDescription.Collection> collection =
        systems.collection(place.system(), place.collection());
    Optional<SystemDescription.Listing> list =
        collection.flatMap(SystemDescription.Collection::list);
    if (list.isEmpty()) {
      return new Read(List.of(), "", now);
    }
    World.LookupAnswer answer =
        systems
            .find(place.system())
            .orElseThrow()
            .gateway()
            .list(place.collection(), MOST, call -> {});
    return switch (answer) {
      case World.Found found ->
          new Read(events(found.records(), place, collection.get(), list.get(), now), "", now);
      case World.Unanswered unanswered ->
          new Read(List.of(), Words.sentence(unanswered.failure()), now);
    };
  }

  private static List<Event> events(
      List<JsonNode> records,
      Place place,
      SystemDescription.Collection collection,
      SystemDescription.Listing list,
      Instant now) {
    List<Event> events = new ArrayList<>();
    for (JsonNode record : records) {
      String id = list.id().in(record).asText("");
      if (!id.isEmpty()) {
        JsonNode data =
            collection.push().map(push -> announced(push, id, place.kind())).orElse(record);
        events.add(
            new Event(
                "read-" + id, place.system(), place.collection(), place.kind(), id, now, data));
      }
    }
    return events;
  }

  /** What a webhook about this record would carry at the least: its id and the kind of event. */
  private static JsonNode announced(SystemDescription.Push push, String id, String kind) {
    String theirs =
        push.kinds().entrySet().stream()
            .filter(entry -> entry.getValue().equals(kind))
            .map(Map.Entry::getKey)
            .findFirst()
            .orElse(kind);
    ObjectNode body = JsonNodeFactory.instance.objectNode();
    put(body, push.kind(), theirs);
    put(body, push.record(), id);
    return body;
  }

  private static void put(ObjectNode body, Pointer at, String text) {
    List<String> tokens = at.tokens();
    if (tokens.isEmpty()) {
      // The whole body would be the value; there is no place in an object for it.
      return;
    }
    ObjectNode inner = body;
    for (String token : tokens.subList(0, tokens.size() - 1)) {
      inner = inner.withObjectProperty(token);
    }
    inner.set(tokens.getLast(), TextNode.valueOf(text));
  }
}
