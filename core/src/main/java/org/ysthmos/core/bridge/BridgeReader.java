package org.ysthmos.core.bridge;

import java.time.Duration;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.function.BiConsumer;
import org.ysthmos.core.bridge.BridgeDefinition.Ceiling;
import org.ysthmos.core.bridge.BridgeDefinition.Duplicates;
import org.ysthmos.core.bridge.BridgeDefinition.Effect;
import org.ysthmos.core.bridge.BridgeDefinition.From;
import org.ysthmos.core.bridge.BridgeDefinition.IfGone;
import org.ysthmos.core.bridge.BridgeDefinition.To;
import org.ysthmos.core.bridge.BridgeDefinition.ToPlace;
import org.ysthmos.core.bridge.LookupRule.NoneFound;
import org.ysthmos.core.bridge.LookupRule.Origin;
import org.ysthmos.core.bridge.LookupRule.Several;
import org.ysthmos.core.condition.Condition;
import org.ysthmos.core.condition.ConditionDocument;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Problems;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.RuleDocument;
import org.ysthmos.core.rule.ValueRule;

/** Reads a bridge document. What it does not know it refuses, with line and column. */
public final class BridgeReader {

  private static final String[] KEYS = {
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
    "then",
    "ceiling",
    "duplicates"
  };

  private static final String[] KEYS_BOTH_WAYS = {
    "bridge", "name", "purpose", TwoWayDocument.BETWEEN, "fields", "ceiling"
  };

  private static final Duration LONGEST_WAIT = Duration.ofDays(30);

  /** How documents name the record that an event came from, where a place is meant. */
  static final String RECORD = "record";

  /** So that nobody asks a system without pause. */
  private static final Duration SHORTEST_INTERVAL = Duration.ofSeconds(10);

  private BridgeReader() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used, with
   *     everything that is wrong with it
   */
  public static BridgeDefinition read(DocumentNode root) {
    Problems problems = new Problems();
    Optional<BridgeDefinition> read = readable(root, problems);
    problems.refuse();
    return read.orElseThrow();
  }

  /**
   * The definition as far as it can be read, so that the rest can be checked, too: rules that
   * cannot be read are left out. It is not to be used where there are problems.
   *
   * @return empty if not even the places and the plan can be read
   */
  static Optional<BridgeDefinition> readable(DocumentNode root, Problems problems) {
    if (problems.part(root::group).isEmpty()) {
      return Optional.empty();
    }
    problems.part(
        () -> root.only(root.get(TwoWayDocument.BETWEEN).isPresent() ? KEYS_BOTH_WAYS : KEYS));
    Optional<String> id = problems.part(() -> root.need("bridge").id());
    Optional<String> name = problems.part(() -> root.need("name").text());
    Optional<String> purpose = problems.part(() -> root.need("purpose").text());
    Optional<Ceiling> ceiling =
        root.get("ceiling").flatMap(node -> problems.part(() -> CeilingDocument.read(node)));
    if (root.get(TwoWayDocument.BETWEEN).isPresent()) {
      return TwoWayDocument.readable(root, problems)
          .map(both -> bothWays(id.orElse(""), name.orElse(""), purpose.orElse(""), both, ceiling));
    }
    Optional<From> from = problems.part(() -> FromDocument.read(root.need("from"), id.orElse("")));
    Optional<To> to = from.flatMap(source -> problems.part(() -> to(root.need("to"), source)));
    List<LookupRule> lookups = new ArrayList<>();
    Optional<From> places = from.filter(one -> one.places().isPresent());
    part(root, "lookups", problems, (key, rule) -> lookups.add(lookup(key, rule, places)));
    SequencedMap<String, ValueRule> values = new LinkedHashMap<>();
    part(
        root,
        "values",
        problems,
        (key, rule) -> values.put(valueName(key, rule), RuleDocument.read(rule)));
    Optional<Condition> when =
        problems.part(() -> root.get("when").map(ConditionDocument::read).orElse(Condition.ALWAYS));
    Optional<List<Address>> match = problems.part(() -> match(root.need("match")));
    Optional<TaskPlan> plan = problems.part(() -> PlanDocument.read(root));
    List<FieldRule> fields = new ArrayList<>();
    problems.part(() -> root.need("fields"));
    part(
        root,
        "fields",
        problems,
        (key, rule) -> fields.add(new FieldRule(key, RuleDocument.read(rule))));
    List<Effect> then = new ArrayList<>();
    from.ifPresent(
        source -> part(root, "then", problems, (key, rule) -> then.add(effect(key, rule, source))));
    Optional<Duplicates> duplicates =
        root.get("duplicates").flatMap(node -> problems.part(() -> DuplicatesDocument.read(node)));
    if (from.isEmpty() || to.isEmpty() || plan.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        new BridgeDefinition(
            id.orElse(""),
            name.orElse(""),
            purpose.orElse(""),
            from.get(),
            to.get(),
            lookups,
            values,
            when.orElse(Condition.ALWAYS),
            match.orElse(List.of()),
            plan.get(),
            fields,
            then,
            ceiling,
            duplicates,
            Optional.empty()));
  }

  private static BridgeDefinition bothWays(
      String id, String name, String purpose, TwoWay both, Optional<Ceiling> ceiling) {
    return new BridgeDefinition(
        id,
        name,
        purpose,
        both.left().from(),
        both.right().to(),
        List.of(),
        new LinkedHashMap<>(),
        Condition.ALWAYS,
        List.of(),
        new TaskPlan.One(),
        List.of(),
        List.of(),
        ceiling,
        Optional.empty(),
        Optional.of(both));
  }

  /** Reads what stands under each key of a group, if there is one. */
  private static void part(
      DocumentNode root, String key, Problems problems, BiConsumer<String, DocumentNode> read) {
    problems
        .part(() -> root.get(key).map(DocumentNode::group).orElseGet(LinkedHashMap::new))
        .ifPresent(
            group ->
                group.forEach(
                    (name, rule) ->
                        problems.part(
                            () -> {
                              read.accept(name, rule);
                              return rule;
                            })));
  }

  static Duration interval(DocumentNode node) {
    Duration every = span(node);
    if (every.compareTo(SHORTEST_INTERVAL) < 0) {
      throw node.refuse("a system is asked every 10 seconds at the most; write PT10S or longer");
    }
    return every;
  }

  private static To to(DocumentNode node, From from) {
    if (node.isText()) {
      return record(node, from);
    }
    node.only("system", "collection", "if-gone", "record");
    Optional<Address> record = node.get("record").map(Address::read);
    if (record.isPresent() && node.get("if-gone").isPresent()) {
      throw node.need("if-gone")
          .refuse(
              "where a record is changed none is made, so there is none to make anew; leave it out");
    }
    DocumentNode collection = node.need("collection");
    Optional<ToPlace> place =
        collection.isGroup() ? Optional.of(toPlace(collection, from)) : Optional.empty();
    return new To(
        node.need("system").text(),
        place.isPresent() ? "" : collection.text(),
        node.get("if-gone").map(word -> word.word(IfGone.class)).orElse(IfGone.ASK),
        record,
        place);
  }

  private static ToPlace toPlace(DocumentNode node, From from) {
    ToPlace place = PlacesDocument.readTo(node);
    if (from.places().filter(places -> places.how() == Places.How.TABLE).isEmpty()) {
      throw node.refuse(
          "a table that names places to write to also names those that are heard; say it under"
              + " from, as places: { table: … }");
    }
    return place;
  }

  private static To record(DocumentNode node, From from) {
    if (!node.text().equals(RECORD)) {
      throw node.refuse(
          "write { system: …, collection: … }, or “record” for the record that the event came from");
    }
    if (from.times().isPresent()) {
      throw node.refuse(
          "where a bridge begins with times there is no record that the event came from; write { system: …, collection: … }");
    }
    return To.recordOf(from);
  }

  private static Effect effect(String name, DocumentNode node, From from) {
    if (!DocumentNode.isId(name)) {
      throw node.refuse("what comes then cannot be called “" + name + "”");
    }
    node.only("to", "when", "match", "fields");
    DocumentNode to = node.need("to");
    if (to.isGroup()) {
      to.only("system", "collection", "record");
    }
    return new Effect(
        name,
        to(to, from),
        node.get("when").map(ConditionDocument::read).orElse(Condition.ALWAYS),
        node.get("match").map(BridgeReader::match).orElse(List.of()),
        fields(node.need("fields")));
  }

  /**
   * @param places where the bridge begins, if it hears several places
   */
  private static LookupRule lookup(String name, DocumentNode rule, Optional<From> places) {
    rule.only("in", "from", "by", "wait", "none", "several");
    boolean meansPlace = places.isPresent() && name.equals(Address.PLACE);
    if (meansPlace || Address.RESERVED.contains(name) || !DocumentNode.isId(name)) {
      throw rule.refuse("a lookup cannot be called “" + name + "”");
    }
    Origin origin = rule.get("from").map(from -> from.word(Origin.class)).orElse(Origin.SYSTEM);
    boolean here =
        origin != Origin.TASKS
            && places.isPresent()
            && rule.need("in").text().equals(Address.PLACE);
    String[] in =
        here
            ? new String[] {places.get().system(), places.get().collection()}
            : in(rule.need("in"), origin);
    SequencedMap<String, ValueRule> by = new LinkedHashMap<>();
    rule.need("by").group().forEach((key, value) -> by.put(key, RuleDocument.read(value)));
    if (by.isEmpty()) {
      throw rule.need("by").refuse("say at least one key to look it up by");
    }
    return new LookupRule(
        name,
        in[0],
        in[1],
        origin,
        here,
        by,
        rule.get("wait").map(BridgeReader::waiting),
        rule.get("none").map(none -> none.word(NoneFound.class)).orElse(NoneFound.FAIL),
        rule.get("several").map(BridgeReader::several).orElse(Several.FAIL));
  }

  /** System and collection; nothing and the bridge where it is looked for among tasks. */
  private static String[] in(DocumentNode node, Origin origin) {
    if (origin == Origin.TASKS) {
      return new String[] {"", node.id()};
    }
    String[] in = node.text().split("/", -1);
    if (in.length != 2) {
      throw node.refuse("write it as system/collection");
    }
    return in;
  }

  private static Duration waiting(DocumentNode node) {
    Duration wait = span(node);
    if (wait.isNegative() || wait.isZero() || wait.compareTo(LONGEST_WAIT) > 0) {
      throw node.refuse("an event waits for longer than nothing and at most 30 days (P30D)");
    }
    return wait;
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

  private static String valueName(String name, DocumentNode rule) {
    if (!DocumentNode.isId(name)) {
      throw rule.refuse("a value cannot be called “" + name + "”");
    }
    return name;
  }

  private static List<Address> match(DocumentNode node) {
    List<Address> match = node.each(Address::read);
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

  static Duration span(DocumentNode node) {
    try {
      return Duration.parse(node.text());
    } catch (DateTimeParseException e) {
      throw node.refuse("“" + node.text() + "” is no span of time; write PT1H or P1D");
    }
  }
}
