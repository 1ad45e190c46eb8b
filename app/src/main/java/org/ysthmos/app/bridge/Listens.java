package org.ysthmos.app.bridge;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.ysthmos.app.event.Aside;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;

/** What a bridge listens to: one collection, or the two that it keeps alike. */
public record Listens(List<Heard> all) {

  /** Between the collections, where they are kept as text. */
  private static final String BLANK_LINE = "\n\n";

  /** A collection, and the kinds of event that are heard from it. */
  record Heard(String system, String collection, List<String> kinds) {

    static Heard of(BridgeDefinition bridge) {
      return new Heard(bridge.from().system(), bridge.from().collection(), bridge.heard());
    }

    private static Heard read(String kept) {
      String[] parts = kept.split("\n", -1);
      return new Heard(
          parts[0],
          parts.length > 1 ? parts[1] : "",
          List.of(parts).subList(Math.min(2, parts.length), parts.length));
    }

    private String write() {
      return String.join("\n", system, collection, String.join("\n", kinds));
    }

    private boolean hears(String fromSystem, String fromCollection, String kind) {
      return system.equals(fromSystem)
          && collection.equals(fromCollection)
          && (kinds.contains(kind) || kind.equals(Aside.KIND));
    }
  }

  public Listens {
    all = List.copyOf(all);
  }

  static Listens of(BridgeVersion version) {
    return new Listens(version.views().stream().map(view -> Heard.of(view.definition())).toList());
  }

  static Listens read(String kept) {
    return new Listens(Arrays.stream(kept.split(BLANK_LINE, -1)).map(Heard::read).toList());
  }

  String write() {
    return all.stream().map(Heard::write).collect(Collectors.joining(BLANK_LINE));
  }

  boolean hears(String system, String collection, String kind) {
    return all.stream().anyMatch(one -> one.hears(system, collection, kind));
  }
}
