package org.ysthmos.app.resend;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.dispatch.Foresight;
import org.ysthmos.app.incident.IncidentBook;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.trace.CarriedBy;
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
   * @param was what it came to before; null if it was not decided yet
   * @param version by which version; null if by none
   * @param reason why it failed or passed by, as it was said; may be empty
   * @param left why it is not sent again with others; empty if it is
   * @param verdict null if it cannot be decided now
   * @param because why it would pass by, fail or stay as it is; may be empty
   * @param fields what would be written
   */
  record ForeseenView(
      String trace,
      String title,
      String bridge,
      Instant receivedAt,
      @Schema(nullable = true) @Nullable Verdict was,
      @Schema(nullable = true) @Nullable Integer version,
      String reason,
      String left,
      @Schema(nullable = true) @Nullable Verdict verdict,
      String because,
      List<Foresight.FieldNow> fields) {}

  /**
   * What waits would become.
   *
   * @param foreseen the first of them, in order
   * @param inAll how many wait, or were chosen
   * @param sendable how many of those can be sent again together
   */
  record ForeseenList(List<ForeseenView> foreseen, int inAll, int sendable) {}

  /**
   * What a person chose.
   *
   * @param chosen the ids of traces
   * @param rules by which they would cross; the live ones if null
   */
  record ForesightWish(List<String> chosen, @Schema(nullable = true) @Nullable CarriedBy rules) {}

  private final Foresight foresight;
  private final Resends sending;
  private final ResendMapper resends;
  private final IncidentBook incidents;
  private final TraceMapper traces;
  private final TraceQueue queue;
  private final Bridges bridges;

  ForesightController(
      Foresight foresight,
      Resends sending,
      ResendMapper resends,
      IncidentBook incidents,
      TraceMapper traces,
      TraceQueue queue,
      Bridges bridges) {
    this.foresight = foresight;
    this.sending = sending;
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
   * @param rules by which the incident's would cross
   */
  @GetMapping
  ForeseenList foreseen(
      @RequestParam(required = false) @Nullable Long incident,
      @RequestParam(required = false) @Nullable String bridge,
      @RequestParam(defaultValue = "LIVE") CarriedBy rules) {
    if (incident != null) {
      String cause = incidents.get(incident).cause();
      List<TraceRow> rows = new ArrayList<>();
      for (long seq : resends.first(cause, MOST)) {
        Optional.ofNullable(traces.at(seq)).ifPresent(rows::add);
      }
      int meant = resends.meant(cause).traces();
      return new ForeseenList(views(rows, rules), meant, meant);
    }
    if (bridge == null) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST, "Of what", "Say which incident or which bridge.");
    }
    if (bridges.live(bridge).isEmpty()) {
      throw ApiProblem.notFound("live bridge", bridge);
    }
    int waiting = Math.max(0, queue.waiting(bridge) - queue.delivering(bridge));
    return new ForeseenList(
        views(traces.undecided(bridge, MOST), CarriedBy.LIVE), waiting, waiting);
  }

  /** What those that were chosen would become; those that cannot be sent together come first. */
  @PostMapping
  ForeseenList foreseen(@RequestBody ForesightWish wish) {
    List<TraceRow> sendable = new ArrayList<>();
    List<ForeseenView> all = new ArrayList<>();
    for (TraceRow row : sending.chosen(wish.chosen())) {
      Resends.obstacle(row)
          .ifPresentOrElse(
              words -> all.add(view(row, words, null, "", List.of())), () -> sendable.add(row));
    }
    int inAll = all.size() + sendable.size();
    all.addAll(
        views(
            sendable.subList(0, Math.min(MOST, sendable.size())),
            Objects.requireNonNullElse(wish.rules(), CarriedBy.LIVE)));
    return new ForeseenList(all, inAll, sendable.size());
  }

  private List<ForeseenView> views(List<TraceRow> rows, CarriedBy rules) {
    return foresight.of(rows, rules).stream()
        .map(one -> view(one.trace(), "", one.verdict(), one.because(), one.fields()))
        .toList();
  }

  private ForeseenView view(
      TraceRow trace,
      String left,
      @Nullable Verdict verdict,
      String because,
      List<Foresight.FieldNow> fields) {
    return new ForeseenView(
        trace.id(),
        Optional.ofNullable(trace.title()).orElse(record(trace)),
        bridges.nameOf(trace.bridgeId()),
        trace.receivedAt(),
        trace.verdict(),
        trace.bridgeVersion(),
        Optional.ofNullable(trace.reason()).orElse(""),
        left,
        verdict,
        because,
        fields);
  }

  /** What was not decided yet is known by its record alone. */
  private static String record(TraceRow trace) {
    return trace.orderKey().substring(trace.orderKey().lastIndexOf('/') + 1);
  }
}
