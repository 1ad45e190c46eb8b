package org.ysthmos.core.bridge;

import java.time.Duration;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.BridgeDefinition.Ceiling;
import org.ysthmos.core.bridge.BridgeDefinition.From;
import org.ysthmos.core.bridge.BridgeDefinition.IfGone;
import org.ysthmos.core.bridge.BridgeDefinition.To;
import org.ysthmos.core.bridge.LookupRule.NoneFound;
import org.ysthmos.core.bridge.LookupRule.Origin;
import org.ysthmos.core.bridge.LookupRule.Several;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.condition.ConditionDocument;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.RuleDocument;
import org.ysthmos.core.rule.ValueRule;

/** Reads a bridge document. What it does not know it refuses, with line and column. */
public final class BridgeReader {

  /** So that nobody asks a system without pause. */
  private static final Duration SHORTEST_INTERVAL = Duration.ofSeconds(10);

  private BridgeReader() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public static BridgeDefinition read(DocumentNode root) {
    root.only(
        "bridge",
        "name",
        "purpose",
        "from",
        "to",
        "lookups",
        "values",
        "when",
        "match",
        "for-each",
        "set",
        "fields",
        "ceiling");
    return new BridgeDefinition(
        root.need("bridge").id(),
        root.need("name").text(),
        root.need("purpose").text(),
        from(root.need("from")),
        to(root.need("to")),
        root.get("lookups").map(BridgeReader::lookups).orElse(List.of()),
        root.get("values").map(BridgeReader::values).orElse(new LinkedHashMap<>()),
        root.get("when").map(ConditionDocument::read).orElse(Condition.ALWAYS),
        match(root.need("match")),
        PlanDocument.read(root),
        fields(root.need("fields")),
        ceiling(root.need("ceiling")));
  }

  private static From from(DocumentNode node) {
    node.only("system", "collection", "event", "every", "own-writes");
    return new From(
        node.need("system").text(),
        node.need("collection").text(),
        node.need("event").texts(),
        node.get("every").map(BridgeReader::interval),
        node.get("own-writes").map(DocumentNode::flag).orElse(false));
  }

  private static Duration interval(DocumentNode node) {
    Duration every = span(node);
    if (every.compareTo(SHORTEST_INTERVAL) < 0) {
      throw node.refuse("a system is asked every 10 seconds at the most; write PT10S or longer");
    }
    return every;
  }

  private static To to(DocumentNode node) {
    node.only("system", "collection", "if-gone");
    return new To(
        node.need("system").text(),
        node.need("collection").text(),
        node.get("if-gone").map(word -> word.word(IfGone.class)).orElse(IfGone.ASK));
  }

  private static List<LookupRule> lookups(DocumentNode node) {
    List<LookupRule> lookups = new ArrayList<>();
    node.group().forEach((name, rule) -> lookups.add(lookup(name, rule)));
    return lookups;
  }

  private static LookupRule lookup(String name, DocumentNode rule) {
    rule.only("in", "from", "by", "none", "several");
    if (Address.RESERVED.contains(name) || !DocumentNode.isId(name)) {
      throw rule.refuse("a lookup cannot be called “" + name + "”");
    }
    String[] in = rule.need("in").text().split("/", -1);
    if (in.length != 2) {
      throw rule.need("in").refuse("write it as system/collection");
    }
    SequencedMap<String, ValueRule> by = new LinkedHashMap<>();
    rule.need("by").group().forEach((key, value) -> by.put(key, RuleDocument.read(value)));
    if (by.isEmpty()) {
      throw rule.need("by").refuse("say at least one key to look it up by");
    }
    return new LookupRule(
        name,
        in[0],
        in[1],
        rule.get("from").map(from -> from.word(Origin.class)).orElse(Origin.SYSTEM),
        by,
        rule.get("none").map(none -> none.word(NoneFound.class)).orElse(NoneFound.FAIL),
        rule.get("several").map(BridgeReader::several).orElse(Several.FAIL));
  }

  private static Several several(DocumentNode node) {
    if (node.isText()) {
      if (!node.text().equals("fail")) {
        throw node.refuse("write several: fail, or several: { first-by: /field }");
      }
      return Several.FAIL;
    }
    node.only("first-by", "descending");
    return new Several(
        Optional.of(node.need("first-by").parsed(Pointer::parse)),
        node.get("descending").map(DocumentNode::flag).orElse(false));
  }

  private static SequencedMap<String, ValueRule> values(DocumentNode node) {
    SequencedMap<String, ValueRule> values = new LinkedHashMap<>();
    node.group()
        .forEach(
            (name, rule) -> {
              if (!DocumentNode.isId(name)) {
                throw rule.refuse("a value cannot be called “" + name + "”");
              }
              values.put(name, RuleDocument.read(rule));
            });
    return values;
  }

  private static List<Address> match(DocumentNode node) {
    List<Address> match = node.list().stream().map(Address::read).toList();
    if (match.isEmpty()) {
      throw node.refuse("say at least one value that makes two events be about the same thing");
    }
    return match;
  }

  static List<FieldRule> fields(DocumentNode node) {
    List<FieldRule> fields = new ArrayList<>();
    node.group()
        .forEach((field, rule) -> fields.add(new FieldRule(field, RuleDocument.read(rule))));
    return fields;
  }

  private static Ceiling ceiling(DocumentNode node) {
    node.only("creates", "per");
    int creates = node.need("creates").wholeNumber();
    Duration per = span(node.need("per"));
    if (creates < 1 || per.isNegative() || per.isZero()) {
      throw node.refuse("a ceiling is at least 1 in a span longer than nothing");
    }
    return new Ceiling(creates, per);
  }

  private static Duration span(DocumentNode node) {
    try {
      return Duration.parse(node.text());
    } catch (DateTimeParseException e) {
      throw node.refuse("“" + node.text() + "” is no span of time; write PT1H or P1D");
    }
  }
}
