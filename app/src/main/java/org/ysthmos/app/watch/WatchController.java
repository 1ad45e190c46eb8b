package org.ysthmos.app.watch;

import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import org.ysthmos.app.Settings;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.courier.DeliveryQueue;
import org.ysthmos.app.duplicate.Duplicates;
import org.ysthmos.app.fullcheck.LastChecks;
import org.ysthmos.app.incident.IncidentKeeper;
import org.ysthmos.app.incident.IncidentViews;
import org.ysthmos.app.incident.IncidentViews.IncidentLine;
import org.ysthmos.app.live.LiveFeed;
import org.ysthmos.app.places.PlaceOffers;
import org.ysthmos.app.reference.EndingCalendars;
import org.ysthmos.app.rhythm.Rhythms;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.sync.Disagreements;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.testplan.TestPlans;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.FailureMapper;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.TraceQueue;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.rhythm.Rhythm;

/** What Watch shows. */
@RestController
@RequestMapping(path = "/api", produces = MediaType.APPLICATION_JSON_VALUE)
class WatchController {

  private static final Duration DAY = Duration.ofHours(24);

  /** So many leave room for the bridges below. */
  private static final int MOST_INCIDENTS = 12;

  private static final int SLOTS = (int) DAY.dividedBy(TraceEnds.SLOT);

  /**
   * The whole place.
   *
   * @param now the time of the application
   * @param zone the zone in which times are shown
   * @param since where the bars start
   * @param incidents what waits for a person, by cause, the few with most waiting
   * @param incidentsInAll how many incidents are not closed
   * @param incidentsProblem why incidents cannot be looked at; empty if they can
   * @param tellingProblem why nobody could be told of incidents; empty if all is told or will be
   * @param possibleDuplicates how many tasks a person says of whether they are there twice
   * @param disagreements of how many fields a person says what is right, as both sides disagree
   * @param checks the last full checks that found what is not put right, or broke off
   * @param unreadable the systems whose documents cannot be read any more
   * @param broken the bridges that cannot be used any more
   * @param calendars those whose days off run out
   * @param places places that wait to be taken by bridges which hear several, or left out
   * @param tests tests of bridges that are due, or failed the last time
   * @param bridges those that are live, but for those that were set up held and never ran
   * @param noRoom what is short on the disk; null if there is room
   * @param past how far the past is that a new demo gets; null where the time is the machine's
   */
  record Watch(
      Instant now,
      String zone,
      Instant since,
      List<IncidentLine> incidents,
      int incidentsInAll,
      String incidentsProblem,
      String tellingProblem,
      int possibleDuplicates,
      int disagreements,
      List<LastChecks.CheckLine> checks,
      List<UnreadableLine> unreadable,
      List<BrokenLine> broken,
      List<EndingCalendars.EndingLine> calendars,
      List<PlaceOffers.OfferedPlaces> places,
      List<TestPlans.Waiting> tests,
      List<BridgeLine> bridges,
      @Schema(nullable = true) @Nullable NoRoom noRoom,
      @Schema(nullable = true) @Nullable Past past) {}

  /**
   * The disk is nearly full, so nothing is taken in or carried across.
   *
   * @param text how much is free and how much is wanted
   */
  record NoRoom(Instant since, String text) {}

  /**
   * A past that is being lived through.
   *
   * @param from where it began
   * @param until the time of the machine
   */
  record Past(Instant from, Instant until) {}

  /**
   * A system whose document cannot be read any more.
   *
   * @param waiting how many deliveries wait for it
   * @param problem why, and where
   */
  record UnreadableLine(String system, Instant since, int waiting, String problem) {}

  /**
   * A bridge that was live and cannot be used any more.
   *
   * @param problem why, and where
   * @param waiting how many events wait until it can
   */
  record BrokenLine(String id, String problem, int waiting) {}

  /**
   * One live bridge.
   *
   * @param bothWays whether it keeps source and target alike
   * @param bars half hours, oldest first
   * @param heldSince null unless it is held: it decides and delivers nothing
   * @param worstMillis the longest from arrival to task in the last 24 hours
   */
  record BridgeLine(
      String id,
      String name,
      String source,
      String target,
      boolean bothWays,
      List<Bar> bars,
      Counts counts,
      int waiting,
      @Schema(nullable = true) @Nullable Instant waitingSince,
      @Schema(nullable = true) @Nullable Long worstMillis,
      @Schema(nullable = true) @Nullable Instant lastEvent,
      @Schema(nullable = true) @Nullable Instant heldSince,
      String heldBecause) {}

  /**
   * One half hour.
   *
   * @param usualFrom the fewest that usually come, nine times of ten; null while that is not known
   * @param usualTo the most that usually come
   */
  record Bar(
      int made,
      int changed,
      int other,
      int failed,
      @Schema(nullable = true) @Nullable Long usualFrom,
      @Schema(nullable = true) @Nullable Long usualTo) {}

  /** The last 24 hours by verdict. */
  record Counts(int made, int changed, int unchanged, int passedBy, int failed) {}

  private final IncidentViews incidents;
  private final IncidentKeeper keeper;
  private final Duplicates duplicates;
  private final Disagreements disagreements;
  private final LastChecks checks;
  private final EndingCalendars calendars;
  private final PlaceOffers places;
  private final TestPlans tests;
  private final FailureMapper failures;
  private final TraceMapper traces;
  private final TraceQueue queue;
  private final DeliveryQueue deliveries;
  private final Bridges bridges;
  private final Systems systems;
  private final Rhythms rhythms;
  private final AppClock clock;
  private final Settings settings;
  private final LiveFeed feed;
  private final DiskRoom room;

  WatchController(
      IncidentViews incidents,
      IncidentKeeper keeper,
      Duplicates duplicates,
      Disagreements disagreements,
      LastChecks checks,
      EndingCalendars calendars,
      PlaceOffers places,
      TestPlans tests,
      FailureMapper failures,
      TraceMapper traces,
      TraceQueue queue,
      DeliveryQueue deliveries,
      Bridges bridges,
      Systems systems,
      Rhythms rhythms,
      AppClock clock,
      Settings settings,
      LiveFeed feed,
      DiskRoom room) {
    this.incidents = incidents;
    this.keeper = keeper;
    this.duplicates = duplicates;
    this.disagreements = disagreements;
    this.checks = checks;
    this.calendars = calendars;
    this.places = places;
    this.tests = tests;
    this.failures = failures;
    this.traces = traces;
    this.queue = queue;
    this.deliveries = deliveries;
    this.bridges = bridges;
    this.systems = systems;
    this.rhythms = rhythms;
    this.clock = clock;
    this.settings = settings;
    this.feed = feed;
    this.room = room;
  }

  @GetMapping("/watch")
  Watch watch() {
    Instant now = clock.instant();
    long last = TraceEnds.slot(now);
    long first = last - SLOTS + 1;
    Map<String, List<FailureMapper.CountRow>> counts =
        failures.counts(first).stream()
            .collect(Collectors.groupingBy(FailureMapper.CountRow::bridgeId));
    Map<String, TraceQueue.Backlog> backlog =
        queue.backlog().stream().collect(Collectors.toMap(row -> row.queue(), row -> row));
    List<BridgeLine> lines =
        bridges.live().stream()
            .filter(bridge -> bridge.hold().filter(Bridges.Hold::bySetup).isEmpty())
            .map(
                bridge -> {
                  String id = bridge.version().definition().id();
                  return line(bridge, counts.getOrDefault(id, List.of()), backlog.get(id), first);
                })
            .toList();
    IncidentViews.Open open = incidents.open(MOST_INCIDENTS);
    return new Watch(
        now,
        settings.zone().getId(),
        Instant.ofEpochSecond(first * TraceEnds.SLOT.toSeconds()),
        open.lines(),
        open.inAll(),
        keeper.problem().orElse(""),
        keeper.tellingProblem().orElse(""),
        duplicates.open(),
        disagreements.open(),
        checks.lines(),
        unreadable(),
        broken(backlog),
        calendars.lines(),
        places.waiting(),
        tests.waiting(),
        lines,
        room.shortage().map(one -> new NoRoom(one.since(), one.sentence())).orElse(null),
        clock.past().map(past -> new Past(past.from(), past.until())).orElse(null));
  }

  private List<UnreadableLine> unreadable() {
    return systems.unreadable().stream()
        .map(
            one ->
                new UnreadableLine(
                    one.id(),
                    one.since(),
                    deliveries.waiting().getOrDefault(one.id(), 0),
                    one.problem()))
        .toList();
  }

  /** The bridges that were live and cannot be used any more. */
  private List<BrokenLine> broken(Map<String, TraceQueue.Backlog> backlog) {
    return bridges.broken().stream()
        .map(
            one -> {
              TraceQueue.Backlog waiting = backlog.get(one.id());
              return new BrokenLine(
                  one.id(), one.problem(), waiting == null ? 0 : waiting.traces());
            })
        .toList();
  }

  private BridgeLine line(
      Bridges.Live live,
      List<FailureMapper.CountRow> counted,
      TraceQueue.@Nullable Backlog backlog,
      long first) {
    BridgeVersion bridge = live.version();
    List<Map<Verdict, Integer>> bars = new ArrayList<>();
    for (int i = 0; i < SLOTS; i++) {
      bars.add(new EnumMap<>(Verdict.class));
    }
    Map<Verdict, Integer> all = new EnumMap<>(Verdict.class);
    long worst = -1;
    for (FailureMapper.CountRow row : counted) {
      all.merge(row.verdict(), row.traces(), Integer::sum);
      int slot = (int) (row.slot() - first);
      if (slot >= 0 && slot < SLOTS) {
        bars.get(slot).merge(row.verdict(), row.traces(), Integer::sum);
      }
      if (row.verdict() == Verdict.CREATE || row.verdict() == Verdict.UPDATE) {
        worst = Math.max(worst, row.worstMillis());
      }
    }
    return new BridgeLine(
        bridge.definition().id(),
        bridge.definition().name(),
        bridge.source().systemName(),
        bridge.target().systemName(),
        bridge.between().isPresent(),
        bars(bridge.definition().id(), first, bars),
        new Counts(
            of(all, Verdict.CREATE),
            of(all, Verdict.UPDATE),
            of(all, Verdict.UNCHANGED),
            of(all, Verdict.PASSED_BY),
            of(all, Verdict.FAILED)),
        backlog == null ? 0 : backlog.traces(),
        backlog == null ? null : backlog.oldest(),
        worst < 0 ? null : worst,
        traces.newestOf(bridge.definition().id()),
        live.hold().map(Bridges.Hold::since).orElse(null),
        live.hold().map(Bridges.Hold::because).orElse(""));
  }

  private List<Bar> bars(String bridge, long first, List<Map<Verdict, Integer>> counted) {
    List<Bar> bars = new ArrayList<>();
    for (Map<Verdict, Integer> one : counted) {
      Optional<Rhythm.Band> usual = rhythms.usual(bridge, first + bars.size());
      bars.add(
          new Bar(
              of(one, Verdict.CREATE),
              of(one, Verdict.UPDATE),
              of(one, Verdict.UNCHANGED) + of(one, Verdict.PASSED_BY),
              of(one, Verdict.FAILED),
              usual.map(Rhythm.Band::low).orElse(null),
              usual.map(Rhythm.Band::high).orElse(null)));
    }
    return bars;
  }

  private static int of(Map<Verdict, Integer> counted, Verdict verdict) {
    return counted.getOrDefault(verdict, 0);
  }

  @Hidden
  @GetMapping(path = "/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
  SseEmitter live() {
    return feed.listen();
  }
}
