package org.ysthmos.app.event;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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

  ReceivedEvents(EventMapper mapper) {
    this.mapper = mapper;
  }

  /**
   * What came with the events whose fields hold these values, the newest first. Keys are addresses
   * into what came with an event. Where there are more events than are looked through and none was
   * found, it cannot be said that there is none.
   */
  public World.LookupAnswer find(World.Question question) {
    List<JsonNode> found = new ArrayList<>();
    long before = Long.MAX_VALUE;
    int looked = 0;
    while (looked < MOST_LOOKED_THROUGH) {
      List<EventMapper.EventRow> page =
          mapper.newest(question.system(), question.collection(), before, PAGE);
      page.stream()
          .map(row -> body(row))
          .filter(data -> has(data, question.keys()))
          .forEach(found::add);
      looked += page.size();
      if (page.size() < PAGE) {
        return new World.Found(found);
      }
      before = page.getLast().seq();
    }
    return found.isEmpty()
        ? new World.Unanswered(
            Failure.of(
                    FailureKind.LOOKUP_EMPTY,
                    "Not among the newest %d events of %s".formatted(looked, question.collection()))
                .withRemedy("Look it up in the system itself, then send again"))
        : new World.Found(found);
  }

  private static boolean has(JsonNode data, Map<String, String> keys) {
    return keys.entrySet().stream()
        .allMatch(
            key -> {
              JsonNode held = Pointer.parse(key.getKey()).in(data);
              return held.isValueNode() && !held.isNull() && held.asText().equals(key.getValue());
            });
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
    return new Event(
        row.sourceId(),
        row.systemId(),
        row.collectionId(),
        row.kind(),
        row.recordId(),
        row.happenedAt(),
        body(row));
  }

  /** What came with an event as JSON. */
  public static JsonNode body(EventMapper.EventRow row) {
    try {
      return PushReader.parse(row.body());
    } catch (PushReader.Unreadable e) {
      throw new IllegalStateException("an event was kept that cannot be read: " + row.id(), e);
    }
  }
}
