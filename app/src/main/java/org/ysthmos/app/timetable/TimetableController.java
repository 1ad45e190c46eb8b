package org.ysthmos.app.timetable;

import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.bridge.FromDocument;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.recurrence.Occurrences;
import org.ysthmos.core.recurrence.RuleSentence;
import org.ysthmos.core.recurrence.Timetable;

/** The times of bridges that begin by themselves. */
@RestController
@RequestMapping(path = "/api", produces = MediaType.APPLICATION_JSON_VALUE)
class TimetableController {

  /** So many of the times to come are shown, and of those that came. */
  private static final int SHOWN = 10;

  /**
   * A time to come.
   *
   * @param local as the clocks there show it, without a zone, for example {@code 2026-11-27T06:00}
   * @param clock whether the clock is changed just then
   * @param moved whether it stands on another day than the rule says
   * @param said as the rule says it, in the same way as {@code local}
   * @param run whether somebody ran it by hand already, so that it does not come by itself
   */
  record TimeView(
      Instant at,
      String local,
      Occurrence.ClockChange clock,
      boolean moved,
      String said,
      boolean run) {}

  /**
   * A time that came, or some that were missed and are not made up for.
   *
   * @param what in words what was special with it; empty if it came on time by itself
   */
  record CameView(Instant at, boolean made, String what, String trace) {}

  /**
   * The times of a live bridge.
   *
   * @param next the next ones
   * @param lately those that came last, the newest first
   */
  record TimesView(String zone, List<TimeView> next, List<CameView> lately) {}

  /** What stands under {@code from} in a draft, as JSON. */
  record TimesWish(String from) {}

  /**
   * What a draft says of its times.
   *
   * @param problem why it cannot be read; empty if it can, and all else is empty if not
   * @param rule as RFC 5545 writes it
   * @param start the first time from which the rule counts, without a zone
   */
  record TimesPreview(
      String problem,
      String sentence,
      String rule,
      String start,
      String offDays,
      String zone,
      List<TimeView> next) {}

  /** The time that is to be run. */
  record RunWish(Instant at) {}

  private final Bridges bridges;
  private final Timetables timetables;
  private final CameTimes came;
  private final EventMapper events;
  private final HandRuns runs;
  private final AppClock clock;

  TimetableController(
      Bridges bridges,
      Timetables timetables,
      CameTimes came,
      EventMapper events,
      HandRuns runs,
      AppClock clock) {
    this.bridges = bridges;
    this.timetables = timetables;
    this.came = came;
    this.events = events;
    this.runs = runs;
    this.clock = clock;
  }

  /** The times of a live bridge: those to come, and those that came lately. */
  @GetMapping("/bridges/{id}/times")
  TimesView ofBridge(@PathVariable String id) {
    Timetable timetable = timetable(id);
    List<Occurrence> next = timetables.times(timetable).after(clock.instant(), SHOWN);
    Set<String> run = run(id, next);
    return new TimesView(
        timetable.times().zone().getId(),
        next.stream().map(time -> view(time, run.contains(TimeSource.id(id, time)))).toList(),
        came.lately(id, SHOWN).stream().map(TimetableController::came).toList());
  }

  private Timetable timetable(String id) {
    return bridges
        .live(id)
        .flatMap(live -> live.version().definition().from().times())
        .orElseThrow(() -> ApiProblem.notFound("live bridge that begins with times", id));
  }

  /** The ids of the events of those that are kept already. */
  private Set<String> run(String bridge, List<Occurrence> times) {
    List<String> ids = times.stream().map(time -> TimeSource.id(bridge, time)).toList();
    return ids.isEmpty()
        ? Set.of()
        : events.known(TimeSource.SYSTEM, ids).stream()
            .map(EventMapper.Known::sourceId)
            .collect(Collectors.toSet());
  }

  private static TimeView view(Occurrence time, boolean run) {
    return new TimeView(
        time.at().toInstant(),
        time.at().toLocalDateTime().toString(),
        time.clock(),
        time.moved(),
        time.said().toString(),
        run);
  }

  private static CameView came(CameTimes.Came one) {
    return new CameView(
        one.at(),
        one.made(),
        one.asked().isEmpty() ? one.missed() : "run by hand by " + one.asked(),
        one.trace());
  }

  /** Runs a time now, whether it is past or to come; then it does not come by itself any more. */
  @PostMapping("/bridges/{id}/times/run")
  HandRuns.RunView run(@PathVariable String id, @RequestBody RunWish wish) {
    Occurrences times = timetables.times(timetable(id));
    Occurrence time =
        times.between(wish.at().minusNanos(1), wish.at(), 1).stream()
            .findFirst()
            .orElseThrow(
                () ->
                    new ApiProblem(
                        HttpStatus.UNPROCESSABLE_ENTITY,
                        "No such time",
                        "The rule of the bridge has no time at %s.".formatted(wish.at())));
    return runs.run(id, TimeSource.asked(id, time, By.PERSON.name()));
  }

  /** What a draft says of its times, with the next of them. */
  @PostMapping("/desk/times")
  TimesPreview preview(@RequestBody TimesWish wish) {
    try {
      Timetable timetable = FromDocument.timetable(DocumentNode.parse(wish.from()));
      List<TimeView> next =
          timetables.times(timetable).after(clock.instant(), SHOWN).stream()
              .map(time -> view(time, false))
              .toList();
      return new TimesPreview(
          "",
          RuleSentence.of(timetable.times()),
          timetable.times().rule().orElseThrow().toString(),
          timetable.times().start().toString(),
          DocumentNode.wordOf(timetable.times().offDays()),
          timetable.times().zone().getId(),
          next);
    } catch (DocumentException e) {
      return unreadable(e.problems().getFirst().message());
    } catch (IllegalStateException e) {
      return unreadable(String.valueOf(e.getMessage()));
    }
  }

  private static TimesPreview unreadable(String problem) {
    return new TimesPreview(problem, "", "", "", "", "", List.of());
  }
}
