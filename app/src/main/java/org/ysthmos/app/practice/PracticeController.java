package org.ysthmos.app.practice;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.swagger.v3.oas.annotations.media.Schema;
import java.net.URI;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.http.HttpCaller;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.Settings;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.gateway.RemoteCall;

/**
 * The faults of a system for practice. An installation says where they are switched ({@code
 * practice-address}); a GET there answers with {@code kinds} and those that are {@code on}, a POST
 * switches one on, a DELETE all of them off.
 */
@RestController
@RequestMapping(path = "/api/systems/{id}/faults", produces = MediaType.APPLICATION_JSON_VALUE)
class PracticeController {

  /**
   * @param kind the word for it
   * @param title the same for people
   * @param calls for how many more calls; 0 if their number does not end it
   * @param until when it ends; null if no time ends it
   * @param share how many of a hundred calls it meets
   */
  record FaultView(
      String kind,
      String title,
      boolean on,
      int calls,
      @Schema(nullable = true) @Nullable Instant until,
      int share) {}

  /**
   * One of the three numbers says how long it lasts; the others are 0.
   *
   * @param calls for how many calls
   * @param minutes for how long
   * @param share for how many of a hundred calls, until it is switched off
   * @param field the field that is renamed and what it is called then, parted by a colon; empty for
   *     other faults
   */
  record FaultWish(String kind, int calls, int minutes, int share, String field) {}

  private final Systems systems;
  private final Surroundings surroundings;

  PracticeController(Systems systems, AppClock clock, Settings settings) {
    this.systems = systems;
    this.surroundings =
        new Surroundings(
            name -> Optional.empty(), clock, settings.outgoing().policy(), settings.drops());
  }

  @GetMapping
  List<FaultView> all(@PathVariable String id) {
    JsonNode list = call(id, "GET", JsonNodeFactory.instance.objectNode());
    List<FaultView> faults = new ArrayList<>();
    for (JsonNode kind : list.path("kinds")) {
      faults.add(view(kind, list.path("on")));
    }
    return faults;
  }

  /** The one of a kind that was switched on last stands for the kind. */
  private static FaultView view(JsonNode kind, JsonNode allOn) {
    JsonNode on = MissingNode.getInstance();
    for (JsonNode one : allOn) {
      on = one.path("kind").equals(kind.path("kind")) ? one : on;
    }
    return new FaultView(
        kind.path("kind").asText(),
        kind.path("title").asText(),
        !on.isMissingNode(),
        on.path("calls").asInt(0),
        on.has("until") ? Instant.parse(on.path("until").asText()) : null,
        on.path("share").asInt(100));
  }

  @PostMapping
  List<FaultView> switchOn(@PathVariable String id, @RequestBody FaultWish wish) {
    ObjectNode body = JsonNodeFactory.instance.objectNode();
    body.put("kind", wish.kind()).put("below", "/").put("field", wish.field());
    body.put("calls", wish.calls()).put("minutes", wish.minutes()).put("share", wish.share());
    JsonNode unused = call(id, "POST", body);
    return all(id);
  }

  @DeleteMapping
  List<FaultView> switchOff(@PathVariable String id) {
    JsonNode unused = call(id, "DELETE", JsonNodeFactory.instance.objectNode());
    return all(id);
  }

  private JsonNode call(String id, String method, ObjectNode body) {
    URI at =
        systems
            .find(id)
            .map(Systems.Connected::description)
            .flatMap(SystemDescription::practice)
            .orElseThrow(() -> ApiProblem.notFound("system for practice", id));
    String text = body.isEmpty() ? "" : body.toString();
    try (HttpCaller caller = HttpCaller.plain(at, surroundings)) {
      HttpCaller.Answer answer =
          caller.call(
              new HttpCaller.Sending(
                  RemoteCall.Purpose.CHANGE, method, at, Map.of(), "application/json", text, false),
              call -> {});
      if (answer instanceof Answered answered && answered.status() / 100 == 2) {
        return answered.body();
      }
      throw new ApiProblem(
          HttpStatus.BAD_GATEWAY,
          "The faults cannot be switched",
          "The switches at " + at + " do not answer as they should.");
    }
  }
}
