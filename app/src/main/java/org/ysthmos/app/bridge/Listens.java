package org.ysthmos.app.bridge;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.ysthmos.app.event.Aside;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.gateway.CollectionRef;

/** What a bridge listens to: one collection, the two that it keeps alike, or many places. */
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

    boolean hears(String kind) {
      return kinds.contains(kind) || kind.equals(Aside.KIND);
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

  /** Puts what a bridge hears with what others do, by collection. */
  void addTo(Map<CollectionRef, List<Bridges.Hearing>> heard, String bridge) {
    all.forEach(
        one ->
            heard
                .computeIfAbsent(
                    new CollectionRef(one.system(), one.collection()), any -> new ArrayList<>())
                .add(new Bridges.Hearing(bridge, one)));
  }
}
