package org.ysthmos.app.resend;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.dispatch.Foresight;
import org.ysthmos.app.incident.IncidentBook;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.core.decide.Verdict;

/** What waits would become now, before it is sent again or let go. */
@RestController
@RequestMapping(path = "/api/foreseen", produces = MediaType.APPLICATION_JSON_VALUE)
class ForesightController {

  /** Each may ask a lookup of a system; more are not looked through by anybody. */
  private static final int MOST = 50;

  /**
   * What one event would become.
   *
   * @param trace the id of the trace that waits
   * @param was why it waits, as it was said; empty if it was not decided yet
   * @param verdict null if it cannot be decided now
   * @param because why it would pass by, fail or stay as it is; may be empty
   * @param fields what would be written
   */
  record ForeseenView(
      String trace,
      String title,
      String bridge,
      Instant receivedAt,
      String was,
      @Schema(nullable = true) @Nullable Verdict verdict,
      String because,
      List<Foresight.FieldNow> fields) {}

  /**
   * What waits would become.
   *
   * @param foreseen the first of them, in order
   * @param inAll how many wait
   */
  record ForeseenList(List<ForeseenView> foreseen, int inAll) {}

  private final Foresight foresight;
  private final ResendMapper resends;
  private final IncidentBook incidents;
  private final TraceMapper traces;
  private final TraceQueue queue;
  private final Bridges bridges;

  ForesightController(
      Foresight foresight,
      ResendMapper resends,
      IncidentBook incidents,
      TraceMapper traces,
      TraceQueue queue,
      Bridges bridges) {
    this.foresight = foresight;
    this.resends = resends;
    this.incidents = incidents;
    this.traces = traces;
    this.queue = queue;
    this.bridges = bridges;
  }

  /**
   * What the events of an incident, or those that wait at a held bridge, would become.
   *
   * @param incident the incident; null if a bridge is given
   * @param bridge the bridge; null if an incident is given
   */
  @GetMapping
  ForeseenList foreseen(
      @RequestParam(required = false) @Nullable Long incident,
      @RequestParam(required = false) @Nullable String bridge) {
    if (incident != null) {
      String cause = incidents.get(incident).cause();
      List<TraceRow> rows = new ArrayList<>();
      for (long seq : resends.first(cause, MOST)) {
        Optional.ofNullable(traces.at(seq)).ifPresent(rows::add);
      }
      return new ForeseenList(views(rows), resends.meant(cause).traces());
    }
    if (bridge == null) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST, "Of what", "Say which incident or which bridge.");
    }
    if (bridges.live(bridge).isEmpty()) {
      throw ApiProblem.notFound("live bridge", bridge);
    }
    int waiting = Math.max(0, queue.waiting(bridge) - queue.delivering(bridge));
    return new ForeseenList(views(traces.undecided(bridge, MOST)), waiting);
  }

  private List<ForeseenView> views(List<TraceRow> rows) {
    return foresight.of(rows).stream()
        .map(
            one ->
                new ForeseenView(
                    one.trace().id(),
                    Optional.ofNullable(one.trace().title()).orElse(record(one.trace())),
                    bridges.nameOf(one.trace().bridgeId()),
                    one.trace().receivedAt(),
                    Optional.ofNullable(one.trace().reason()).orElse(""),
                    one.verdict(),
                    one.because(),
                    one.fields()))
        .toList();
  }

  /** What was not decided yet is known by its record alone. */
  private static String record(TraceRow trace) {
    return trace.orderKey().substring(trace.orderKey().lastIndexOf('/') + 1);
  }
}
