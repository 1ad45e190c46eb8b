package org.ysthmos.app.bridge;

import java.util.List;
import org.ysthmos.app.event.Aside;
import org.ysthmos.core.bridge.BridgeDefinition;

/** What a bridge listens to. */
public record Listens(String system, String collection, List<String> kinds) {

  static Listens of(BridgeDefinition.From from) {
    return new Listens(from.system(), from.collection(), List.copyOf(from.events()));
  }

  static Listens read(String kept) {
    String[] parts = kept.split("\n", -1);
    return new Listens(
        parts[0],
        parts.length > 1 ? parts[1] : "",
        List.of(parts).subList(Math.min(2, parts.length), parts.length));
  }

  String write() {
    return String.join("\n", system, collection, String.join("\n", kinds));
  }

  boolean hears(String fromSystem, String fromCollection, String kind) {
    return system.equals(fromSystem)
        && collection.equals(fromCollection)
        && (kinds.contains(kind) || kind.equals(Aside.KIND));
  }
}
