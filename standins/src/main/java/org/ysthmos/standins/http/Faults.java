package org.ysthmos.standins.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.ysthmos.standins.hook.HookTrouble;

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
    FIELD_RENAMED("A field is renamed"),
    HOOK_TWICE("A webhook is delivered twice"),
    HOOK_OUT_OF_ORDER("A webhook is overtaken by the next");

    private final String title;

    /** Whether it befalls what the system tells, not what it is asked. */
    boolean ofHooks() {
      return this == HOOK_TWICE || this == HOOK_OUT_OF_ORDER;
    }

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
    Fault oneLess() {
      return new Fault(kind, method, below, pause, left - 1, field);
    }

    boolean meets(String calledMethod, String path) {
      return left > 0
          && !kind.ofHooks()
          && (method.isEmpty() || method.equals(calledMethod))
          && path.startsWith(below);
    }
  }

  private final List<Fault> active = new ArrayList<>();
  private boolean tells;

  /** Says that the system tells by webhooks, so that these can go wrong too. */
  synchronized void ofHooksToo() {
    tells = true;
  }

  /** What goes wrong with the webhook that is sent now. */
  synchronized HookTrouble takeOfHooks() {
    for (Fault fault : active) {
      if (fault.kind().ofHooks()) {
        used(fault);
        return fault.kind() == Kind.HOOK_TWICE ? HookTrouble.TWICE : HookTrouble.OUT_OF_ORDER;
      }
    }
    return HookTrouble.NONE;
  }

  private void used(Fault fault) {
    active.set(active.indexOf(fault), fault.oneLess());
    active.removeIf(one -> one.left() == 0);
  }

  /** Takes the first fault that meets the call, one call off it. */
  synchronized Optional<Fault> take(String method, String path) {
    Optional<Fault> met = active.stream().filter(one -> one.meets(method, path)).findFirst();
    met.ifPresent(this::used);
    return met;
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
      if (kind.ofHooks() && !tells) {
        continue;
      }
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
