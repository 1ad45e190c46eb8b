package org.ysthmos.app.where;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.pair.PairMapper;
import org.ysthmos.app.pair.PairMapper.PairRow;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceRow;
import org.ysthmos.app.trace.TraceSearch;
import org.ysthmos.app.where.WhereMapper.Place;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.shape.CollectionShape;

/** Which records may be meant by an id, a title, a mail address or a link from either side. */
@Component
class Candidates {

  /** So many are shown. */
  static final int MOST = 12;

  private static final int MOST_TRACES = 40;
  private static final int LONGEST_ID = 512;

  /** Stands for the id while a page's address is made, to tell where in it the id stands. */
  private static final String MARK = "0id0of0a0record0";

  private final WhereMapper mapper;
  private final PairMapper pairs;
  private final TraceSearch traces;
  private final Bridges bridges;
  private final Systems systems;
  private final RecordNow now;
  private final AppClock clock;

  Candidates(
      WhereMapper mapper,
      PairMapper pairs,
      TraceSearch traces,
      Bridges bridges,
      Systems systems,
      RecordNow now,
      AppClock clock) {
    this.mapper = mapper;
    this.pairs = pairs;
    this.traces = traces;
    this.bridges = bridges;
    this.systems = systems;
    this.now = now;
    this.clock = clock;
  }

  /**
   * Those that are known here: by a link, as one of a pair, or by words of a trace, the newest
   * first. One more than {@link #MOST} if there are more.
   */
  List<Place> known(String text) {
    Set<Place> found = new LinkedHashSet<>();
    List<Place> linked = linked(text);
    for (Place one : linked) {
      ofPairs(one.record()).forEach(found::add);
    }
    found.addAll(linked);
    if (linked.isEmpty()) {
      ofPairs(text).forEach(found::add);
      found.addAll(ofTraces(text));
    }
    return found.stream().filter(this::isSource).limit(MOST + 1).toList();
  }

  /**
   * Those that their source knows by an id.
   *
   * @param silent the places that did not answer, so that it is not known of them
   * @param notAsked those of which there are many alike, so that none was asked, in words
   */
  record Asked(List<Place> places, List<Place> silent, List<String> notAsked) {}

  /**
   * Asks all places that a bridge hears for an id. Of places that are described alike none is:
   * there may be very many, and an id alone often leads to the same record at each of them.
   */
  Asked asked(String text) {
    List<Place> places = new ArrayList<>();
    List<Place> silent = new ArrayList<>();
    if (!text.isEmpty() && text.length() <= LONGEST_ID && !text.contains(" ")) {
      sources()
          .filter(shape -> systems.manyOf(shape.system(), shape.collection()).isEmpty())
          .map(shape -> new Place(shape.system(), shape.collection(), text))
          .forEach(
              place -> {
                switch (now.ask(place.system(), place.collection(), text).view().state()) {
                  case THERE -> places.add(place);
                  case NO_ANSWER -> silent.add(place);
                  case NOT_THERE, NOT_ASKED -> {}
                }
              });
    }
    return new Asked(places, silent, notAsked());
  }

  private List<String> notAsked() {
    return sources()
        .flatMap(
            shape ->
                systems
                    .manyOf(shape.system(), shape.collection())
                    .map(many -> many.name() + " of " + shape.systemName())
                    .stream())
        .distinct()
        .toList();
  }

  /** The places that bridges hear. */
  private Stream<CollectionShape> sources() {
    Set<Place> seen = new LinkedHashSet<>();
    return bridges.live().stream()
        .flatMap(live -> live.version().views().stream())
        .map(BridgeVersion::source)
        .filter(shape -> seen.add(new Place(shape.system(), shape.collection(), "")));
  }

  /** Whether a bridge hears it; times that come round are no system's records. */
  private boolean isSource(Place place) {
    return systems.find(place.system(), place.collection()).isPresent()
        && sources()
            .anyMatch(
                shape ->
                    shape.system().equals(place.system())
                        && shape.collection().equals(place.collection()));
  }

  /** The records whose page has an address. */
  private List<Place> linked(String text) {
    if (!text.startsWith("http://") && !text.startsWith("https://")) {
      return List.of();
    }
    List<Place> places = new ArrayList<>();
    for (Systems.Connected connected : systems.all()) {
      String system = connected.description().id();
      for (String collection : systems.collectionsOf(connected.description()).keySet()) {
        idIn(text, system, collection)
            .ifPresent(id -> places.add(new Place(system, collection, id)));
      }
    }
    return places;
  }

  private Optional<String> idIn(String link, String system, String collection) {
    return systems
        .page(system, collection, MARK)
        .map(Object::toString)
        .filter(page -> page.contains(MARK))
        .flatMap(
            page -> {
              String before = page.substring(0, page.indexOf(MARK));
              String after = page.substring(page.indexOf(MARK) + MARK.length());
              boolean fits =
                  link.length() > before.length() + after.length()
                      && link.startsWith(before)
                      && link.endsWith(after);
              return fits
                  ? Optional.of(link.substring(before.length(), link.length() - after.length()))
                  : Optional.empty();
            })
        .filter(id -> !id.contains("/") && !id.contains("?") && !id.contains("#"))
        .map(id -> URLDecoder.decode(id.replace("+", "%2B"), StandardCharsets.UTF_8));
  }

  /** The records of pairs of which either is called so. */
  private Stream<Place> ofPairs(String id) {
    if (id.isEmpty() || id.length() > LONGEST_ID) {
      return Stream.empty();
    }
    Stream<PairRow> rows =
        Stream.concat(
            bridges.live().stream()
                .flatMap(live -> pairs.ofSource(live.version().definition().id(), id).stream()),
            systems.all().stream()
                .flatMap(one -> pairs.ofTarget(one.description().id(), id).stream()));
    return rows.map(
        row -> new Place(row.sourceSystem(), row.sourceCollection(), row.sourceRecord()));
  }

  private List<Place> ofTraces(String text) {
    List<Long> found =
        traces.newest(text, Instant.EPOCH, clock.instant(), MOST_TRACES).stream()
            .map(TraceRow::seq)
            .toList();
    return found.isEmpty() ? List.of() : mapper.places(found);
  }
}
