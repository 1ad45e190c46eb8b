package org.ysthmos.app.where;

import com.fasterxml.jackson.databind.JsonNode;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.hook.PolledEvent;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.app.where.WhereMapper.Place;
import org.ysthmos.app.where.WhereMapper.TraceLine;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.gateway.ChangeGateway.Changed;

/** The bridges that hear of a record, and what they would say of it. */
@Component
class HearingBridges {

  /** The kind of the events that tell of a record that is gone. */
  static final String REMOVED = "removed";

  /** What a bridge would say of the record as it is now. */
  enum Says {
    /** Its conditions let it pass. */
    CARRIES,
    PASSES_BY,
    FAILS,
    /** There is nothing to decide of: neither the record nor an event of it. */
    NOTHING
  }

  /**
   * A bridge that hears of it.
   *
   * @param kinds of event that it hears
   * @param trace of the newest event of it that the bridge had; null if it had none
   * @param verdict what became of that; null while it is under way, or if there was none
   * @param reason why it failed or passed by; empty otherwise
   * @param because why it would pass it by now, or fail; empty if neither
   */
  record HearingBridge(
      String id,
      String name,
      boolean held,
      List<String> kinds,
      @Schema(nullable = true) @Nullable String trace,
      @Schema(nullable = true) @Nullable Verdict verdict,
      String reason,
      Says now,
      String because) {}

  private final Bridges bridges;
  private final Systems systems;
  private final SampleWorld world;
  private final EventMapper events;
  private final AppClock clock;

  HearingBridges(
      Bridges bridges, Systems systems, SampleWorld world, EventMapper events, AppClock clock) {
    this.bridges = bridges;
    this.systems = systems;
    this.world = world;
    this.events = events;
    this.clock = clock;
  }

  /** A bridge as it looks to events of a place. */
  record View(Bridges.Live live, BridgeVersion version) {}

  /** Those that hear of a place. */
  Stream<View> views(Place place) {
    return bridges.live().stream()
        .flatMap(
            live ->
                live.version().views().stream()
                    .filter(view -> view.source().system().equals(place.system()))
                    .filter(view -> view.source().collection().equals(place.collection()))
                    .limit(1)
                    .map(view -> new View(live, view)));
  }

  /**
   * @param record the record as it is now; empty if it is not known
   * @param newest the order number of the newest event of it; empty if nothing was received
   * @param traces of its events, the newest first
   */
  List<HearingBridge> of(
      Place place, Optional<JsonNode> record, Optional<Long> newest, List<TraceLine> traces) {
    // What is looked up is looked up now.
    world.forget();
    return views(place)
        .map(
            view -> {
              String id = view.version().definition().id();
              Optional<TraceLine> trace =
                  traces.stream().filter(line -> line.bridgeId().equals(id)).findFirst();
              Optional<Decision> decision =
                  event(place, view.version(), record, newest)
                      .map(event -> Decider.decide(view.version(), event, world, Mode.PLAIN));
              return new HearingBridge(
                  id,
                  view.version().definition().name(),
                  view.live().hold().isPresent(),
                  view.version().definition().from().events(),
                  trace.map(TraceLine::id).orElse(null),
                  trace.map(TraceLine::verdict).orElse(null),
                  trace.map(TraceLine::reason).orElse(""),
                  decision.map(HearingBridges::says).orElse(Says.NOTHING),
                  decision.map(HearingBridges::because).orElse(""));
            })
        .toList();
  }

  /** What the bridge would be told: the record as it is, or else what was told of it last. */
  private Optional<Event> event(
      Place place, BridgeVersion bridge, Optional<JsonNode> record, Optional<Long> newest) {
    Optional<SystemCollection> collection = systems.collection(place.system(), place.collection());
    Optional<String> kind =
        bridge.definition().from().events().stream()
            .filter(one -> !one.equals(REMOVED))
            .findFirst();
    if (record.isPresent() && collection.isPresent() && kind.isPresent()) {
      return Optional.of(event(place, collection.get(), record.get(), kind.get()));
    }
    return newest.flatMap(
        seq -> {
          EventRow row = events.find(seq);
          return row == null ? Optional.empty() : ReceivedEvents.readable(row);
        });
  }

  /** A record as the event that it would come as. */
  Event event(Place place, SystemCollection collection, JsonNode record, String kind) {
    Changed standing =
        new Changed(
            place.record(),
            version(collection, record),
            Optional.empty(),
            Optional.empty(),
            record);
    return new Event(
        "asked-" + place.record(),
        place.system(),
        place.collection(),
        kind,
        place.record(),
        clock.instant(),
        PolledEvent.data(collection, standing, kind));
  }

  /** The version of a record that was read by itself; empty if its system says none. */
  static String version(SystemCollection collection, JsonNode record) {
    return collection.polled().map(asked -> asked.version().in(record).asText("")).orElse("");
  }

  private static Says says(Decision decision) {
    return switch (decision.verdict()) {
      case FAILED -> Says.FAILS;
      case PASSED_BY -> Says.PASSES_BY;
      default -> Says.CARRIES;
    };
  }

  private static String because(Decision decision) {
    return switch (decision.verdict()) {
      case FAILED ->
          decision.failures().stream().map(Words::sentence).collect(Collectors.joining(" "));
      case PASSED_BY -> decision.because();
      default -> "";
    };
  }
}
