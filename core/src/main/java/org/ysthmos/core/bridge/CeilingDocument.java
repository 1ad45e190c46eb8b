package org.ysthmos.core.bridge;

import java.time.Duration;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.BridgeDefinition.Ceiling;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.document.DocumentNode;

/** How a ceiling stands in a document: {@code { creates: 40, messages: 20, per: PT1H }}. */
public final class CeilingDocument {

  /** What each kind of effect is called. */
  public static final SequencedMap<String, EffectKind> KINDS = new LinkedHashMap<>();

  static {
    KINDS.put("creates", EffectKind.CREATE);
    KINDS.put("changes", EffectKind.CHANGE);
    KINDS.put("messages", EffectKind.MESSAGE);
  }

  private CeilingDocument() {}

  static Ceiling read(DocumentNode node) {
    node.only("creates", "changes", "messages", "per");
    Duration per = BridgeReader.span(node.need("per"));
    if (per.isNegative() || per.isZero()) {
      throw node.refuse("a ceiling is for a span longer than nothing");
    }
    Map<EffectKind, Integer> most = new EnumMap<>(EffectKind.class);
    KINDS.forEach(
        (key, kind) -> node.get(key).ifPresent(number -> most.put(kind, atLeastOne(number))));
    if (most.isEmpty()) {
      throw node.refuse(
          "say the most of at least one of creates, changes and messages; without a ceiling all"
              + " three are reckoned");
    }
    return new Ceiling(most, per);
  }

  private static int atLeastOne(DocumentNode node) {
    int most = node.wholeNumber();
    if (most < 1) {
      throw node.refuse("a ceiling is at least 1; a bridge that is to do nothing is held");
    }
    return most;
  }

  static SequencedMap<String, Object> written(Ceiling ceiling) {
    SequencedMap<String, Object> document = new LinkedHashMap<>();
    KINDS.forEach(
        (key, kind) -> {
          Integer most = ceiling.most().get(kind);
          if (most != null) {
            document.put(key, most);
          }
        });
    document.put("per", ceiling.per().toString());
    return document;
  }
}
