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
final class Faults implements Switches {

  /** What goes wrong. */
  enum Kind {
    /** The connection is closed before anything is done. */
    DOWN("It is down"),
    /** Answers 500 before anything is done. */
    ERROR("It breaks: 500"),
    /** Answers 403. */
    FORBIDDEN("Permission taken away: 403"),
    /** Answers 403, as there is no room for more. */
    QUOTA_FULL("Quota full: 403"),
    /** Answers 401. */
    TOKEN_EXPIRED("The token has expired: 401"),
    /** Answers 429 with {@code Retry-After}. */
    TOO_MANY("Too many calls: 429"),
    /** Everything is done, only later. */
    SLOW("It is slow"),
    /** Everything is done at once, only the answer comes later. */
    SLOW_ANSWER("Done at once, the answer comes late"),
    /** Everything is done, then the connection is closed without an answer. */
    ANSWER_LOST("Done, but the answer is lost"),
    /** Half of the answer comes, then the connection is closed. */
    TRUNCATED("The answer breaks off in the middle"),
    /** A field of every record is called something else. */
    FIELD_RENAMED("A field is renamed");

    private final String title;

    Kind(String title) {
      this.title = title;
    }

    String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /**
   * @param left for how many more calls
   * @param field the field that is renamed, and what it is called then, parted by a colon
   */
  record Fault(Kind kind, String method, String below, Duration pause, int left, String field) {
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
                fault.kind(),
                fault.method(),
                fault.below(),
                fault.pause(),
                fault.left() - 1,
                fault.field()));
        active.removeIf(f -> f.left() == 0);
        return Optional.of(fault);
      }
    }
    return Optional.empty();
  }

  @Override
  public synchronized void add(JsonNode wish) {
    String kind = wish.path("kind").asText().toUpperCase(Locale.ROOT).replace('-', '_');
    try {
      active.add(
          new Fault(
              Kind.valueOf(kind),
              wish.path("method").asText(""),
              wish.path("below").asText("/api"),
              Duration.ofMillis(wish.path("waitMillis").asLong(1000)),
              wish.path("calls").asInt(1),
              wish.path("field").asText("")));
    } catch (IllegalArgumentException e) {
      throw Refusal.ofField("kind", "no fault is called " + wish.path("kind").asText());
    }
  }

  @Override
  public synchronized void clear() {
    active.clear();
  }

  @Override
  public synchronized ObjectNode list() {
    ObjectNode list = Request.JSON.createObjectNode();
    ArrayNode kinds = list.putArray("kinds");
    for (Kind kind : Kind.values()) {
      kinds.addObject().put("kind", kind.word()).put("title", kind.title);
    }
    ArrayNode on = list.putArray("on");
    for (Fault fault : active) {
      on.addObject()
          .put("kind", fault.kind().word())
          .put("method", fault.method())
          .put("below", fault.below())
          .put("calls", fault.left());
    }
    return list;
  }
}
