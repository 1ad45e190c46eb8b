package org.ysthmos.app.desk.sample;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.ysthmos.adapters.hook.PushReader;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.core.event.CloudEventJson;
import org.ysthmos.core.event.Event;

/**
 * Events out of a pasted or uploaded text: one JSON object, a JSON array, or NDJSON; each of them a
 * CloudEvent (structured JSON) or a body as the source sends it. Of a CloudEvent that another maker
 * wrote, the data is the body.
 */
final class SampleText {

  /** How many events one text may hold. */
  static final int MOST = 200;

  private final String system;
  private final String collection;
  private final List<String> kinds;
  private final Optional<SystemCollection> source;
  private final Instant now;

  /**
   * @param kinds the kinds that the bridge carries; a body that says none is of the first
   */
  SampleText(
      String system,
      String collection,
      List<String> kinds,
      Optional<SystemCollection> source,
      Instant now) {
    this.system = system;
    this.collection = collection;
    this.kinds = List.copyOf(kinds);
    this.source = source;
    this.now = now;
  }

  /**
   * @throws ApiProblem if any of it is no event of this source; the message says which and why
   */
  List<Event> read(String text) {
    List<JsonNode> nodes = new ArrayList<>();
    List<String> places = new ArrayList<>();
    Optional<JsonNode> whole = whole(text);
    if (whole.isPresent()) {
      JsonNode node = whole.get();
      for (JsonNode one : node.isArray() || node.isMissingNode() ? node : List.of(node)) {
        nodes.add(one);
        places.add(node.isArray() ? "Event " + nodes.size() : "The event");
      }
    } else {
      lines(text, nodes, places);
    }
    if (nodes.isEmpty()) {
      throw refused("There is no event in it. Paste a JSON object, a JSON array, or NDJSON.");
    }
    if (nodes.size() > MOST) {
      throw refused("It has %d events; at most %d go at once.".formatted(nodes.size(), MOST));
    }
    List<Event> events = new ArrayList<>();
    for (int i = 0; i < nodes.size(); i++) {
      events.add(event(nodes.get(i), places.get(i), i));
    }
    return events;
  }

  private static Optional<JsonNode> whole(String text) {
    try {
      return Optional.of(PushReader.json(text.getBytes(StandardCharsets.UTF_8)));
    } catch (PushReader.Unreadable notOneJson) {
      return Optional.empty();
    }
  }

  private static void lines(String text, List<JsonNode> nodes, List<String> places) {
    String[] lines = text.split("\n", -1);
    for (int i = 0; i < lines.length; i++) {
      if (!lines[i].isBlank()) {
        try {
          nodes.add(PushReader.json(lines[i].getBytes(StandardCharsets.UTF_8)));
          places.add("Line " + (i + 1));
        } catch (PushReader.Unreadable e) {
          throw refused("Line %d cannot be read: %s".formatted(i + 1, e.getMessage()));
        }
      }
    }
  }

  private Event event(JsonNode node, String place, int count) {
    if (!node.isObject()) {
      throw refused(place + " is no JSON object.");
    }
    if (!node.has("specversion")) {
      return body(node, count);
    }
    String source = node.path("source").asText();
    if (source.isEmpty() || source.matches("/[^/]+/[^/]+")) {
      return cloudEvent(node, place);
    }
    // The envelope of another maker (CloudEvents 1.0, section 3.1: source is any URI reference).
    if (!node.path("data").isObject()) {
      throw refused(place + " is a CloudEvent whose “data” is no JSON object.");
    }
    return body(node.path("data"), count);
  }

  private Event cloudEvent(JsonNode node, String place) {
    Event event;
    try {
      event = CloudEventJson.read(node);
    } catch (IllegalArgumentException e) {
      throw refused("%s is no CloudEvent: %s.".formatted(place, e.getMessage()));
    }
    if (!event.system().equals(system) || !event.collection().equals(collection)) {
      throw refused(
          "%s comes from /%s/%s; this bridge starts at /%s/%s."
              .formatted(place, event.system(), event.collection(), system, collection));
    }
    if (!kinds.contains(event.kind())) {
      throw refused(
          "%s is of the kind “%s”; this bridge carries %s."
              .formatted(place, event.kind(), String.join(" and ", kinds)));
    }
    return event;
  }

  private Event body(JsonNode node, int count) {
    String record =
        source
            .map(from -> from.recordInEvent().in(node).asText(""))
            .filter(id -> !id.isEmpty())
            .orElse("");
    String kind =
        source
            .flatMap(SystemCollection::push)
            .map(p -> p.kinds().getOrDefault(p.kind().in(node).asText(""), ""))
            .filter(kinds::contains)
            .orElse(kinds.isEmpty() ? "created" : kinds.getFirst());
    return new Event(
        "added-" + now.toEpochMilli() + "-" + count,
        system,
        collection,
        kind,
        record.isEmpty() ? "sample-" + (count + 1) : record,
        now,
        node);
  }

  private static ApiProblem refused(String detail) {
    return new ApiProblem(HttpStatus.UNPROCESSABLE_ENTITY, "No sample", detail);
  }
}
