package org.ysthmos.app.poll;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.gateway.CollectionRef;

/** Which collections are asked, and how often: those from which a live or held bridge starts. */
@Component
public class PollPlan {

  private final Bridges bridges;
  private final Systems systems;

  PollPlan(Bridges bridges, Systems systems) {
    this.bridges = bridges;
    this.systems = systems;
  }

  /** The shortest interval that a bridge asks for, by collection. */
  Map<CollectionRef, Duration> all() {
    Map<CollectionRef, Duration> all = new LinkedHashMap<>();
    for (Bridges.Live live : bridges.live()) {
      for (BridgeVersion view : live.version().views()) {
        BridgeDefinition.From from = view.definition().from();
        interval(from)
            .ifPresent(
                every ->
                    all.merge(
                        new CollectionRef(from.system(), from.collection()),
                        every,
                        (one, other) -> one.compareTo(other) < 0 ? one : other));
      }
    }
    return all;
  }

  /** How often a bridge's collection is asked for it; empty if it is not asked but pushes alone. */
  public Optional<Duration> interval(BridgeDefinition.From from) {
    return systems
        .collection(from.system(), from.collection())
        .flatMap(SystemCollection::polled)
        .map(asked -> from.every().orElse(asked.every()));
  }
}
