package org.ysthmos.app.desk.sample;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.hook.PolledEvent;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.json.Pointer;

/**
 * Records read at a source, as the events that they would come as, for a bridge whose source sent
 * nothing yet. What was read is remembered for a while, so that typing reads nothing.
 */
@Component
public class SourceReading {

  /** How many records are read. */
  static final int MOST = 20;

  private static final Duration REMEMBERED_FOR = Duration.ofMinutes(15);

  /**
   * What reading came to.
   *
   * @param problem why nothing could be read; empty if it could
   */
  public record Read(List<Event> events, String problem, Instant at) {}

  private record SourceKey(String system, String collection, String kind) {}

  private final Systems systems;
  private final AppClock clock;
  private final Map<SourceKey, Read> remembered = new ConcurrentHashMap<>();

  SourceReading(Systems systems, AppClock clock) {
    this.systems = systems;
    this.clock = clock;
  }

  /**
   * @param kind the kind that the events shall be of
   */
  public Read newest(String system, String collection, String kind) {
    SourceKey place = new SourceKey(system, collection, kind);
    Read known = remembered.get(place);
    if (known != null && known.at().plus(REMEMBERED_FOR).isAfter(clock.instant())) {
      return known;
    }
    Read fresh = read(place);
    remembered.put(place, fresh);
    return fresh;
  }

  public void forget() {
    remembered.clear();
  }

  private Read read(SourceKey place) {
    Instant now = clock.instant();
    Optional<SystemCollection> collection = systems.collection(place.system(), place.collection());
    Optional<Pointer> id = collection.flatMap(SystemCollection::lists);
    if (id.isEmpty()) {
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
          new Read(events(found.records(), place, collection.get(), id.get(), now), "", now);
      case World.Unanswered unanswered ->
          new Read(List.of(), Words.sentence(unanswered.failure()), now);
    };
  }

  private static List<Event> events(
      List<JsonNode> records,
      SourceKey place,
      SystemCollection collection,
      Pointer idAt,
      Instant now) {
    List<Event> events = new ArrayList<>();
    for (JsonNode record : records) {
      String id = idAt.in(record).asText("");
      if (!id.isEmpty()) {
        String version =
            collection.polled().map(asked -> asked.version().in(record).asText("")).orElse("");
        Changed standing = new Changed(id, version, Optional.empty(), Optional.empty(), record);
        JsonNode data = PolledEvent.data(collection, standing, place.kind());
        events.add(
            new Event(
                "read-" + id, place.system(), place.collection(), place.kind(), id, now, data));
      }
    }
    return events;
  }
}
