package org.ysthmos.app.practice;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

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

  private final PracticeSwitches switches;

  PracticeController(PracticeSwitches switches) {
    this.switches = switches;
  }

  @GetMapping
  List<FaultView> all(@PathVariable String id) {
    JsonNode list = switches.call(id, "GET", JsonNodeFactory.instance.objectNode());
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
    JsonNode unused = switches.call(id, "POST", body);
    return all(id);
  }

  @DeleteMapping
  List<FaultView> switchOff(@PathVariable String id) {
    JsonNode unused = switches.call(id, "DELETE", JsonNodeFactory.instance.objectNode());
    return all(id);
  }
}
