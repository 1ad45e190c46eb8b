package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.ysthmos.core.calendar.WorkingCalendar;
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
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.uses.Use;

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
  private final UseRecorder uses;
  private final Optional<Place> seenFrom;

  /**
   * @param seenFrom the place whose events it is compiled for, where it hears several
   */
  private BridgeCompiler(
      DocumentNode document,
      BridgeDefinition definition,
      Catalog catalog,
      Problems problems,
      Optional<Place> seenFrom) {
    this.seenFrom = seenFrom;
    this.document = document;
    this.definition = definition;
    this.catalog = catalog;
    this.problems = problems;
    this.uses = new UseRecorder(catalog);
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
    return new BridgeCompiler(
            document, definition.orElseThrow(), catalog, problems, Optional.empty())
        .compile(number);
  }

  private BridgeVersion compile(int number) {
    if (definition.between().isPresent()) {
      return bothWays(definition.between().get(), number);
    }
    return definition
        .from()
        .places()
        .map(places -> manyPlaces(places, number))
        .orElseGet(() -> oneWay(number));
  }

  private BridgeVersion manyPlaces(Places places, int number) {
    return new PlacesCompiler(document, definition, places, catalog)
        .compile(
            problems,
            place ->
                new BridgeCompiler(
                        document, definition.at(place), catalog, new Problems(), Optional.of(place))
                    .oneWay(number));
  }

  private BridgeVersion bothWays(TwoWay both, int number) {
    DocumentNode between = document.need(TwoWayDocument.BETWEEN);
    Both<DocumentNode> at =
        new Both<>(between.need(TwoWayDocument.LEFT), between.need(TwoWayDocument.RIGHT));
    Both<Optional<CollectionShape>> found =
        Both.by(
            side -> found(at.of(side), both.place(side).system(), both.place(side).collection()));
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
        new CompiledPlan.One(List.of(), Optional.empty()),
        List.of(),
        remarks,
        uses.uses(),
        Optional.empty(),
        Optional.of(compiled),
        Optional.empty(),
        Collections.emptyNavigableMap());
  }

  private BridgeVersion oneWay(int number) {
    DocumentNode from = document.need("from");
    DocumentNode to = document.need("to");
    Optional<CollectionShape> foundSource = source(from);
    definition
        .from()
        .places()
        .filter(places -> places.how() == Places.How.TABLE)
        .ifPresent(places -> uses.tableAt(from.need(PlacesDocument.PLACES), places.table()));
    Optional<CollectionShape> foundTarget = place(to, definition.to());
    if (foundSource.isEmpty() || foundTarget.isEmpty()) {
      problems.refuse();
    }
    CollectionShape source = foundSource.orElseThrow();
    CollectionShape target = foundTarget.orElseThrow();
    from.get("event").ifPresent(kinds -> kinds(source, kinds));
    uses.collection(
        from, definition.from().system(), definition.from().collection(), Use.How.HEARS);
    if (definition.to().changes() && !(definition.plan() instanceof TaskPlan.One)) {
      problems.add(to.problem("the record is one, so there is no list and no set of tasks"));
    }
    BridgeScope scope =
        new BridgeScope(
            definition, source, catalog, keys("lookups"), keys("values"), uses, seenFrom);
    LookupCompiler lookups = new LookupCompiler(this, scope);
    definition.lookups().forEach(lookups::compile);
    calendarOfTimes(from, scope);
    definition.values().keySet().forEach(name -> namedValue(name, scope));
    Optional<CompiledChores> chores =
        definition
            .from()
            .chores()
            .flatMap(
                rules ->
                    new ChoreCompiler(this, from.need(FromDocument.CHORES), scope).compile(rules));
    Optional<UseRecorder.Needing<CompiledCondition>> when =
        attempt(
            document.get("when").orElse(document),
            () -> uses.needing(() -> CompiledCondition.compile(definition.when(), scope)));
    List<BoundField> match =
        document
            .get("match")
            .map(places -> match(definition.match(), places, scope))
            .orElse(List.of());
    Optional<CompiledPlan> plan = new PlanCompiler(this, definition, target, scope).compile();
    List<CompiledEffect> then = new EffectCompiler(this, definition, target, scope).compile(match);
    definition.duplicates().ifPresent(one -> compared(one.compare(), target));
    problems.refuse();
    return new BridgeVersion(
        definition,
        number,
        source,
        target,
        scope.lookups(),
        scope.compiledValues(),
        scope.valueNames(),
        when.orElseThrow().compiled(),
        when.orElseThrow().lastLookup() + 1,
        match,
        plan.orElseThrow(),
        then,
        remarks,
        uses.uses(),
        chores,
        Optional.empty(),
        seenFrom,
        Collections.emptyNavigableMap());
  }

  private Optional<CollectionShape> source(DocumentNode from) {
    BridgeDefinition.From start = definition.from();
    if (start.times().isPresent()) {
      return Optional.of(TimeSource.shape(definition.id()));
    }
    Optional<CollectionShape> found = found(from, start.system(), start.collection());
    boolean taken =
        found.stream()
            .flatMap(shape -> shape.eventFields().stream())
            .anyMatch(field -> field.key().startsWith("/" + TimeSource.OCCURRENCE));
    if (start.chores().isPresent() && taken) {
      problems.add(
          from.problem(
              "“/%s” of its records would be hidden by what is said of their times; nothing of it can come round"
                  .formatted(TimeSource.OCCURRENCE)));
    }
    return start.chores().isPresent() ? found.map(ChoreSource::shape) : found;
  }

  /** The calendar that says on which days the bridge does not begin is there. */
  private void calendarOfTimes(DocumentNode from, BridgeScope scope) {
    definition
        .from()
        .times()
        .flatMap(timetable -> timetable.times().calendar())
        .ifPresent(
            id -> {
              DocumentNode at = from.need(FromDocument.TIMES).need("calendar");
              Optional<WorkingCalendar> unused = attempt(at, () -> scope.calendar(id));
            });
  }

  private void compared(List<String> keys, CollectionShape target) {
    List<String> known = target.fields().stream().map(FieldShape::key).toList();
    keys.forEach(key -> uses.fieldAt("duplicates", target, key, Use.How.READS));
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

  /** A collection that a part of the document names; what is wrong with that is kept. */
  Optional<CollectionShape> found(DocumentNode at, String system, String collection) {
    return problems.part(() -> collection(at, system, collection));
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
              DocumentNode place = at.isGroup() ? of(at, known) : at;
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

  /** Where a group says of which collection it is, or of which system. */
  private static DocumentNode of(DocumentNode at, boolean known) {
    return known
        ? at.get("collection").orElseGet(() -> at.need(PlacesDocument.PLACES))
        : at.need("system");
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

  private void namedValue(String name, BridgeScope scope) {
    DocumentNode place = document.need("values").need(name);
    Address address = new Address(Address.VALUES, new Pointer(List.of(name)));
    attempt(place, () -> scope.bind(address));
  }

  /** Where something is made or changed: the shape of what can be written there. */
  Optional<CollectionShape> place(DocumentNode at, BridgeDefinition.To to) {
    Optional<String> unnamed =
        to.place().flatMap(named -> PlacesCompiler.unnamed(seenFrom.orElseThrow(), named));
    if (unnamed.isPresent()) {
      problems.add(at.need("collection").need("take").problem(unnamed.get()));
      return Optional.empty();
    }
    uses.collection(at, to.system(), to.collection(), Use.How.WRITES);
    Optional<CollectionShape> found = found(at, to.system(), to.collection());
    found.flatMap(shape -> unable(shape, to)).ifPresent(why -> problems.add(at.problem(why)));
    return found.map(CollectionShape::written);
  }

  /** Why nothing can be done in a place; empty if something can, or nothing is known of it. */
  private static Optional<String> unable(CollectionShape shape, BridgeDefinition.To to) {
    return shape
        .abilities()
        .filter(can -> to.changes() ? !can.changes() : !can.makes())
        .map(
            can ->
                "%s of %s cannot be %s: its description names no call that does (%s)"
                    .formatted(
                        shape.name(),
                        shape.systemName(),
                        to.changes() ? "changed" : "made",
                        to.changes() ? "change" : "create"));
  }

  /** The id of the record that is changed in a place, where none is made. */
  Optional<BoundField> changed(BridgeDefinition.To to, DocumentNode at, BridgeScope scope) {
    DocumentNode place = at.isGroup() ? at.get("record").orElse(at) : at;
    return to.record()
        .flatMap(
            record ->
                attempt(
                    place, () -> single(scope.bind(record), "the id of a record is one value")));
  }

  List<BoundField> match(List<Address> addresses, DocumentNode place, BridgeScope scope) {
    List<BoundField> match = new ArrayList<>();
    for (int i = 0; i < addresses.size(); i++) {
      Address address = addresses.get(i);
      attempt(
              place.list().get(i),
              () -> single(scope.bind(address), "a match key is made of single values"))
          .ifPresent(match::add);
    }
    return match;
  }

  private static BoundField single(BoundField field, String why) {
    if (!field.shape().type().isSimple()) {
      throw new Misfit("%s, “%s” is a %s".formatted(why, field.address(), field.shape().type()));
    }
    return field;
  }

  UseRecorder uses() {
    return uses;
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
      return Optional.of(uses.at(place.path(), compile));
    } catch (Misfit misfit) {
      problems.add(place.nearest(misfit.path()).problem(misfit.message()));
      return Optional.empty();
    }
  }
}
