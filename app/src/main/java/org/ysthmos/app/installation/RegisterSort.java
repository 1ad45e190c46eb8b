package org.ysthmos.app.installation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.ysthmos.app.register.Cards;
import org.ysthmos.app.register.Cards.Card;
import org.ysthmos.app.who.By;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentText;

/** What people say of the bridges: whose they are, and how sound they judge them. */
@Component
@Order(7)
class RegisterSort implements Sort {

  static final String PATH = "register.yaml";
  private static final int LONGEST = 200;

  private final Cards cards;
  private final BridgeSort bridges;

  RegisterSort(Cards cards, BridgeSort bridges) {
    this.cards = cards;
    this.bridges = bridges;
  }

  @Override
  public boolean owns(String path) {
    return path.equals(PATH);
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, Card> said = new TreeMap<>(cards.all());
    said.keySet().retainAll(bridges.here().keySet().stream().map(bridges::id).toList());
    SortedMap<String, String> here = new TreeMap<>();
    if (!said.isEmpty()) {
      here.put(PATH, write(said));
    }
    return here;
  }

  private static String write(SortedMap<String, Card> said) {
    SequencedMap<String, Object> all = new LinkedHashMap<>();
    said.forEach((bridge, card) -> all.put(bridge, group(card)));
    SequencedMap<String, Object> document = new LinkedHashMap<>();
    document.put("bridges", all);
    return DocumentText.write(document);
  }

  private static Map<String, Object> group(Card card) {
    Map<String, Object> group = new LinkedHashMap<>();
    add(group, "owner", card.owner());
    add(group, "stand-in", card.standIn());
    add(group, "department", card.department());
    add(group, "judged", card.judged());
    return group;
  }

  private static void add(Map<String, Object> group, String key, String text) {
    if (!text.isEmpty()) {
      group.put(key, text);
    }
  }

  private static SortedMap<String, Card> read(String text) {
    DocumentNode root = DocumentNode.parse(text);
    root.only("bridges");
    SortedMap<String, Card> said = new TreeMap<>();
    root.need("bridges").group().forEach((bridge, card) -> said.put(bridge, card(card)));
    return said;
  }

  private static Card card(DocumentNode node) {
    node.only("owner", "stand-in", "department", "judged");
    node.get("judged")
        .ifPresent(
            judged -> {
              if (!Cards.judgements().contains(judged.text())) {
                throw judged.refuse("one of " + String.join(", ", Cards.judgements()));
              }
            });
    return new Card(
        text(node, "owner"),
        text(node, "stand-in"),
        text(node, "department"),
        text(node, "judged"));
  }

  private static String text(DocumentNode node, String key) {
    String text = node.get(key).map(DocumentNode::text).orElse("").strip();
    if (text.length() > LONGEST) {
      throw node.need(key).refuse("at most " + LONGEST + " characters");
    }
    return text;
  }

  @Override
  public String asExported(String path, String text) {
    return write(read(text));
  }

  @Override
  public List<String> differences(String path, String before, String after) {
    Map<String, Card> was = read(before);
    Map<String, Card> is = read(after);
    TreeSet<String> both = new TreeSet<>(was.keySet());
    both.addAll(is.keySet());
    List<String> words = new ArrayList<>();
    for (String bridge : both) {
      Card then = was.getOrDefault(bridge, Card.NONE);
      Card now = is.getOrDefault(bridge, Card.NONE);
      if (!then.equals(now)) {
        words.add("%s: %s → %s".formatted(bridge, group(then), group(now)));
      }
    }
    return words;
  }

  @Override
  public void put(String path, String text, By by) {
    Map<String, Card> wanted = read(text);
    Map<String, Card> now = cards.all();
    now.keySet().stream()
        .filter(bridge -> !wanted.containsKey(bridge))
        .forEach(bridge -> cards.keep(bridge, Card.NONE, by));
    wanted.forEach(
        (bridge, card) -> {
          if (!card.equals(now.getOrDefault(bridge, Card.NONE))) {
            cards.keep(bridge, card, by);
          }
        });
  }

  @Override
  public void remove(String path, By by) {
    cards.all().keySet().forEach(bridge -> cards.keep(bridge, Card.NONE, by));
  }
}
