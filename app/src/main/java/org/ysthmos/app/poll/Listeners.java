package org.ysthmos.app.poll;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.gateway.ChangeGateway.Listening;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.gateway.SystemGateway;

/**
 * Listens to the collections that give word of changes, as long as they are asked at all. A word
 * only makes them be asked at once; the interval goes on beside it.
 */
final class Listeners {

  private record Listener(SystemGateway gateway, Optional<Listening> listening) {}

  private final Systems systems;
  private final Consumer<CollectionRef> changed;
  private final Map<CollectionRef, Listener> heard = new HashMap<>();

  /**
   * @param changed told of a place at each word
   */
  Listeners(Systems systems, Consumer<CollectionRef> changed) {
    this.systems = systems;
    this.changed = changed;
  }

  /** Begins and ends listening so that it is these places, through the gateways of now. */
  synchronized void listenTo(Set<CollectionRef> places) {
    heard
        .entrySet()
        .removeIf(
            entry -> {
              Optional<SystemGateway> now = gateway(entry.getKey());
              boolean stays =
                  places.contains(entry.getKey())
                      && now.filter(entry.getValue().gateway()::equals).isPresent();
              if (!stays) {
                entry.getValue().listening().ifPresent(Listening::close);
              }
              return !stays;
            });
    for (CollectionRef place : places) {
      gateway(place)
          .ifPresent(
              gateway ->
                  heard.computeIfAbsent(
                      place,
                      at ->
                          new Listener(
                              gateway, gateway.listen(at.collection(), () -> changed.accept(at)))));
    }
  }

  private Optional<SystemGateway> gateway(CollectionRef place) {
    return systems.find(place.system()).map(Systems.Connected::gateway);
  }

  synchronized void close() {
    heard.values().forEach(one -> one.listening().ifPresent(Listening::close));
    heard.clear();
  }
}
