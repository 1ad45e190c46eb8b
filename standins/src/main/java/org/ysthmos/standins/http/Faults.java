package org.ysthmos.standins.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import org.ysthmos.standins.hook.HookTrouble;

/**
 * Faults that are switched on for calls of a method below a path: for the next so many, for some
 * minutes, or for a share of them.
 */
final class Faults implements Switches {

  /** What goes wrong. */
  enum Kind {
    /** The connection is closed before anything is done. */
    DOWN("It is down"),
    /** Answers 500 before anything is done. */
    ERROR("It breaks: 500"),
    /** Answers 403. */
    FORBIDDEN("Permission taken away: 403"),
    /** Answers 404, whatever is asked for. */
    NOT_FOUND("Nothing is found: 404"),
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
    HOOK_OUT_OF_ORDER("A webhook is overtaken by the next"),
    HOOK_LOST("A webhook is never delivered");

    private final String title;

    /** Whether it befalls what the system tells, not what it is asked. */
    boolean ofHooks() {
      return this == HOOK_TWICE || this == HOOK_OUT_OF_ORDER || this == HOOK_LOST;
    }

    Kind(String title) {
      this.title = title;
    }

    String word() {
      return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }
  }

  /**
   * @param left for how many more calls; {@link #NO_END} while nothing but time ends it
   * @param until when it ends; {@link Instant#MAX} if no time ends it
   * @param share how many of a hundred calls it meets
   * @param owed what of a share the calls so far have left over, so that exactly so many are met
   * @param field the field that is renamed, and what it is called then, parted by a colon
   */
  record Fault(
      Kind kind,
      String method,
      String below,
      Duration pause,
      int left,
      Instant until,
      int share,
      int owed,
      String field) {

    /** As it is after a call of its kind, whether that was met or not. */
    Fault after(boolean met) {
      return new Fault(
          kind,
          method,
          below,
          pause,
          met && left != NO_END ? left - 1 : left,
          until,
          share,
          (owed + share) % 100,
          field);
    }

    boolean isDue() {
      return owed + share >= 100;
    }

    boolean fits(String calledMethod, String path) {
      return !kind.ofHooks()
          && (method.isEmpty() || method.equals(calledMethod))
          && path.startsWith(below);
    }
  }

  private static final int NO_END = Integer.MAX_VALUE;

  private final InstantSource clock;
  private final List<Fault> active = new ArrayList<>();
  private boolean tells;

  Faults(InstantSource clock) {
    this.clock = clock;
  }

  /** Says that the system tells by webhooks, so that these can go wrong too. */
  synchronized void ofHooksToo() {
    tells = true;
  }

  /** What goes wrong with the webhook that is sent now. */
  synchronized HookTrouble takeOfHooks() {
    return first(fault -> fault.kind().ofHooks())
        .map(
            met ->
                switch (met.kind()) {
                  case HOOK_TWICE -> HookTrouble.TWICE;
                  case HOOK_LOST -> HookTrouble.LOST;
                  default -> HookTrouble.OUT_OF_ORDER;
                })
        .orElse(HookTrouble.NONE);
  }

  /** Takes the first fault that meets the call, one call off it. */
  synchronized Optional<Fault> take(String method, String path) {
    return first(fault -> fault.fits(method, path));
  }

  private Optional<Fault> first(Predicate<Fault> fits) {
    endThoseThatAreOver();
    for (int i = 0; i < active.size(); i++) {
      Fault fault = active.get(i);
      if (fits.test(fault)) {
        active.set(i, fault.after(fault.isDue()));
        if (fault.isDue()) {
          return Optional.of(fault);
        }
      }
    }
    return Optional.empty();
  }

  private void endThoseThatAreOver() {
    Instant now = clock.instant();
    active.removeIf(one -> one.left() == 0 || !one.until().isAfter(now));
  }

  @Override
  public synchronized void add(JsonNode wish) {
    int minutes = number(wish, "minutes", 0, 10_000);
    int share = number(wish, "share", 0, 100);
    boolean ended = minutes > 0 || share > 0;
    int calls = number(wish, "calls", ended ? 0 : 1, 1_000_000);
    active.add(
        new Fault(
            kind(wish),
            wish.path("method").asText(""),
            wish.path("below").asText("/api"),
            Duration.ofMillis(wish.path("waitMillis").asLong(1000)),
            calls == 0 ? NO_END : calls,
            minutes > 0 ? clock.instant().plus(Duration.ofMinutes(minutes)) : Instant.MAX,
            share == 0 ? 100 : share,
            0,
            wish.path("field").asText("")));
  }

  private static Kind kind(JsonNode wish) {
    String word = wish.path("kind").asText();
    return Arrays.stream(Kind.values())
        .filter(kind -> kind.word().equals(word))
        .findFirst()
        .orElseThrow(() -> Refusal.ofField("kind", "no fault is called " + word));
  }

  private static int number(JsonNode wish, String name, int otherwise, int most) {
    int number = wish.path(name).asInt(otherwise);
    if (number < 0 || number > most) {
      throw Refusal.ofField(name, name + " is a number up to " + most);
    }
    return number;
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
    endThoseThatAreOver();
    ArrayNode on = list.putArray("on");
    for (Fault fault : active) {
      ObjectNode one = on.addObject();
      one.put("kind", fault.kind().word());
      one.put("method", fault.method()).put("below", fault.below()).put("share", fault.share());
      if (fault.left() != NO_END) {
        one.put("calls", fault.left());
      }
      if (!fault.until().equals(Instant.MAX)) {
        one.put("until", fault.until().toString());
      }
    }
    return list;
  }
}
