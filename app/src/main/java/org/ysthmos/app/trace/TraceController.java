package org.ysthmos.app.trace;

import io.swagger.v3.oas.annotations.media.Schema;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
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
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.shape.CollectionShape;

/** Finding traces, opening one, sending one again. */
@RestController
@RequestMapping(path = "/api/traces", produces = MediaType.APPLICATION_JSON_VALUE)
class TraceController {

  private static final int PAGE = 50;
  private static final Duration USUAL_SPAN = Duration.ofDays(7);
  private static final Instant EARLIEST = Instant.EPOCH;
  private static final Instant LATEST = Instant.parse("9999-12-31T23:59:59Z");

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
   * @param place what the place is called that it came from, of a bridge that hears several; empty
   *     of one that hears one
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
      String place,
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
   * @param incident the number of the incident that it waits for; null if it waits for none
   * @param failures all that failed, in order
   * @param chain what caused it, and what it caused
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
      @Schema(nullable = true) @Nullable Long incident,
      List<FailureView> failures,
      ChainView chain,
      TraceStory story) {}

  /**
   * The chain in which a trace stands: what was written from here came back as another's event.
   *
   * @param before the traces that led to it, the first first; none for most
   * @param earlier how many came before those
   * @param caused the traces that it led to directly
   */
  record ChainView(List<LinkView> before, int earlier, List<LinkView> caused) {}

  /** A trace in a chain. */
  record LinkView(String id, String bridgeName, String title, Verdict verdict) {}

  /**
   * One failure of a trace.
   *
   * @param kind in words
   * @param system where it happened; empty if it happened here
   * @param field which it is about; empty if about none
   * @param code what the system called it
   * @param remedy what a person can do; empty if nothing is known
   */
  record FailureView(
      String kind,
      String system,
      String collection,
      String field,
      String code,
      String message,
      String remedy) {}

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
  private final TraceSearch search;
  private final EventMapper events;
  private final Stories stories;
  private final FailureMapper failures;
  private final TraceCauses causes;
  private final BridgeOfTrace bridges;
  private final Systems systems;
  private final Resender resender;
  private final AppClock clock;

  TraceController(
      TraceMapper traces,
      TraceSearch search,
      EventMapper events,
      Stories stories,
      FailureMapper failures,
      TraceCauses causes,
      BridgeOfTrace bridges,
      Systems systems,
      Resender resender,
      AppClock clock) {
    this.traces = traces;
    this.search = search;
    this.events = events;
    this.stories = stories;
    this.failures = failures;
    this.causes = causes;
    this.bridges = bridges;
    this.systems = systems;
    this.resender = resender;
    this.clock = clock;
  }

  @GetMapping
  TracePage find(
      @RequestParam(required = false) @Nullable String bridge,
      @RequestParam(required = false) @Nullable String place,
      @RequestParam(required = false) @Nullable String verdict,
      @RequestParam(required = false) @Nullable Instant since,
      @RequestParam(required = false) @Nullable Instant until,
      @RequestParam(required = false) @Nullable String text,
      @RequestParam(required = false) @Nullable Long before) {
    // What came while the clock was ahead is in the future now, and must not be hidden by that.
    Instant end = until == null ? LATEST : until;
    Instant start =
        since == null ? (until == null ? clock.instant() : until).minus(USUAL_SPAN) : since;
    if (start.isBefore(EARLIEST) || end.isAfter(LATEST)) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "The time is out of range",
          "since and until lie between the years 1970 and 9999.");
    }
    Filter asked = asked(blankToNull(verdict));
    List<TraceRow> rows =
        search.page(
            new TraceSearch.Wish(
                blankToNull(bridge),
                blankToNull(place),
                asked.wanted(),
                asked.verdict(),
                start,
                end,
                text == null ? "" : text.strip(),
                before),
            PAGE + 1);
    boolean more = rows.size() > PAGE;
    List<TraceRow> page = more ? rows.subList(0, PAGE) : rows;
    return new TracePage(
        page.stream().map(this::summary).toList(), more ? page.getLast().seq() : null, start);
  }

  private static final List<String> VERDICTS =
      Stream.concat(
              Stream.of(org.ysthmos.core.decide.Verdict.values()).map(Words::word),
              Stream.of("waiting", "needs-you"))
          .toList();

  private record Filter(
      TraceSearch.Wanted wanted, org.ysthmos.core.decide.@Nullable Verdict verdict) {}

  private static Filter asked(@Nullable String word) {
    if (word == null) {
      return new Filter(TraceSearch.Wanted.ALL, null);
    }
    // As addresses of screens write it, and as answers do.
    String plain = word.toLowerCase(Locale.ROOT).replace('_', '-');
    return switch (plain) {
      case "waiting" -> new Filter(TraceSearch.Wanted.UNDER_WAY, null);
      case "needs-you" -> new Filter(TraceSearch.Wanted.NEEDS_A_PERSON, null);
      default ->
          Stream.of(org.ysthmos.core.decide.Verdict.values())
              .filter(one -> Words.word(one).equals(plain))
              .findFirst()
              .map(one -> new Filter(TraceSearch.Wanted.WITH_VERDICT, one))
              .orElseThrow(
                  () ->
                      new ApiProblem(
                          HttpStatus.BAD_REQUEST,
                          "There is no such verdict",
                          Words.capital(Nearest.unknown("verdict", word, VERDICTS))));
    };
  }

  private static @Nullable String blankToNull(@Nullable String text) {
    return text == null || text.isBlank() ? null : text;
  }

  private TraceSummary summary(TraceRow row) {
    Optional<BridgeVersion> bridge = bridges.find(row);
    String name = bridge.map(version -> version.definition().name()).orElse(row.bridgeId());
    // System and collection come before it, or nothing but a mark of a try; a record's own id may
    // hold slashes.
    String[] key = row.orderKey().split("/", 3);
    String record = key[key.length - 1];
    Instant finished = row.finishedAt();
    return new TraceSummary(
        row.id(),
        row.bridgeId(),
        name,
        bridge.flatMap(version -> placeName(version, row)).orElse(""),
        row.isTry() ? null : row.bridgeVersion(),
        verdict(row),
        Optional.ofNullable(row.title()).orElse(record),
        record,
        text(row.targetRecord()),
        row.failureKind() == null ? "" : row.failureKind().words(),
        text(row.reason()),
        row.tries() + 1,
        row.receivedAt(),
        finished == null ? null : Duration.between(row.receivedAt(), finished).toMillis(),
        row.resentAs() != null,
        row.isTry(),
        row.takenBackAt());
  }

  /** What the place is called that it came from, where its bridge hears several. */
  private Optional<String> placeName(BridgeVersion bridge, TraceRow row) {
    String[] place = row.orderKey().split("/", 3);
    return bridge
        .place()
        .filter(any -> place.length > 1)
        .flatMap(any -> systems.find(place[0], place[1]))
        .map(CollectionShape::name);
  }

  /** Where the task of a trace stands: where it was delivered to, else where it would be. */
  private Optional<CollectionRef> stands(TraceRow row, Optional<BridgeVersion> bridge) {
    return Optional.ofNullable(traces.deliveredTo(row.seq()))
        .map(at -> new CollectionRef(at.systemId(), at.collectionId()))
        .or(
            () ->
                bridge
                    .map(BridgeVersion::target)
                    .map(target -> new CollectionRef(target.system(), target.collection())));
  }

  private static Verdict verdict(TraceRow row) {
    var verdict = row.verdict();
    return verdict == null ? Verdict.WAITING : Verdict.valueOf(verdict.name());
  }

  private static String text(@Nullable String text) {
    return text == null ? "" : text;
  }

  @GetMapping("/{id}")
  TraceView one(@PathVariable String id) {
    TraceRow row = Optional.ofNullable(traces.find(id)).orElseThrow(() -> missing(id));
    EventMapper.EventRow event =
        Optional.ofNullable(events.find(row.eventSeq())).orElseThrow(() -> missing(id));
    Optional<BridgeVersion> bridge = bridges.find(row);
    String source = bridge.map(b -> b.source().systemName()).orElse(event.systemId());
    String target = bridge.map(b -> b.target().systemName()).orElse("");
    String page =
        Optional.ofNullable(row.targetRecord())
            .flatMap(
                task ->
                    stands(row, bridge)
                        .flatMap(at -> systems.page(at.system(), at.collection(), task)))
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
        text(row.resentAs()),
        text(row.resendOf()),
        failures.incidentOf(row.seq()),
        failures.of(row.seq()).stream().map(TraceController::failure).toList(),
        chain(row),
        stories.read(row, event));
  }

  private ChainView chain(TraceRow row) {
    TraceCauses.Chain chain = causes.chain(row.seq());
    return new ChainView(links(chain.before()), chain.earlier(), links(chain.caused()));
  }

  private List<LinkView> links(List<TraceRow> rows) {
    return rows.stream()
        .map(this::summary)
        .map(one -> new LinkView(one.id(), one.bridgeName(), one.title(), one.verdict()))
        .toList();
  }

  private static FailureView failure(FailureMapper.FailureRow row) {
    return new FailureView(
        row.kind().words(),
        row.systemId(),
        row.collectionId(),
        row.field(),
        row.code(),
        row.message(),
        row.remedy());
  }

  private static ApiProblem missing(String id) {
    return ApiProblem.notFound("trace", id);
  }

  @PostMapping("/{id}/resend")
  ResponseEntity<Resent> resend(
      @PathVariable String id, @RequestParam(defaultValue = "LIVE") CarriedBy rules) {
    return ResponseEntity.accepted().body(new Resent(resender.resend(id, By.PERSON, rules)));
  }
}
