package org.ysthmos.app.practice;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.guard.Ceilings;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.who.By;
import org.ysthmos.app.work.WorkSignals;

/**
 * A runaway for practice: bridges that feed each other are let go, and something is made that they
 * run with. Where it is made says the switch {@code runaway} at the practice address of the system
 * that the first of them reads from.
 */
@RestController
@RequestMapping(path = "/api/practice/runaway", produces = MediaType.APPLICATION_JSON_VALUE)
class RunawayController {

  /** A bridge that runs away. */
  record RunawayBridge(String id, String name) {}

  private final PracticeBridges practice;
  private final PracticeSwitches switches;
  private final Bridges bridges;
  private final Ceilings ceilings;
  private final WorkSignals signals;
  private final LiveFeed feed;

  RunawayController(
      PracticeBridges practice,
      PracticeSwitches switches,
      Bridges bridges,
      Ceilings ceilings,
      WorkSignals signals,
      LiveFeed feed) {
    this.practice = practice;
    this.switches = switches;
    this.bridges = bridges;
    this.ceilings = ceilings;
    this.signals = signals;
    this.feed = feed;
  }

  /** The bridges that would run away; none where nobody set any up. */
  @GetMapping
  List<RunawayBridge> all() {
    return practice.ids().stream().map(id -> new RunawayBridge(id, bridges.nameOf(id))).toList();
  }

  /** Lets them go. What they did before counts against their ceilings no more. */
  @PostMapping
  @ResponseStatus(HttpStatus.ACCEPTED)
  void begin() {
    if (practice.ids().isEmpty()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT, "Nothing to practise on", "No bridges were set up for practice.");
    }
    // Before anything goes: what one does the moment it is let go counts already.
    practice.ids().forEach(ceilings::clear);
    practice.letGo(By.PERSON);
    String first = practice.ids().getFirst();
    String system = bridges.live(first).orElseThrow().version().definition().from().system();
    ObjectNode wish = JsonNodeFactory.instance.objectNode().put("kind", "runaway");
    JsonNode unused = switches.call(system, "POST", wish);
    signals.raiseAll();
    practice.ids().forEach(id -> feed.changed(id, ""));
  }
}
