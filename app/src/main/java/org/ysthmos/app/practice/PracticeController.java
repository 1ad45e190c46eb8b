package org.ysthmos.app.practice;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
   * @param calls for how many more calls it is on; 0 if it is off
   */
  record FaultView(String kind, String title, int calls) {}

  /**
   * @param calls for how many calls
   * @param field the field that is renamed and what it is called then, parted by a colon; empty for
   *     other faults
   */
  record FaultWish(String kind, int calls, String field) {}

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
      int calls = 0;
      for (JsonNode on : list.path("on")) {
        if (on.path("kind").equals(kind.path("kind"))) {
          calls += on.path("calls").asInt(1);
        }
      }
      faults.add(new FaultView(kind.path("kind").asText(), kind.path("title").asText(), calls));
    }
    return faults;
  }

  @PostMapping
  List<FaultView> switchOn(@PathVariable String id, @RequestBody FaultWish wish) {
    ObjectNode body = JsonNodeFactory.instance.objectNode();
    body.put("kind", wish.kind()).put("calls", wish.calls()).put("below", "/");
    body.put("field", wish.field());
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
              new HttpCaller.Sending(method, at, Map.of(), "application/json", text, false),
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
