package org.ysthmos.core.bridge;

import java.time.Duration;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.BridgeDefinition.Ceiling;
import org.ysthmos.core.bridge.BridgeDefinition.Turns;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.document.DocumentNode;

/**
 * How a ceiling stands in a document: {@code { creates: 40, messages: 20, per: PT1H }}, and beside
 * it what a bridge may do about its own doing: {@code { again: 1, chain: 4, same-task: 20 }}.
 */
public final class CeilingDocument {

  /** What each kind of effect is called. */
  public static final SequencedMap<String, EffectKind> KINDS = new LinkedHashMap<>();

  static {
    KINDS.put("creates", EffectKind.CREATE);
    KINDS.put("changes", EffectKind.CHANGE);
    KINDS.put("messages", EffectKind.MESSAGE);
  }

  private static final String AGAIN = "again";
  private static final String CHAIN = "chain";
  private static final String SAME_TASK = "same-task";

  private CeilingDocument() {}

  /** The least that each of the keys can be given, for those who describe the document. */
  public static SequencedMap<String, Integer> least() {
    SequencedMap<String, Integer> least = new LinkedHashMap<>();
    KINDS.keySet().forEach(kind -> least.put(kind, 1));
    least.put(AGAIN, 0);
    least.put(CHAIN, 1);
    least.put(SAME_TASK, 1);
    return least;
  }

  static Ceiling read(DocumentNode node) {
    node.only("creates", "changes", "messages", AGAIN, CHAIN, SAME_TASK, "per");
    Duration per = BridgeReader.span(node.need("per"));
    if (per.isNegative() || per.isZero()) {
      throw node.refuse("a ceiling is for a span longer than nothing");
    }
    Map<EffectKind, Integer> most = new EnumMap<>(EffectKind.class);
    KINDS.forEach(
        (key, kind) -> node.get(key).ifPresent(number -> most.put(kind, atLeastOne(number))));
    Turns turns =
        new Turns(
            node.get(AGAIN).map(number -> within(number, 0)).orElse(Turns.USUAL.again()),
            node.get(CHAIN).map(number -> within(number, 1)).orElse(Turns.USUAL.chain()),
            node.get(SAME_TASK).map(CeilingDocument::atLeastOne).orElse(Turns.USUAL.sameTask()));
    if (most.isEmpty() && turns.equals(Turns.USUAL)) {
      throw node.refuse(
          "say the most of at least one of creates, changes, messages, again, chain and same-task;"
              + " without a ceiling the first three are reckoned");
    }
    return new Ceiling(most, per, turns);
  }

  private static int within(DocumentNode node, int least) {
    int most = node.wholeNumber();
    if (most < least || most > Turns.MOST) {
      throw node.refuse("this is a number from %d to %d".formatted(least, Turns.MOST));
    }
    return most;
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
    Turns turns = ceiling.turns();
    note(document, AGAIN, turns.again(), Turns.USUAL.again());
    note(document, CHAIN, turns.chain(), Turns.USUAL.chain());
    note(document, SAME_TASK, turns.sameTask(), Turns.USUAL.sameTask());
    document.put("per", ceiling.per().toString());
    return document;
  }

  /** What is usual need not be said. */
  private static void note(
      SequencedMap<String, Object> document, String key, int stated, int usual) {
    if (stated != usual) {
      document.put(key, stated);
    }
  }
}
