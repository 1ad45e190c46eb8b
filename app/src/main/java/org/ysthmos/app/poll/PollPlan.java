package org.ysthmos.app.poll;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Value;
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
  private final Duration least;

  /**
   * @param least nothing is asked more often, whatever a document says
   */
  PollPlan(
      Bridges bridges,
      Systems systems,
      @Value("${ysthmos.least-poll-interval:PT0S}") Duration least) {
    this.bridges = bridges;
    this.systems = systems;
    this.least = least;
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
        .map(asked -> from.every().orElse(asked.every()))
        .map(every -> every.compareTo(least) < 0 ? least : every);
  }
}
