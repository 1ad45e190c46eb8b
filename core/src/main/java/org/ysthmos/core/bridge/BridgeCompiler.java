package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.document.Problems;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.rule.ValueRule;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.ValueType;

/**
 * Makes a bridge document into a version that can decide. Everything is type-checked against the
 * shapes of the two collections; all problems found are told at once, each at its place.
 */
public final class BridgeCompiler {

  private final DocumentNode document;
  private final BridgeDefinition definition;
  private final Catalog catalog;
  private final Problems problems;
  private final List<DocumentProblem> remarks = new ArrayList<>();

  private BridgeCompiler(
      DocumentNode document, BridgeDefinition definition, Catalog catalog, Problems problems) {
    this.document = document;
    this.definition = definition;
    this.catalog = catalog;
    this.problems = problems;
  }

  /**
   * @param number the number that the version will have, counted from 1
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public static BridgeVersion compile(String yaml, int number, Catalog catalog) {
    DocumentNode document = DocumentNode.parse(yaml);
    Problems problems = new Problems();
    Optional<BridgeDefinition> definition = BridgeReader.readable(document, problems);
    if (definition.isEmpty()) {
      problems.refuse();
    }
    return new BridgeCompiler(document, definition.orElseThrow(), catalog, problems)
        .compile(number);
  }

  private BridgeVersion compile(int number) {
    return definition.between().map(both -> bothWays(both, number)).orElseGet(() -> oneWay(number));
  }

  private BridgeVersion bothWays(TwoWay both, int number) {
    DocumentNode between = document.need(TwoWayDocument.BETWEEN);
    Both<DocumentNode> at =
        new Both<>(between.need(TwoWayDocument.LEFT), between.need(TwoWayDocument.RIGHT));
    Both<Optional<CollectionShape>> found =
        Both.by(
            side ->
                problems.part(
                    () ->
                        collection(
                            at.of(side),
                            both.place(side).system(),
                            both.place(side).collection())));
    if (found.left().isEmpty() || found.right().isEmpty()) {
      problems.refuse();
    }
    Both<CollectionShape> shapes = Both.by(side -> found.of(side).orElseThrow());
    for (Side side : Side.values()) {
      kinds(shapes.of(side), at.of(side).need("event"));
    }
    if (both.left().system().equals(both.right().system())
        && both.left().collection().equals(both.right().collection())) {
      problems.add(at.right().problem("a place is kept alike with another, not with itself"));
    }
    TwoWayCompiler compiler = new TwoWayCompiler(this, definition, shapes, catalog);
    CompiledTwoWay compiled = compiler.compile();
    problems.refuse();
    BridgeScope.Uses uses = compiler.uses();
    return new BridgeVersion(
        definition,
        number,
        shapes.left(),
        shapes.right().written(),
        List.of(),
        List.of(),
        List.of(),
        new CompiledCondition.All(List.of()),
        0,
        List.of(),
        new CompiledPlan.One(List.of()),
        List.of(),
        remarks,
        uses.tables(),
        uses.calendars(),
        Optional.of(compiled));
  }

  private BridgeVersion oneWay(int number) {
    DocumentNode from = document.need("from");
    DocumentNode to = document.need("to");
    Optional<CollectionShape> foundSource =
        problems.part(
            () -> collection(from, definition.from().system(), definition.from().collection()));
    Optional<CollectionShape> foundTarget = place(to, definition.to());
    if (foundSource.isEmpty() || foundTarget.isEmpty()) {
      problems.refuse();
    }
    CollectionShape source = foundSource.orElseThrow();
    CollectionShape target = foundTarget.orElseThrow();
    kinds(source, from.need("event"));
    if (definition.to().record() && !(definition.plan() instanceof TaskPlan.One)) {
      problems.add(to.problem("the record is one, so there is no list and no set of tasks"));
    }
    BridgeScope scope =
        new BridgeScope(definition, source, catalog, keys("lookups"), keys("values"));
    definition.lookups().forEach(rule -> lookup(rule, scope));
    definition.values().keySet().forEach(name -> namedValue(name, scope));
    Optional<CompiledCondition> when =
        attempt(
            document.get("when").orElse(document),
            () -> CompiledCondition.compile(definition.when(), scope));
    List<BoundField> match =
        document
            .get("match")
            .map(places -> match(definition.match(), places, scope))
            .orElse(List.of());
    Optional<CompiledPlan> plan = new PlanCompiler(this, definition, target, scope).compile();
    List<CompiledEffect> then = new EffectCompiler(this, definition, target, scope).compile(match);
    definition.duplicates().ifPresent(one -> compared(one.compare(), target));
    problems.refuse();
    int lookupsBeforeWhen =
        when.orElseThrow().reads().stream().mapToInt(BoundField::lookup).max().orElse(-1) + 1;
    return new BridgeVersion(
        definition,
        number,
        source,
        target,
        scope.lookups(),
        scope.compiledValues(),
        scope.valueNames(),
        when.orElseThrow(),
        lookupsBeforeWhen,
        match,
        plan.orElseThrow(),
        then,
        remarks,
        scope.uses().tables(),
        scope.uses().calendars(),
        Optional.empty());
  }

  private void compared(List<String> keys, CollectionShape target) {
    List<String> known = target.fields().stream().map(FieldShape::key).toList();
    keys.stream()
        .filter(key -> !known.contains(key))
        .forEach(
            key ->
                problems.add(
                    document
                        .need("duplicates")
                        .need("compare")
                        .problem(Nearest.unknown("field of the task", key, known))));
  }

  /** The keys of a group of the document, those whose rules cannot be read included. */
  private Set<String> keys(String group) {
    return document
        .get(group)
        .filter(DocumentNode::isGroup)
        .map(node -> node.group().keySet())
        .orElse(Set.of());
  }

  /**
   * @param at the group with the keys of system and collection, or the one text that names both
   */
  private CollectionShape collection(DocumentNode at, String system, String collection) {
    return catalog
        .collection(system, collection)
        .orElseThrow(
            () -> {
              boolean known = !catalog.collections(system).isEmpty();
              DocumentNode place = at.isGroup() ? at.need(known ? "collection" : "system") : at;
              if (known) {
                return place.refuse(
                    Nearest.unknown(
                        "collection of " + system, collection, catalog.collections(system)));
              }
              return place.refuse(
                  catalog.systems().isEmpty()
                      ? "there is no collection " + system + "/" + collection
                      : Nearest.unknown("system", system, catalog.systems()));
            });
  }

  /** An event of a kind that never comes would leave the bridge silent for ever. */
  private void kinds(CollectionShape source, DocumentNode at) {
    List<DocumentNode> places = at.isList() ? at.list() : List.of(at);
    source
        .abilities()
        .map(CollectionShape.Abilities::kinds)
        .ifPresent(
            known -> {
              for (DocumentNode place : places) {
                if (!known.contains(place.text())) {
                  problems.add(
                      place.problem(
                          known.isEmpty()
                              ? "no events come from "
                                  + source.name()
                                  + " of "
                                  + source.systemName()
                              : Nearest.unknown(
                                  "kind of event of " + source.name(), place.text(), known)));
                }
              }
            });
  }

  private void lookup(LookupRule rule, BridgeScope scope) {
    DocumentNode place = document.need("lookups").need(rule.name());
    Optional<CollectionShape> found =
        rule.origin() == LookupRule.Origin.TASKS
            ? Optional.of(tasksOf(rule))
            : problems.part(() -> collection(place.need("in"), rule.system(), rule.collection()));
    if (found.isEmpty()) {
      return;
    }
    CollectionShape shape = found.get();
    List<FieldShape> fields =
        rule.origin() == LookupRule.Origin.EVENTS ? shape.eventFields() : shape.readFields();
    List<CompiledValue> by = new ArrayList<>();
    rule.by()
        .forEach(
            (key, value) ->
                attempt(place.need("by").need(key), () -> key(value, scope)).ifPresent(by::add));
    rule.several()
        .firstBy()
        .ifPresent(field -> attempt(place.need("several"), () -> ordering(field, fields, shape)));
    List<String> keys = List.copyOf(rule.by().sequencedKeySet());
    for (String key : keys) {
      attempt(place.need("by").need(key), () -> knownKey(key, rule.origin(), fields, shape));
    }
    if (rule.origin() == LookupRule.Origin.TASKS && !keys.contains(LookupRule.RECORD)) {
      problems.add(place.need("by").problem("say by which record the task was made (record)"));
    }
    if (rule.none() == LookupRule.NoneFound.MAKE) {
      canBeMade(rule, place);
    }
    scope.add(new CompiledLookup(rule, shape, fields, keys, by));
  }

  private void canBeMade(LookupRule rule, DocumentNode place) {
    if (rule.origin() != LookupRule.Origin.TASKS) {
      problems.add(
          place.need("none").problem("only a task is made, where it is looked up from: tasks"));
    } else if (rule.waits().isEmpty()) {
      problems.add(place.problem("say how long the task is waited for that is made then (wait)"));
    }
  }

  /** The tasks of a bridge, as rules can name them. */
  private static CollectionShape tasksOf(LookupRule rule) {
    return new CollectionShape(
        "",
        "bridge " + rule.collection(),
        rule.collection(),
        "tasks",
        "task",
        "",
        "",
        List.of(
            FieldShape.of("/id", "id of the task", ValueType.TEXT),
            FieldShape.of("/link", "link of the task", ValueType.LINK)),
        List.of());
  }

  /** What a system can be asked by is for the system to say; all else is known here. */
  private static String knownKey(
      String key, LookupRule.Origin origin, List<FieldShape> fields, CollectionShape shape) {
    return switch (origin) {
      case SYSTEM -> key;
      case EVENTS -> eventKey(key, fields, shape).key();
      case TASKS -> {
        List<String> known = List.of(LookupRule.RECORD, LookupRule.PART);
        if (!known.contains(key)) {
          throw new Misfit(Nearest.unknown("key of tasks", key, known));
        }
        yield key;
      }
    };
  }

  private static CompiledValue key(ValueRule rule, BridgeScope scope) {
    CompiledValue value = RuleCompiler.value(rule, Optional.empty(), scope);
    if (!value.gives().isSimple()) {
      throw new Misfit("a key is one value, this is a " + value.gives());
    }
    return value;
  }

  /** Received events are found by what came with them, so a key must be one of its fields. */
  private static FieldShape eventKey(String key, List<FieldShape> fields, CollectionShape shape) {
    return known(key, fields, "field that comes with the events of " + shape.name());
  }

  private static FieldShape ordering(
      Pointer pointer, List<FieldShape> fields, CollectionShape shape) {
    FieldShape field = known(pointer.toString(), fields, "field of " + shape.name());
    if (!field.type().isSimple()) {
      throw new Misfit("“" + pointer + "” is a " + field.type() + " and gives no order");
    }
    return field;
  }

  private static FieldShape known(String key, List<FieldShape> fields, String what) {
    return fields.stream()
        .filter(field -> field.key().equals(key))
        .findFirst()
        .orElseThrow(
            () ->
                new Misfit(
                    Nearest.unknown(what, key, fields.stream().map(FieldShape::key).toList())));
  }

  private void namedValue(String name, BridgeScope scope) {
    DocumentNode place = document.need("values").need(name);
    Address address = new Address(Address.VALUES, new Pointer(List.of(name)));
    attempt(place, () -> scope.bind(address));
  }

  /** Where something is made or changed: the shape of what can be written there. */
  Optional<CollectionShape> place(DocumentNode at, BridgeDefinition.To to) {
    Optional<CollectionShape> found =
        problems.part(() -> collection(at, to.system(), to.collection()));
    found.flatMap(shape -> unable(shape, to)).ifPresent(why -> problems.add(at.problem(why)));
    return found.map(CollectionShape::written);
  }

  /** Why nothing can be done in a place; empty if something can, or nothing is known of it. */
  private static Optional<String> unable(CollectionShape shape, BridgeDefinition.To to) {
    return shape
        .abilities()
        .filter(can -> to.record() ? !can.changes() : !can.makes())
        .map(
            can ->
                "%s of %s cannot be %s: its description names no call that does (%s)"
                    .formatted(
                        shape.name(),
                        shape.systemName(),
                        to.record() ? "changed" : "made",
                        to.record() ? "change" : "create"));
  }

  List<BoundField> match(List<Address> addresses, DocumentNode place, BridgeScope scope) {
    List<BoundField> match = new ArrayList<>();
    for (int i = 0; i < addresses.size(); i++) {
      Address address = addresses.get(i);
      attempt(place.list().get(i), () -> part(scope.bind(address))).ifPresent(match::add);
    }
    return match;
  }

  private static BoundField part(BoundField field) {
    if (!field.shape().type().isSimple()) {
      throw new Misfit(
          "a match key is made of single values, “%s” is a %s"
              .formatted(field.address(), field.shape().type()));
    }
    return field;
  }

  DocumentNode document() {
    return document;
  }

  /** Keeps a problem with the whole, so that the others are found, too. */
  void problem(DocumentProblem problem) {
    problems.add(problem);
  }

  /** Keeps what a person should know about a rule. */
  void remark(DocumentNode place, CompiledValue value) {
    value
        .chain()
        .remarks()
        .forEach(remark -> remarks.add(place.nearest(remark.path()).problem(remark.message())));
  }

  /** Compiles something at a place; what is wrong with it is kept and the others go on. */
  <T> Optional<T> attempt(DocumentNode place, Supplier<T> compile) {
    try {
      return Optional.of(compile.get());
    } catch (Misfit misfit) {
      problems.add(place.nearest(misfit.path()).problem(misfit.message()));
      return Optional.empty();
    }
  }
}
