package org.ysthmos.app.places;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.rhythm.Rhythms;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceEnds;
import org.ysthmos.app.trace.TracePlaces;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Place;
import org.ysthmos.core.bridge.Places;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.table.ReferenceTable;

/** What becomes of each place that a bridge hears, and which places are offered to it. */
@RestController
@RequestMapping(path = "/api/bridges/{id}/places", produces = MediaType.APPLICATION_JSON_VALUE)
class PlaceController {

  private static final Duration DAY = Duration.ofHours(24);

  /**
   * How what comes from a place is far from usual.
   *
   * @param silent whether nothing comes; otherwise far too much does
   * @param came how many came since
   */
  record PlaceOdd(boolean silent, Instant since, long came, double usual) {}

  /**
   * One place that a bridge hears.
   *
   * @param collection the id of the collection that it is, by which its traces are found
   * @param to what the place is called that its tasks stand in
   * @param gone whether its system does not name it any more
   * @param made of the last 24 hours, as the three after it
   * @param halfHours how many events came in each half hour of the last 24 hours, the oldest first
   * @param creates how many tasks were made in the span of the bridge's ceiling, as the two after
   *     it
   * @param last when its last event came; null if none did
   * @param odd null if nothing is far from usual, or that is not known
   */
  record HeardPlace(
      String id,
      String collection,
      String name,
      String to,
      boolean gone,
      int made,
      int changed,
      int nothing,
      int failed,
      List<Integer> halfHours,
      long creates,
      long changes,
      long messages,
      long underWay,
      long needAPerson,
      @Schema(nullable = true) @Nullable Instant last,
      @Schema(nullable = true) @Nullable PlaceOdd odd) {}

  /** A place that is not heard. */
  record OtherPlace(String id, String name) {}

  /**
   * A column of the table that names the places.
   *
   * @param type the word of its type; of a key {@code text}
   */
  record PlaceColumn(String name, String type) {}

  /**
   * The places of a bridge.
   *
   * @param version the one that is live
   * @param how one of the words “named”, “all” and “table”
   * @param table the id of the table that names them, and {@code tableName} what it is called;
   *     empty where the document does
   * @param columns what a row says of a place beside its id; none where the document names them
   * @param mostCreates the bridge's ceiling, as the two after it
   */
  record PlacesOfBridge(
      String bridge,
      String name,
      int version,
      String systemName,
      String targetName,
      String how,
      String table,
      String tableName,
      List<PlaceColumn> columns,
      long ceilingSeconds,
      long mostCreates,
      long mostChanges,
      long mostMessages,
      List<HeardPlace> places,
      List<OtherPlace> offered,
      List<OtherPlace> leftOut) {}

  /** Places to take. */
  record PlacesToTake(int version, List<PlaceChanges.TakenPlace> places) {}

  /** Places by their ids. */
  record PlaceIds(int version, List<String> ids) {}

  private final Bridges bridges;
  private final PlaceOffers offers;
  private final PlaceChanges changes;
  private final TracePlaces traces;
  private final Rhythms rhythms;
  private final Tables tables;
  private final AppClock clock;

  PlaceController(
      Bridges bridges,
      PlaceOffers offers,
      PlaceChanges changes,
      TracePlaces traces,
      Rhythms rhythms,
      Tables tables,
      AppClock clock) {
    this.bridges = bridges;
    this.offers = offers;
    this.changes = changes;
    this.traces = traces;
    this.rhythms = rhythms;
    this.tables = tables;
    this.clock = clock;
  }

  @GetMapping
  PlacesOfBridge places(@PathVariable String id) {
    Bridges.Live live = bridges.live(id).orElseThrow(() -> ApiProblem.notFound("live bridge", id));
    BridgeVersion bridge = live.version();
    BridgeDefinition definition = bridge.definition();
    Places places =
        definition
            .from()
            .places()
            .orElseThrow(() -> ApiProblem.notFound("bridge that hears several places", id));
    SequencedMap<String, String> known = offers.known(definition.from());
    Optional<ReferenceTable> table = tables.table(places.table());
    return new PlacesOfBridge(
        id,
        definition.name(),
        bridge.number(),
        bridge.source().systemName(),
        bridge.target().systemName(),
        DocumentNode.wordOf(places.how()),
        places.table(),
        table.map(one -> one.definition().name()).orElse(""),
        table.map(one -> columns(places, one)).orElse(List.of()),
        live.ceiling().per().toSeconds(),
        live.ceiling().limit(EffectKind.CREATE).most(),
        live.ceiling().limit(EffectKind.CHANGE).most(),
        live.ceiling().limit(EffectKind.MESSAGE).most(),
        lines(live, known),
        others(offers.offered(bridge)),
        places.leftOut().stream()
            .map(one -> new OtherPlace(one, known.getOrDefault(one, one)))
            .toList());
  }

  private List<HeardPlace> lines(Bridges.Live live, Map<String, String> known) {
    BridgeVersion bridge = live.version();
    Instant now = clock.instant();
    long last = TraceEnds.slot(now);
    Map<String, TracePlaces.Seen> seen =
        traces.seen(
            bridge.definition().id(),
            List.copyOf(bridge.places().sequencedKeySet()),
            TraceEnds.slot(now.minus(DAY)) + 1,
            last,
            now.minus(live.ceiling().per()));
    List<HeardPlace> lines = new ArrayList<>();
    bridge
        .places()
        .forEach(
            (collection, view) -> lines.add(line(view, collection, seen.get(collection), known)));
    return lines;
  }

  private HeardPlace line(
      BridgeVersion view,
      String collection,
      TracePlaces.@Nullable Seen seen,
      Map<String, String> known) {
    TracePlaces.Seen came = Objects.requireNonNull(seen);
    String place = view.place().map(Place::id).orElse(collection);
    return new HeardPlace(
        place,
        collection,
        view.source().name(),
        view.target().name(),
        // Where nothing could be read so far, nothing is known to be gone.
        !known.isEmpty() && !known.containsKey(place),
        came.verdicts().getOrDefault(Verdict.CREATE, 0),
        came.verdicts().getOrDefault(Verdict.UPDATE, 0),
        came.verdicts().getOrDefault(Verdict.UNCHANGED, 0)
            + came.verdicts().getOrDefault(Verdict.PASSED_BY, 0),
        came.verdicts().getOrDefault(Verdict.FAILED, 0),
        came.bySlot(),
        came.effects().getOrDefault(EffectKind.CREATE, 0L),
        came.effects().getOrDefault(EffectKind.CHANGE, 0L),
        came.effects().getOrDefault(EffectKind.MESSAGE, 0L),
        came.underWay(),
        came.needAPerson(),
        came.last(),
        rhythms
            .odd(view.definition().id(), collection)
            .map(odd -> new PlaceOdd(odd.silent(), odd.since(), odd.came(), odd.usual()))
            .orElse(null));
  }

  private static List<PlaceColumn> columns(Places places, ReferenceTable table) {
    String ids = places.columnOf(table.definition());
    List<PlaceColumn> columns = new ArrayList<>();
    table.definition().keys().forEach(key -> columns.add(new PlaceColumn(key, "text")));
    table
        .definition()
        .values()
        .forEach((name, type) -> columns.add(new PlaceColumn(name, type.toString())));
    columns.removeIf(column -> column.name().equals(ids));
    return columns;
  }

  private static List<OtherPlace> others(Map<String, String> places) {
    Map<String, OtherPlace> others = new LinkedHashMap<>();
    places.forEach((id, name) -> others.put(id, new OtherPlace(id, name)));
    return List.copyOf(others.values());
  }

  /** Takes places that are offered. */
  @PostMapping("/take")
  PlacesOfBridge take(@PathVariable String id, @RequestBody PlacesToTake wish) {
    changes.take(id, wish.version(), wish.places());
    return places(id);
  }

  /** Leaves places out, so that they are not offered again. */
  @PostMapping("/leave-out")
  PlacesOfBridge leaveOut(@PathVariable String id, @RequestBody PlaceIds wish) {
    changes.leaveOut(id, wish.version(), wish.ids());
    return places(id);
  }

  /** Offers places again that were left out. */
  @PostMapping("/offer-again")
  PlacesOfBridge offerAgain(@PathVariable String id, @RequestBody PlaceIds wish) {
    changes.offerAgain(id, wish.version(), wish.ids());
    return places(id);
  }
}
