package org.ysthmos.app.rehearsal;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.rehearsal.RehearsalMapper.DifferenceRow;
import org.ysthmos.app.rehearsal.RehearsalMapper.RehearsalRow;
import org.ysthmos.app.rehearsal.RehearsalMapper.Wanted;
import org.ysthmos.app.who.By;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.rehearsal.Rehearsal.Answers;
import org.ysthmos.core.rehearsal.Rehearsed.FieldDifference;

/** A draft or a version over events of the past, with no effect. */
@RestController
@RequestMapping(path = "/api/rehearsals", produces = MediaType.APPLICATION_JSON_VALUE)
class RehearsalController {

  private static final int PAGE = 50;

  /**
   * The rehearsals of a bridge.
   *
   * @param hasDraft whether something was typed since the live version
   * @param liveVersion null for a draft that was never live
   * @param versions those that can be rehearsed, the newest first
   * @param fieldNames what people call the target's fields, by their keys
   * @param rehearsals the newest first
   */
  record RehearsalsView(
      String bridgeName,
      boolean hasDraft,
      @Schema(nullable = true) @Nullable Integer liveVersion,
      List<Integer> versions,
      boolean bothWays,
      Map<String, String> fieldNames,
      List<RehearsalView> rehearsals) {}

  /**
   * What is to be rehearsed.
   *
   * @param version null for the draft
   * @param since null for all events that are kept
   * @param until null for up to the newest
   * @param most over how many events at most, the newest of them; 100,000 if null
   */
  record RehearsalWish(
      String bridge,
      @Schema(nullable = true) @Nullable Integer version,
      Answers answers,
      @Schema(nullable = true) @Nullable Instant since,
      @Schema(nullable = true) @Nullable Instant until,
      @Schema(nullable = true) @Nullable Integer most) {}

  /**
   * A rehearsal.
   *
   * @param version null for a draft
   * @param sameAsDraft whether the draft is still as it was rehearsed
   * @param total over how many events; null until they are counted
   * @param firstAt between which the events came
   */
  record RehearsalView(
      long id,
      String bridge,
      @Schema(nullable = true) @Nullable Integer version,
      boolean sameAsDraft,
      Answers answers,
      RehearsalState state,
      @Schema(nullable = true) @Nullable Integer total,
      int done,
      int differing,
      TallyJson tally,
      @Schema(nullable = true) @Nullable Instant since,
      @Schema(nullable = true) @Nullable Instant until,
      @Schema(nullable = true) @Nullable Instant firstAt,
      @Schema(nullable = true) @Nullable Instant lastAt,
      String problem,
      Instant begunAt,
      @Schema(nullable = true) @Nullable Instant endedAt) {}

  /** A field that is not as it was, as people read it. */
  record FieldThenAndNow(String field, String then, String now) {}

  /**
   * An event that comes to something else.
   *
   * @param trace the trace of then; null if nothing is known of it
   * @param then null if nothing is known of it
   */
  record DifferenceView(
      int number,
      String event,
      String record,
      Instant receivedAt,
      @Schema(nullable = true) @Nullable String trace,
      String title,
      @Schema(nullable = true) @Nullable Verdict then,
      Verdict now,
      String thenBecause,
      String nowBecause,
      List<FieldThenAndNow> fields) {}

  /**
   * Some of what differs.
   *
   * @param next after which number it goes on; null if these are all that are kept
   */
  record DifferencePage(
      List<DifferenceView> items, @Schema(nullable = true) @Nullable Integer next) {}

  private final Rehearsals rehearsals;
  private final RehearsalRunner runner;
  private final RehearsalMapper mapper;
  private final RehearsalPlaces places;

  RehearsalController(
      Rehearsals rehearsals,
      RehearsalRunner runner,
      RehearsalMapper mapper,
      RehearsalPlaces places) {
    this.rehearsals = rehearsals;
    this.runner = runner;
    this.mapper = mapper;
    this.places = places;
  }

  /** Those of a bridge, the newest first. */
  @GetMapping
  RehearsalsView all(@RequestParam String bridge) {
    RehearsalPlaces.Of of = places.of(bridge);
    return new RehearsalsView(
        of.name(),
        of.draft().isPresent(),
        of.liveVersion().orElse(null),
        of.versions(),
        of.bothWays(),
        of.fieldNames(),
        rehearsals.ofBridge(bridge).stream().map(row -> view(row, of.draft())).toList());
  }

  /** Begins one; it goes on by itself. */
  @PostMapping
  @ResponseStatus(HttpStatus.ACCEPTED)
  RehearsalView begin(@RequestBody RehearsalWish wish) {
    Integer most = wish.most();
    long id =
        rehearsals.begin(
            wish.bridge(),
            new Rehearsals.Wish(
                Optional.ofNullable(wish.version()),
                wish.answers(),
                Optional.ofNullable(wish.since()),
                Optional.ofNullable(wish.until()),
                most == null ? Rehearsals.MOST_EVENTS : most),
            By.PERSON);
    runner.raise();
    return one(id);
  }

  @GetMapping("/{id}")
  RehearsalView one(@PathVariable long id) {
    RehearsalRow row = rehearsals.get(id);
    return view(row, rehearsals.draft(row.bridgeId()));
  }

  @PostMapping("/{id}/stop")
  RehearsalView stop(@PathVariable long id) {
    rehearsals.stop(id);
    return one(id);
  }

  /**
   * What differs, in the order in which the events came.
   *
   * @param then only those that came to this then
   * @param unheard only those of which nothing is known of then
   * @param now only those that come to this now
   * @param field only those in which this field is otherwise
   */
  @GetMapping("/{id}/differences")
  DifferencePage differences(
      @PathVariable long id,
      @RequestParam(defaultValue = "0") int after,
      @RequestParam(required = false) @Nullable Verdict then,
      @RequestParam(defaultValue = "false") boolean unheard,
      @RequestParam(required = false) @Nullable Verdict now,
      @RequestParam(required = false) @Nullable String field) {
    List<DifferenceRow> rows =
        mapper.differences(
            new Wanted(
                rehearsals.get(id).id(),
                after,
                then,
                unheard,
                now,
                field == null ? null : "|" + field + "|",
                PAGE + 1));
    boolean more = rows.size() > PAGE;
    List<DifferenceRow> page = more ? rows.subList(0, PAGE) : rows;
    return new DifferencePage(
        page.stream().map(RehearsalController::view).toList(),
        more ? page.getLast().number() : null);
  }

  private static DifferenceView view(DifferenceRow row) {
    return new DifferenceView(
        row.number(),
        Long.toString(row.eventSeq()),
        row.recordId(),
        row.receivedAt(),
        row.traceId(),
        row.title(),
        row.thenVerdict(),
        row.nowVerdict(),
        row.thenBecause(),
        row.nowBecause(),
        Differences.fields(row).stream().map(RehearsalController::view).toList());
  }

  private static FieldThenAndNow view(FieldDifference field) {
    return new FieldThenAndNow(
        Differences.name(field), field.then().display(), field.now().display());
  }

  private static RehearsalView view(RehearsalRow row, Optional<String> draft) {
    String problem = row.problem();
    return new RehearsalView(
        row.id(),
        row.bridgeId(),
        row.version(),
        draft.filter(row.document()::equals).isPresent(),
        row.answers(),
        row.state(),
        row.total(),
        row.done(),
        row.differing(),
        TallyJson.read(row.tally()),
        row.since(),
        row.until(),
        row.firstAt(),
        row.lastAt(),
        problem == null ? "" : problem,
        row.begunAt(),
        row.endedAt());
  }
}
