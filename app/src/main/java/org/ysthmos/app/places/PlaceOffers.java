package org.ysthmos.app.places;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.system.Directories;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Place;
import org.ysthmos.core.bridge.Places;

/** Which places there are in a system that a bridge does not hear, and nobody left out. */
@Component
public class PlaceOffers {

  /**
   * Places that wait to be taken by a bridge or left out.
   *
   * @param names what people call them, in the order of their system
   */
  public record OfferedPlaces(String bridge, String name, String systemName, List<String> names) {}

  private final Bridges bridges;
  private final Systems systems;
  private final Directories directories;

  PlaceOffers(Bridges bridges, Systems systems, Directories directories) {
    this.bridges = bridges;
    this.systems = systems;
    this.directories = directories;
  }

  /**
   * The places of a system that a bridge can name, by id, with what people call them.
   *
   * @param of what the system's document calls them, where it describes many alike
   * @param kinds the kinds of event that are to come from there
   */
  public SequencedMap<String, String> known(
      String systemId, Optional<String> of, List<String> kinds) {
    Optional<SystemDescription> system = systems.find(systemId).map(Systems.Connected::description);
    SequencedMap<String, String> known = new LinkedHashMap<>();
    if (system.isEmpty()) {
      return known;
    }
    if (of.isPresent()) {
      Optional<ManyPlaces> many = Optional.ofNullable(system.get().many().get(of.get()));
      many.ifPresent(one -> known.putAll(directories.names(systemId, one.directory())));
      return known;
    }
    system
        .get()
        .collections()
        .forEach(
            (id, collection) -> {
              if (collection.kinds().containsAll(kinds)) {
                known.put(id, collection.shape().name());
              }
            });
    return known;
  }

  SequencedMap<String, String> known(BridgeDefinition.From from) {
    return known(from.system(), from.places().flatMap(Places::of), from.events());
  }

  /** What is offered to a bridge that hears several places, by id. */
  SequencedMap<String, String> offered(BridgeVersion bridge) {
    Places places = bridge.definition().from().places().orElseThrow();
    SequencedMap<String, String> offered = new LinkedHashMap<>();
    if (!places.offers()) {
      return offered;
    }
    offered.putAll(known(bridge.definition().from()));
    heard(bridge).forEach(offered::remove);
    places.leftOut().forEach(offered::remove);
    return offered;
  }

  /** The ids of the places that a bridge hears. */
  static Set<String> heard(BridgeVersion bridge) {
    return bridge.places().values().stream()
        .flatMap(view -> view.place().stream())
        .map(Place::id)
        .collect(Collectors.toSet());
  }

  /** What is offered to any live bridge. */
  public List<OfferedPlaces> waiting() {
    List<OfferedPlaces> waiting = new ArrayList<>();
    for (Bridges.Live live : bridges.live()) {
      BridgeVersion bridge = live.version();
      Map<String, String> offered = bridge.places().isEmpty() ? Map.of() : offered(bridge);
      if (!offered.isEmpty()) {
        waiting.add(
            new OfferedPlaces(
                bridge.definition().id(),
                bridge.definition().name(),
                bridge.source().systemName(),
                List.copyOf(offered.values())));
      }
    }
    return waiting;
  }
}
