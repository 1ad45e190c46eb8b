package org.ysthmos.app.chore;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.chore.ChoreMapper.TableRow;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.RecordName;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.timetable.Absence;
import org.ysthmos.app.timetable.HandRuns;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.ChoreSource;
import org.ysthmos.core.chore.ChoreTimes.Progress;
import org.ysthmos.core.chore.ChoreTimes.ToMake;
import org.ysthmos.core.event.Event;

/** The rows of bridges over a table that comes round. */
@RestController
@RequestMapping(path = "/api", produces = MediaType.APPLICATION_JSON_VALUE)
class ChoreController {

  /** So many of the rows are shown that come next, and of those that rest. */
  private static final int SHOWN = 20;

  /** So far ahead is looked. */
  private static final Duration FARTHEST = Duration.ofDays(3660);

  /**
   * A row whose task is made next.
   *
   * @param name what people know the row by; its id if it has no name
   * @param words when it comes round
   * @param due when the time is, and {@code local} as the clocks there show it, without a zone
   * @param make when the task is made
   * @param run whether somebody ran it by hand already, so that it does not come by itself
   */
  record ChoreView(
      String record,
      String name,
      String words,
      Instant due,
      String local,
      String zone,
      Instant make,
      boolean moved,
      boolean run) {}

  /** A row that does not come round, and why. */
  record RestingView(String record, String name, String why) {}

  /**
   * The rows of a live bridge.
   *
   * @param rows how many there are
   * @param rests how many of them rest, of which {@code resting} tells some
   * @param waits of how many no task is made before they were done, or ever any more
   * @param reading whether all are read just now
   * @param read how many were read so far, or the last time
   * @param problem why they could not be read; empty if they could
   * @param stopped why nobody looks at their times; empty if somebody does
   */
  record ChoresView(
      long rows,
      long rests,
      long waits,
      List<RestingView> resting,
      List<ChoreView> next,
      boolean reading,
      int read,
      String problem,
      Absence.@Nullable Stopped stopped) {}

  /** The time of a row that is to be run. */
  record ChoreRunWish(String record, Instant at) {}

  private final Bridges bridges;
  private final ChoreMapper mapper;
  private final KeptChores chores;
  private final EventMapper events;
  private final HandRuns runs;
  private final AppClock clock;

  ChoreController(
      Bridges bridges,
      ChoreMapper mapper,
      KeptChores chores,
      EventMapper events,
      HandRuns runs,
      AppClock clock) {
    this.bridges = bridges;
    this.mapper = mapper;
    this.chores = chores;
    this.events = events;
    this.runs = runs;
    this.clock = clock;
  }

  /** The rows of a live bridge: those that come next, and those that rest. */
  @GetMapping("/bridges/{id}/chores")
  ChoresView ofBridge(@PathVariable String id) {
    BridgeVersion bridge = bridge(id);
    ChoreMapper.Counts counts = mapper.counts(id);
    Optional<TableRow> table = Optional.ofNullable(mapper.table(id));
    List<KeptChores.Kept> next =
        chores.next(bridge, clock.instant().plus(FARTHEST), SHOWN).stream().toList();
    Set<String> run = run(bridge, next);
    return new ChoresView(
        counts.all(),
        counts.resting(),
        counts.waiting(),
        mapper.resting(id, SHOWN).stream().map(row -> resting(bridge, row)).toList(),
        next.stream().flatMap(kept -> view(bridge, kept, run).stream()).toList(),
        table.filter(one -> !one.through()).isPresent(),
        table.map(TableRow::rowsRead).orElse(0),
        table.map(TableRow::problem).orElse(""),
        table.map(TableRow::stopped).map(Absence.Stopped::valueOf).orElse(null));
  }

  private static RestingView resting(BridgeVersion bridge, ChoreMapper.ChoreRow row) {
    return new RestingView(
        row.recordId(),
        RecordName.of(bridge.source(), KeptChores.told(bridge, row)),
        Objects.requireNonNullElse(row.rests(), ""));
  }

  private BridgeVersion bridge(String id) {
    return bridges
        .live(id)
        .map(Bridges.Live::version)
        .filter(version -> version.chores().isPresent())
        .orElseThrow(() -> ApiProblem.notFound("live bridge over rows that come round", id));
  }

  private static Optional<ToMake> next(KeptChores.Kept kept) {
    return kept.times().after(kept.progress(), 1).stream().findFirst();
  }

  /** The ids of the events of those that are kept already. */
  private Set<String> run(BridgeVersion bridge, List<KeptChores.Kept> all) {
    List<String> ids =
        all.stream()
            .flatMap(kept -> next(kept).map(time -> id(bridge, kept, time)).stream())
            .toList();
    return ids.isEmpty()
        ? Set.of()
        : events.known(bridge.definition().from().system(), ids).stream()
            .map(EventMapper.Known::sourceId)
            .collect(Collectors.toSet());
  }

  private static String id(BridgeVersion bridge, KeptChores.Kept kept, ToMake time) {
    return ChoreSource.id(bridge.definition().id(), kept.row().record(), time.time());
  }

  private static Optional<ChoreView> view(
      BridgeVersion bridge, KeptChores.Kept kept, Set<String> run) {
    return next(kept)
        .map(
            time ->
                new ChoreView(
                    kept.row().record(),
                    RecordName.of(bridge.source(), kept.row()),
                    kept.chore().words(),
                    time.time().at().toInstant(),
                    time.time().at().toLocalDateTime().toString(),
                    time.time().at().getZone().getId(),
                    time.make(),
                    time.time().moved(),
                    run.contains(id(bridge, kept, time))));
  }

  /** Runs a time of a row now, past or to come; then it does not come by itself any more. */
  @PostMapping("/bridges/{id}/chores/run")
  HandRuns.RunView run(@PathVariable String id, @RequestBody ChoreRunWish wish) {
    BridgeVersion bridge = bridge(id);
    KeptChores.Kept kept =
        chores
            .find(bridge, wish.record())
            .orElseThrow(() -> ApiProblem.notFound("row that comes round", wish.record()));
    List<ToMake> times = kept.times().after(Progress.from(wish.at().minusNanos(1)), 2);
    if (!times.isEmpty() && times.getFirst().time().at().toInstant().equals(wish.at())) {
      Optional<ToMake> next = times.stream().skip(1).findFirst();
      Event event =
          ChoreSource.asked(
              id, kept.row(), times.getFirst(), By.PERSON.name(), next.map(ToMake::time));
      return runs.run(id, event);
    }
    throw new ApiProblem(
        HttpStatus.UNPROCESSABLE_ENTITY,
        "No such time",
        "The row has no time at %s.".formatted(wish.at()));
  }
}
