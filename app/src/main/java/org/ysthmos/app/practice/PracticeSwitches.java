package org.ysthmos.app.practice;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.http.HttpCaller;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.Settings;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.gateway.RemoteCall;

/** Speaks to the switches of systems for practice, where an installation says where they are. */
@Component
class PracticeSwitches {

  private final Systems systems;
  private final Surroundings surroundings;

  PracticeSwitches(Systems systems, AppClock clock, Settings settings) {
    this.systems = systems;
    this.surroundings =
        new Surroundings(
            name -> Optional.empty(), clock, settings.outgoing().policy(), settings.drops());
  }

  /**
   * @throws ApiProblem if the system is none for practice, or its switches do not answer
   */
  JsonNode call(String id, String method, ObjectNode body) {
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
