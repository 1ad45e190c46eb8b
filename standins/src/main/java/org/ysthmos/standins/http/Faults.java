package org.ysthmos.standins.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Faults that are switched on for the next so many calls of a method below a path. */
public final class Faults {

  /** What goes wrong. */
  public enum Kind {
    /** The connection is closed before anything is done. */
    DOWN,
    /** Answers 500 before anything is done. */
    ERROR,
    /** Answers 403: permission taken away. */
    FORBIDDEN,
    /** Answers 401: the token is not good any more. */
    TOKEN_EXPIRED,
    /** Answers 429 with {@code Retry-After}. */
    TOO_MANY,
    /** Everything is done, only later. */
    SLOW,
    /** Everything is done at once, only the answer comes later. */
    SLOW_ANSWER,
    /** Everything is done, then the connection is closed without an answer. */
    ANSWER_LOST
  }

  /**
   * @param left for how many more calls
   */
  record Fault(Kind kind, String method, String below, Duration pause, int left) {
    boolean meets(String calledMethod, String path) {
      return left > 0
          && (method.isEmpty() || method.equals(calledMethod))
          && path.startsWith(below);
    }
  }

  private final List<Fault> active = new ArrayList<>();

  /** Takes the first fault that meets the call, one call off it. */
  synchronized Optional<Fault> take(String method, String path) {
    for (int i = 0; i < active.size(); i++) {
      Fault fault = active.get(i);
      if (fault.meets(method, path)) {
        active.set(
            i,
            new Fault(
                fault.kind(), fault.method(), fault.below(), fault.pause(), fault.left() - 1));
        active.removeIf(f -> f.left() == 0);
        return Optional.of(fault);
      }
    }
    return Optional.empty();
  }

  synchronized void add(JsonNode wish) {
    String kind = wish.path("kind").asText().toUpperCase(Locale.ROOT).replace('-', '_');
    try {
      active.add(
          new Fault(
              Kind.valueOf(kind),
              wish.path("method").asText(""),
              wish.path("below").asText("/api"),
              Duration.ofMillis(wish.path("waitMillis").asLong(1000)),
              wish.path("calls").asInt(1)));
    } catch (IllegalArgumentException e) {
      throw Refusal.ofField("kind", "no fault is called " + wish.path("kind").asText());
    }
  }

  synchronized void clear() {
    active.clear();
  }

  synchronized ArrayNode list() {
    ArrayNode list = Request.JSON.createArrayNode();
    for (Fault fault : active) {
      ObjectNode node = list.addObject();
      node.put("kind", fault.kind().name().toLowerCase(Locale.ROOT).replace('_', '-'));
      node.put("method", fault.method()).put("below", fault.below()).put("calls", fault.left());
    }
    return list;
  }
}
