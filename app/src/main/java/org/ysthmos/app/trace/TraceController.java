package org.ysthmos.app.trace;

import io.swagger.v3.oas.annotations.media.Schema;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.BridgeVersion;

/** Finding traces, opening one, sending one again. */
@RestController
@RequestMapping(path = "/api/traces", produces = MediaType.APPLICATION_JSON_VALUE)
class TraceController {

  private static final int PAGE = 50;
  private static final Duration USUAL_SPAN = Duration.ofDays(7);

  /** The verdict of a trace, or that it is still under way. */
  enum Verdict {
    CREATE,
    UPDATE,
    UNCHANGED,
    PASSED_BY,
    FAILED,
    WAITING
  }

  /**
   * One trace in a list.
   *
   * @param reason why it failed or passed by; empty otherwise
   * @param tries how many times it was tried so far
   * @param millis from arrival to the end
   * @param version null before it is decided, and for a try
   * @param trial whether a draft was tried with it
   * @param takenBackAt when what the try made was taken back
   */
  record TraceSummary(
      String id,
      String bridge,
      String bridgeName,
      @Schema(nullable = true) @Nullable Integer version,
      Verdict verdict,
      String title,
      String record,
      String target,
      String failureKind,
      String reason,
      int tries,
      Instant receivedAt,
      @Schema(nullable = true) @Nullable Long millis,
      boolean resent,
      boolean trial,
      @Schema(nullable = true) @Nullable Instant takenBackAt) {}

  /**
   * A page of traces, newest first.
   *
   * @param next where the next page starts; null on the last
   */
  record TracePage(
      List<TraceSummary> traces, @Schema(nullable = true) @Nullable Long next, Instant since) {}

  /**
   * One trace with its story.
   *
   * @param targetPage where a person sees the task; empty if there is no such page
   * @param event the event as it came
   * @param newer the trace of a later resend; empty if there is none
   * @param older the trace that this one is a resend of
   */
  record TraceView(
      TraceSummary trace,
      String source,
      String targetSystem,
      String targetPage,
      String matchKey,
      EventView event,
      String newer,
      String older,
      TraceStory story) {}

  /** The event of a trace, its body as JSON text. */
  record EventView(
      String id,
      String sourceId,
      String kind,
      String record,
      Instant happenedAt,
      Instant receivedAt,
      String body) {}

  /** The new trace of a resend. */
  record Resent(String trace) {}

  private final TraceMapper traces;
  private final EventMapper events;
  private final StoryCodec codec;
  private final BridgeOfTrace bridges;
  private final Systems systems;
  private final Resender resender;
  private final AppClock clock;

  TraceController(
      TraceMapper traces,
      EventMapper events,
      StoryCodec codec,
      BridgeOfTrace bridges,
      Systems systems,
      Resender resender,
      AppClock clock) {
    this.traces = traces;
    this.events = events;
    this.codec = codec;
    this.bridges = bridges;
    this.systems = systems;
    this.resender = resender;
    this.clock = clock;
  }

  @GetMapping
  TracePage find(
      @RequestParam(required = false) @Nullable String bridge,
      @RequestParam(required = false) @Nullable String verdict,
      @RequestParam(required = false) @Nullable Instant since,
      @RequestParam(required = false) @Nullable Instant until,
      @RequestParam(required = false) @Nullable String text,
      @RequestParam(required = false) @Nullable Long before) {
    Instant end = until == null ? clock.instant().plusSeconds(1) : until;
    Instant start = since == null ? end.minus(USUAL_SPAN) : since;
    List<TraceRow> rows =
        traces.search(
            new TraceMapper.Query(
                blankToNull(bridge),
                blankToNull(verdict),
                start,
                end,
                text == null ? null : blankToNull(text.strip().toLowerCase(Locale.ROOT)),
                before,
                PAGE + 1));
    boolean more = rows.size() > PAGE;
    List<TraceRow> page = more ? rows.subList(0, PAGE) : rows;
    return new TracePage(
        page.stream().map(this::summary).toList(), more ? page.getLast().seq() : null, start);
  }

  private static @Nullable String blankToNull(@Nullable String text) {
    return text == null || text.isBlank() ? null : text;
  }

  private TraceSummary summary(TraceRow row) {
    String name =
        bridges.find(row).map(version -> version.definition().name()).orElse(row.bridgeId());
    // System and collection come before it, or nothing but a mark of a try; a record's own id may
    // hold slashes.
    String[] key = row.orderKey().split("/", 3);
    String record = key[key.length - 1];
    Instant finished = row.finishedAt();
    boolean trial = row.tryDocument() != null;
    return new TraceSummary(
        row.id(),
        row.bridgeId(),
        name,
        trial ? null : row.bridgeVersion(),
        row.state().equals("done") ? verdict(row.verdict()) : Verdict.WAITING,
        Optional.ofNullable(row.title()).orElse(record),
        record,
        text(row.targetRecord()),
        text(row.failureKind()).replace('-', ' '),
        text(row.reason()),
        row.tries() + 1,
        row.receivedAt(),
        finished == null ? null : Duration.between(row.receivedAt(), finished).toMillis(),
        row.resent(),
        trial,
        row.takenBackAt());
  }

  private static Verdict verdict(@Nullable String word) {
    return Verdict.valueOf(text(word).toUpperCase(Locale.ROOT).replace('-', '_'));
  }

  private static String text(@Nullable String text) {
    return text == null ? "" : text;
  }

  @GetMapping("/{id}")
  TraceView one(@PathVariable String id) {
    TraceRow row = Optional.ofNullable(traces.find(id)).orElseThrow(() -> missing(id));
    EventMapper.EventRow event =
        Optional.ofNullable(events.find(row.eventId())).orElseThrow(() -> missing(id));
    Optional<BridgeVersion> bridge = bridges.find(row);
    String source = bridge.map(b -> b.source().systemName()).orElse(event.systemId());
    String target = bridge.map(b -> b.target().systemName()).orElse("");
    String page =
        bridge
            .filter(b -> row.targetRecord() != null)
            .flatMap(
                b ->
                    systems.page(
                        b.target().system(), b.target().collection(), text(row.targetRecord())))
            .map(URI::toString)
            .orElse("");
    return new TraceView(
        summary(row),
        source,
        target,
        page,
        text(row.matchText()),
        new EventView(
            event.id(),
            event.sourceId(),
            event.kind(),
            event.recordId(),
            event.happenedAt(),
            event.receivedAt(),
            new String(event.body(), StandardCharsets.UTF_8)),
        text(traces.resendOf(id)),
        text(row.resendOf()),
        codec.read(traces.story(id)));
  }

  private static ApiProblem missing(String id) {
    return ApiProblem.notFound("trace", id);
  }

  @PostMapping("/{id}/resend")
  ResponseEntity<Resent> resend(@PathVariable String id) {
    String fresh = resender.resend(id);
    resender.wake();
    return ResponseEntity.accepted().body(new Resent(fresh));
  }
}
