package org.ysthmos.core.bridge;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import java.util.function.Function;
import org.ysthmos.core.bridge.BridgeDefinition.Ceiling;
import org.ysthmos.core.bridge.BridgeDefinition.From;
import org.ysthmos.core.bridge.BridgeDefinition.LookupRule;
import org.ysthmos.core.bridge.BridgeDefinition.NoneFound;
import org.ysthmos.core.bridge.BridgeDefinition.To;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.condition.Operator;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.rule.Address;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.Source;
import org.ysthmos.core.rule.Template;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.step.StepKinds;

/** Reads a bridge document. What it does not know it refuses, with line and column. */
public final class BridgeReader {

  private static final String ID = "[a-z0-9]+(-[a-z0-9]+)*";

  private BridgeReader() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public static BridgeDefinition read(DocumentNode root) {
    root.only(
        "bridge", "name", "purpose", "from", "to", "lookups", "when", "match", "fields", "ceiling");
    DocumentNode id = root.need("bridge");
    if (!id.text().matches(ID) || id.text().length() > 64) {
      throw id.refuse("a bridge id is lower case with hyphens, at most 64 characters");
    }
    return new BridgeDefinition(
        id.text(),
        root.need("name").text(),
        root.need("purpose").text(),
        from(root.need("from")),
        to(root.need("to")),
        root.get("lookups").map(BridgeReader::lookups).orElse(List.of()),
        root.get("when").map(BridgeReader::condition).orElse(Condition.ALWAYS),
        match(root.need("match")),
        fields(root.need("fields")),
        ceiling(root.need("ceiling")));
  }

  private static From from(DocumentNode node) {
    node.only("system", "collection", "event");
    DocumentNode event = node.need("event");
    List<String> events = event.isList() ? texts(event) : List.of(event.text());
    return new From(node.need("system").text(), node.need("collection").text(), events);
  }

  private static List<String> texts(DocumentNode node) {
    return node.list().stream().map(DocumentNode::text).toList();
  }

  private static To to(DocumentNode node) {
    node.only("system", "collection");
    return new To(node.need("system").text(), node.need("collection").text());
  }

  private static List<LookupRule> lookups(DocumentNode node) {
    List<LookupRule> lookups = new ArrayList<>();
    for (Map.Entry<String, DocumentNode> entry : node.group().entrySet()) {
      DocumentNode rule = entry.getValue().only("in", "by", "none");
      if (entry.getKey().equals(Address.EVENT) || !entry.getKey().matches(ID)) {
        throw rule.refuse("a lookup cannot be called “" + entry.getKey() + "”");
      }
      String[] in = rule.need("in").text().split("/", -1);
      if (in.length != 2) {
        throw rule.need("in").refuse("write it as system/collection");
      }
      SequencedMap<String, Address> by = new LinkedHashMap<>();
      rule.need("by").group().forEach((key, value) -> by.put(key, address(value)));
      NoneFound none = rule.get("none").map(BridgeReader::none).orElse(NoneFound.FAIL);
      lookups.add(new LookupRule(entry.getKey(), in[0], in[1], by, none));
    }
    return lookups;
  }

  private static NoneFound none(DocumentNode node) {
    return switch (node.text()) {
      case "fail" -> NoneFound.FAIL;
      case "pass-by" -> NoneFound.PASS_BY;
      case "empty" -> NoneFound.GO_ON_EMPTY;
      default ->
          throw node.refuse(
              Nearest.unknown("answer", node.text(), List.of("fail", "pass-by", "empty")));
    };
  }

  private static Condition condition(DocumentNode node) {
    if (node.isGroup() && node.get("value").isEmpty()) {
      Map.Entry<String, DocumentNode> only = node.single();
      return switch (only.getKey()) {
        case "all" -> new Condition.All(conditions(only.getValue()));
        case "any" -> new Condition.Any(conditions(only.getValue()));
        case "not" -> new Condition.Not(condition(only.getValue()));
        default ->
            throw node.refuse(
                Nearest.unknown("condition", only.getKey(), List.of("all", "any", "not", "value")));
      };
    }
    return new Condition.Test(address(node.need("value")), steps(node), operator(node));
  }

  private static List<Condition> conditions(DocumentNode node) {
    return node.list().stream().map(BridgeReader::condition).toList();
  }

  private static Operator operator(DocumentNode node) {
    node.only("value", "steps", "is", "equal", "one-of", "at-least");
    List<Operator> found = new ArrayList<>();
    node.get("is").ifPresent(is -> found.add(presence(is)));
    node.get("equal").ifPresent(text -> found.add(new Operator.OneOf(List.of(text.text()))));
    node.get("one-of").ifPresent(list -> found.add(new Operator.OneOf(texts(list))));
    node.get("at-least").ifPresent(bound -> found.add(new Operator.AtLeast(number(bound))));
    if (found.size() != 1) {
      throw node.refuse("a test has one operator: is, equal, one-of or at-least");
    }
    return found.getFirst();
  }

  private static Operator presence(DocumentNode node) {
    return switch (node.text()) {
      case "present" -> new Operator.Present();
      case "empty" -> new Operator.Empty();
      default ->
          throw node.refuse(Nearest.unknown("test", node.text(), List.of("present", "empty")));
    };
  }

  private static BigDecimal number(DocumentNode node) {
    try {
      return new BigDecimal(node.text());
    } catch (NumberFormatException e) {
      throw node.refuse("“" + node.text() + "” is no number");
    }
  }

  private static List<Address> match(DocumentNode node) {
    List<Address> match = node.list().stream().map(BridgeReader::address).toList();
    if (match.isEmpty()) {
      throw node.refuse("say at least one value that makes two events be about the same thing");
    }
    return match;
  }

  private static List<FieldRule> fields(DocumentNode node) {
    List<FieldRule> fields = new ArrayList<>();
    node.group()
        .forEach((field, rule) -> fields.add(new FieldRule(field, source(rule), steps(rule))));
    return fields;
  }

  private static Source source(DocumentNode rule) {
    rule.only("value", "text", "texts", "always", "steps");
    List<Source> found = new ArrayList<>();
    rule.get("value").ifPresent(value -> found.add(new Source.Field(address(value))));
    rule.get("text").ifPresent(text -> found.add(new Source.SlotText(template(text))));
    rule.get("texts")
        .ifPresent(
            list ->
                found.add(
                    new Source.SlotTexts(
                        list.list().stream().map(BridgeReader::template).toList())));
    rule.get("always").ifPresent(always -> found.add(always(always)));
    if (found.size() != 1) {
      throw rule.refuse("a field starts from one of: value, text, texts, always");
    }
    return found.getFirst();
  }

  private static Source always(DocumentNode node) {
    return node.isList()
        ? new Source.Always(texts(node), true)
        : new Source.Always(List.of(node.text()), false);
  }

  private static List<Step> steps(DocumentNode rule) {
    return rule.get("steps")
        .map(steps -> steps.list().stream().map(StepKinds::read).toList())
        .orElse(List.of());
  }

  private static Address address(DocumentNode node) {
    return parsed(node, Address::parse);
  }

  private static Template template(DocumentNode node) {
    return parsed(node, Template::parse);
  }

  private static <T> T parsed(DocumentNode node, Function<String, T> parse) {
    try {
      return parse.apply(node.text());
    } catch (IllegalArgumentException e) {
      throw node.refuse(String.valueOf(e.getMessage()));
    }
  }

  private static Ceiling ceiling(DocumentNode node) {
    node.only("creates", "per");
    DocumentNode per = node.need("per");
    int creates = node.need("creates").wholeNumber();
    try {
      Duration span = Duration.parse(per.text());
      if (creates < 1 || span.isNegative() || span.isZero()) {
        throw node.refuse("a ceiling is at least 1 in a span longer than nothing");
      }
      return new Ceiling(creates, span);
    } catch (DateTimeParseException e) {
      throw per.refuse("“" + per.text() + "” is no span of time; write PT1H or P1D");
    }
  }
}
