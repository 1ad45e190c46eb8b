package org.ysthmos.app.bridge;

import java.util.List;
import org.springframework.stereotype.Component;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.guard.WayBack;

/** Ways by which what live bridges write comes back to them. */
@Component
public class Loops {

  private final Bridges bridges;
  private final Systems systems;

  Loops(Bridges bridges, Systems systems) {
    this.bridges = bridges;
    this.systems = systems;
  }

  /** The shortest way back to a live bridge; its places are collections, as their ids. */
  public WayBack.Way wayBack(String bridge) {
    List<WayBack.Carries> all =
        bridges.live().stream().map(live -> carries(live.version().definition())).toList();
    return bridges
        .live(bridge)
        .map(live -> WayBack.of(carries(live.version().definition()), all))
        .orElse(new WayBack.Way(List.of(), List.of()));
  }

  /** The places of a way, as they are called. */
  public List<String> names(WayBack.Way way) {
    return way.places().stream().map(this::name).toList();
  }

  private String name(String place) {
    String system = place.substring(0, place.indexOf('/'));
    String collection = place.substring(place.indexOf('/') + 1);
    return systems
        .find(system)
        .map(one -> one.description().name())
        .map(
            name ->
                systems
                    .collection(system, collection)
                    .map(one -> one.shape().name() + " of " + name)
                    .orElse(name))
        .orElse(place);
  }

  private static WayBack.Carries carries(BridgeDefinition bridge) {
    return new WayBack.Carries(
        bridge.id(),
        bridge.from().system() + "/" + bridge.from().collection(),
        bridge.to().system() + "/" + bridge.to().collection());
  }
}
