package org.ysthmos.app.where;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.incident.IncidentViews;
import org.ysthmos.app.incident.IncidentViews.IncidentLine;
import org.ysthmos.app.pair.PairMapper;
import org.ysthmos.app.pair.PairMapper.PairRow;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.where.HearingBridges.HearingBridge;
import org.ysthmos.app.where.RecordNow.RecordView;
import org.ysthmos.app.where.WhereMapper.EventLine;
import org.ysthmos.app.where.WhereMapper.Place;
import org.ysthmos.app.where.WhereMapper.TraceLine;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.sync.Side;

/** Where is it? */
@RestController
@RequestMapping(path = "/api/where", produces = MediaType.APPLICATION_JSON_VALUE)
class WhereController {

  private static final int MOST_EVENTS = 20;
  private static final int MOST_INCIDENTS = 50;

  /** What happened so shortly before or after an event may have to do with it. */
  private static final Duration AROUND = Duration.ofHours(1);

  /** As far back as is looked where nothing was ever received. */
  private static final Duration LONG_AGO = Duration.ofDays(7);

  private static final int LONGEST_ID = 512;

  /** In so many of the newest events of a record a title is looked for. */
  private static final int EVENTS_FOR_TITLE = 5;

  /**
   * A record that may be meant.
   *
   * @param place where it stands, in words
   * @param title what the newest of its traces is called; empty if none has a title
   */
  record FoundRecord(String system, String collection, String record, String place, String title) {}

  /**
   * The records that may be meant.
   *
   * @param more whether there are more than are told
   * @param silent the places that were asked and did not answer, in words
   * @param notAsked places described alike that were not asked, since an id alone names none of
   *     them
   */
  record FoundView(
      List<FoundRecord> records, boolean more, List<String> silent, List<String> notAsked) {}

  /**
   * A task that was made of it.
   *
   * @param task its id; empty while it is not made
   * @param stands in words what is special with it; empty if nothing is
   * @param now how it is over there, as asked just now
   */
  record TaskNow(String bridge, String place, String task, String stands, RecordView now) {}

  /**
   * What is known of a record.
   *
   * @param place where it stands, in words
   * @param source how it is there, as asked just now
   * @param tells whether its source tells of changes by itself
   * @param asks whether its source is asked for changes
   * @param lastReceived when anything was received from there last; null if nothing was
   * @param events of it, the newest first
   * @param traces of those events, the newest first
   * @param incidents of those bridges: open ones, and closed ones of the time in which its events
   *     came; where none came, of the time since anything was received from there
   * @param fetchable whether it can be taken in as it is now
   */
  record WhereView(
      String place,
      RecordView source,
      boolean tells,
      boolean asks,
      @Schema(nullable = true) @Nullable Instant lastReceived,
      List<EventLine> events,
      List<TraceLine> traces,
      List<HearingBridge> bridges,
      List<TaskNow> tasks,
      List<IncidentLine> incidents,
      boolean fetchable) {}

  /** A record that is to be taken in. */
  record FetchWish(String system, String collection, String record) {}

  private final WhereMapper mapper;
  private final PairMapper pairs;
  private final SyncedPairs synced;
  private final Candidates candidates;
  private final RecordNow now;
  private final HearingBridges hearing;
  private final Fetching fetching;
  private final IncidentViews incidents;
  private final AppClock clock;
  private final Systems systems;

  WhereController(
      WhereMapper mapper,
      PairMapper pairs,
      SyncedPairs synced,
      Candidates candidates,
      RecordNow now,
      HearingBridges hearing,
      Fetching fetching,
      IncidentViews incidents,
      AppClock clock,
      Systems systems) {
    this.mapper = mapper;
    this.pairs = pairs;
    this.synced = synced;
    this.candidates = candidates;
    this.now = now;
    this.hearing = hearing;
    this.fetching = fetching;
    this.incidents = incidents;
    this.clock = clock;
    this.systems = systems;
  }

  /**
   * The records that may be meant.
   *
   * @param text an id, a title, a mail address or a link from either side
   * @param ask whether the sources are asked for it as an id, where nothing here knows it
   */
  @GetMapping
  FoundView find(@RequestParam String text, @RequestParam(defaultValue = "false") boolean ask) {
    String wanted = text.strip();
    Candidates.Asked found =
        ask
            ? candidates.asked(wanted)
            : new Candidates.Asked(candidates.known(wanted), List.of(), List.of());
    return new FoundView(
        found.places().stream()
            .limit(Candidates.MOST)
            .map(
                one ->
                    new FoundRecord(
                        one.system(),
                        one.collection(),
                        one.record(),
                        words(one.system(), one.collection()),
                        title(one)))
            .toList(),
        found.places().size() > Candidates.MOST,
        found.silent().stream().map(one -> words(one.system(), one.collection())).toList(),
        found.notAsked());
  }

  private String title(Place place) {
    List<Long> newest =
        mapper.events(place, EVENTS_FOR_TITLE).stream().map(EventLine::seq).toList();
    return newest.isEmpty() ? "" : Objects.requireNonNullElse(mapper.title(newest), "");
  }

  private String words(String system, String collection) {
    return systems
        .find(system, collection)
        .map(shape -> "%s of %s".formatted(shape.name(), shape.systemName()))
        .orElse(collection + " of " + system);
  }

  /** All that is known of a record; its source and the places of its tasks are asked. */
  @GetMapping("/record")
  WhereView record(
      @RequestParam String system, @RequestParam String collection, @RequestParam String record) {
    Place place = checked(new Place(system, collection, record));
    RecordNow.Read source = now.ask(system, collection, record);
    List<EventLine> events = mapper.events(place, MOST_EVENTS);
    List<TraceLine> traces =
        events.isEmpty() ? List.of() : mapper.traces(events.stream().map(EventLine::seq).toList());
    Optional<Long> newest = events.stream().findFirst().map(EventLine::seq);
    List<HearingBridge> bridges = hearing.of(place, source.record(), newest, traces);
    Optional<SystemCollection> known = systems.collection(system, collection);
    Instant lastReceived = mapper.newestOf(system, collection);
    return new WhereView(
        words(system, collection),
        source.view(),
        known.flatMap(SystemCollection::push).isPresent(),
        known.flatMap(SystemCollection::polled).isPresent(),
        lastReceived,
        events,
        traces,
        bridges,
        tasks(place, bridges),
        concerning(bridges, events, lastReceived),
        source.record().isPresent() && !fetching.kinds(place, events.isEmpty()).isEmpty());
  }

  private Place checked(Place place) {
    Optional<CollectionShape> known = systems.find(place.system(), place.collection());
    if (known.isEmpty()) {
      throw ApiProblem.notFound("collection", place.system() + "/" + place.collection());
    }
    if (place.record().isBlank() || place.record().length() > LONGEST_ID) {
      throw new ApiProblem(
          HttpStatus.UNPROCESSABLE_ENTITY,
          "No such id",
          "The id of a record has 1 to " + LONGEST_ID + " characters.");
    }
    return place;
  }

  private List<TaskNow> tasks(Place place, List<HearingBridge> bridges) {
    List<TaskNow> tasks = new ArrayList<>();
    for (HearingBridge bridge : bridges) {
      pairs.ofSource(bridge.id(), place.record()).stream()
          .filter(row -> row.effectName() == null)
          .map(row -> task(bridge.id(), row))
          .forEach(tasks::add);
    }
    hearing.views(place).flatMap(view -> across(view, place)).forEach(tasks::add);
    return tasks;
  }

  private TaskNow task(String bridge, PairRow row) {
    String task = Optional.ofNullable(row.targetRecord()).orElse("");
    String stands =
        row.takenBack()
            ? "It was taken back"
            : row.leftSo() ? "Others removed it, and it is left so" : "";
    return task(bridge, row.targetSystem(), row.targetCollection(), task, stands);
  }

  private TaskNow task(
      String bridge, String system, String collection, String task, String stands) {
    return new TaskNow(
        bridge,
        words(system, collection),
        task,
        stands,
        task.isEmpty()
            ? new RecordView(RecordNow.State.NOT_ASKED, "", List.of(), "")
            : now.ask(system, collection, task).view());
  }

  /** The other one of a task that is kept alike. */
  private Stream<TaskNow> across(HearingBridges.View view, Place place) {
    return view.version().between().stream()
        .flatMap(
            both -> {
              Side side = both.from();
              CollectionShape other = both.place(side.across()).shape();
              String bridge = view.version().definition().id();
              return synced.find(bridge, side, place.record()).pair().stream()
                  .map(
                      pair ->
                          task(
                              bridge,
                              other.system(),
                              other.collection(),
                              pair.records().of(side.across()).orElse(""),
                              pair.parted().orElse("")));
            });
  }

  /** Those that are open, and those of the time in which its events came, or should have come. */
  private List<IncidentLine> concerning(
      List<HearingBridge> bridges, List<EventLine> events, @Nullable Instant lastReceived) {
    List<String> ids = bridges.stream().map(HearingBridge::id).toList();
    Instant until = clock.instant();
    Instant from = lastReceived == null ? until.minus(LONG_AGO) : lastReceived;
    if (!events.isEmpty()) {
      from = events.getLast().receivedAt();
      until = events.getFirst().receivedAt().plus(AROUND);
    }
    return Stream.concat(
            incidents.open(MOST_INCIDENTS).lines().stream(),
            incidents.closedOf(from.minus(AROUND), until).stream())
        .filter(line -> line.bridges().stream().anyMatch(one -> ids.contains(one.id())))
        .limit(MOST_INCIDENTS)
        .toList();
  }

  /** Takes the record in as it stands at its source now. */
  @PostMapping("/fetch")
  Fetching.FetchedView fetch(@RequestBody FetchWish wish) {
    Place place = checked(new Place(wish.system(), wish.collection(), wish.record()));
    return fetching.fetch(place, mapper.events(place, 1).isEmpty());
  }
}
