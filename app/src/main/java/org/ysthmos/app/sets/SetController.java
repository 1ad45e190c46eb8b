package org.ysthmos.app.sets;

import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.dispatch.SetForesight;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.event.RecordName;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledPlan;
import org.ysthmos.core.decide.Anchor;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.value.Day;

/** The sets of tasks that a bridge made, and what would move in them. */
@RestController
@RequestMapping(path = "/api/bridges/{id}/sets", produces = MediaType.APPLICATION_JSON_VALUE)
class SetController {

  /** Among so many of the newest events records are looked for. */
  private static final int EVENTS = 200;

  private static final int RECORDS = 40;

  /** A record that a set is of, or may be. */
  record SetView(String record, String name) {}

  /**
   * The sets of a bridge.
   *
   * @param noAnchor what becomes of a set whose day is taken away; empty if that fails
   */
  record SetsView(List<SetView> sets, String noAnchor) {}

  private final Bridges bridges;
  private final EventMapper events;
  private final SetForesight foresight;

  SetController(Bridges bridges, EventMapper events, SetForesight foresight) {
    this.bridges = bridges;
    this.events = events;
    this.foresight = foresight;
  }

  /** The records of which something was heard last. */
  @GetMapping
  SetsView sets(@PathVariable String id) {
    BridgeVersion bridge = bridge(id);
    var from = bridge.definition().from();
    Map<String, SetView> sets = new LinkedHashMap<>();
    for (EventRow row : events.newestOf(from.system(), from.collection(), from.events(), EVENTS)) {
      if (sets.size() < RECORDS && !sets.containsKey(row.recordId())) {
        ReceivedEvents.readable(row)
            .ifPresent(
                event ->
                    sets.put(
                        row.recordId(),
                        new SetView(row.recordId(), RecordName.of(bridge.source(), event))));
      }
    }
    return new SetsView(
        List.copyOf(sets.values()),
        plan(bridge).noAnchor().map(word -> DocumentNode.wordOf(word)).orElse(""));
  }

  /**
   * What would become of the tasks of a record's set.
   *
   * @param day the new anchor; none if it is taken away
   */
  @GetMapping("/moved")
  SetForesight.MovedView moved(
      @PathVariable String id,
      @RequestParam String record,
      @RequestParam(required = false) @Nullable LocalDate day) {
    BridgeVersion bridge = bridge(id);
    var from = bridge.definition().from();
    EventRow last =
        events
            .before(from.system(), from.collection(), record, Long.MAX_VALUE, from.events(), 1)
            .stream()
            .findFirst()
            .orElseThrow(() -> ApiProblem.notFound("event of this bridge's source about", record));
    if (day == null && plan(bridge).noAnchor().isEmpty()) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "Not stated",
          "The bridge does not say what becomes of a set whose day is taken away (no-anchor); such an event fails.");
    }
    return foresight.of(bridge, last, new Anchor(Optional.ofNullable(day).map(Day::new)));
  }

  private BridgeVersion bridge(String id) {
    return bridges
        .live(id)
        .map(Bridges.Live::version)
        .filter(version -> version.plan() instanceof CompiledPlan.Set)
        .orElseThrow(() -> ApiProblem.notFound("live bridge that makes sets of tasks", id));
  }

  private static CompiledPlan.Set plan(BridgeVersion bridge) {
    return (CompiledPlan.Set) bridge.plan();
  }
}
