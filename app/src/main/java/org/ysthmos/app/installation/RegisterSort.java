package org.ysthmos.app.installation;

import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.ysthmos.app.installation.RegisterDocument.Said;
import org.ysthmos.app.register.Cards;
import org.ysthmos.app.register.Cards.Card;
import org.ysthmos.app.testplan.PlannedTest;
import org.ysthmos.app.testplan.PlannedTests;
import org.ysthmos.app.who.By;

/**
 * What people say of bridges: who looks after each, how sound it is, and which tests are planned.
 * What came of tests is what people did, and stays where it was done.
 */
@Component
@Order(7)
class RegisterSort implements Sort {

  static final String PATH = "register.yaml";

  private final Cards cards;
  private final PlannedTests tests;
  private final BridgeSort bridges;

  RegisterSort(Cards cards, PlannedTests tests, BridgeSort bridges) {
    this.cards = cards;
    this.tests = tests;
    this.bridges = bridges;
  }

  @Override
  public boolean owns(String path) {
    return path.equals(PATH);
  }

  @Override
  public SortedMap<String, String> here() {
    SortedMap<String, Said> said = said();
    said.keySet().retainAll(bridges.here().keySet().stream().map(bridges::id).toList());
    SortedMap<String, String> here = new TreeMap<>();
    if (!said.isEmpty()) {
      here.put(PATH, RegisterDocument.write(said));
    }
    return here;
  }

  /** Of all bridges, also those that are no longer at work. */
  private SortedMap<String, Said> said() {
    Map<String, Card> of = cards.all();
    Map<String, List<PlannedTest>> planned = tests.all();
    SortedMap<String, Said> said = new TreeMap<>();
    Stream.concat(of.keySet().stream(), planned.keySet().stream())
        .forEach(
            bridge ->
                said.put(
                    bridge,
                    new Said(
                        of.getOrDefault(bridge, Card.NONE),
                        planned.getOrDefault(bridge, List.of()))));
    return said;
  }

  @Override
  public String asExported(String path, String text) {
    return RegisterDocument.write(RegisterDocument.read(text));
  }

  @Override
  public List<String> differences(String path, String before, String after) {
    return RegisterDocument.differences(
        RegisterDocument.read(before), RegisterDocument.read(after));
  }

  @Override
  public void put(String path, String text, By by) {
    keep(RegisterDocument.read(text), by);
  }

  @Override
  public void remove(String path, By by) {
    keep(new TreeMap<>(), by);
  }

  private void keep(SortedMap<String, Said> wanted, By by) {
    SortedMap<String, Said> now = said();
    now.keySet().stream()
        .filter(bridge -> !wanted.containsKey(bridge))
        .forEach(bridge -> keep(bridge, Said.NOTHING, by));
    wanted.forEach(
        (bridge, said) -> {
          if (!said.equals(now.getOrDefault(bridge, Said.NOTHING))) {
            keep(bridge, said, by);
          }
        });
  }

  private void keep(String bridge, Said said, By by) {
    cards.keep(bridge, said.card(), by);
    tests.keep(bridge, said.tests(), by);
  }
}
