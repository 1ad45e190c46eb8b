package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.rule.ValueRule;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;

/**
 * Makes a bridge document into a version that can decide. Everything is type-checked against the
 * shapes of the two collections; all problems found are told at once, each at its place.
 */
public final class BridgeCompiler {

  private final DocumentNode document;
  private final BridgeDefinition definition;
  private final Catalog catalog;
  private final List<DocumentProblem> problems = new ArrayList<>();
  private final List<DocumentProblem> remarks = new ArrayList<>();

  private BridgeCompiler(DocumentNode document, Catalog catalog) {
    this.document = document;
    this.definition = BridgeReader.read(document);
    this.catalog = catalog;
  }

  /**
   * @param number the number that the version will have, counted from 1
   * @throws DocumentException if the document cannot be used
   */
  public static BridgeVersion compile(String yaml, int number, Catalog catalog) {
    return new BridgeCompiler(DocumentNode.parse(yaml), catalog).compile(number);
  }

  private BridgeVersion compile(int number) {
    CollectionShape source =
        collection(
            definition.from().system(), definition.from().collection(), document.need("from"));
    CollectionShape target =
        collection(definition.to().system(), definition.to().collection(), document.need("to"))
            .written();
    BridgeScope scope = new BridgeScope(definition, source, catalog);
    definition.lookups().forEach(rule -> lookup(rule, scope));
    definition.values().keySet().forEach(name -> namedValue(name, scope));
    Optional<CompiledCondition> when =
        attempt(
            document.get("when").orElse(document),
            () -> CompiledCondition.compile(definition.when(), scope));
    List<BoundField> match = match(scope);
    Optional<CompiledPlan> plan = new PlanCompiler(this, definition, target, scope).compile();
    if (!problems.isEmpty()) {
      throw new DocumentException(problems);
    }
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
        remarks);
  }

  private CollectionShape collection(String system, String collection, DocumentNode at) {
    return catalog
        .collection(system, collection)
        .orElseThrow(() -> at.refuse("there is no collection " + system + "/" + collection));
  }

  private void lookup(LookupRule rule, BridgeScope scope) {
    DocumentNode place = document.need("lookups").need(rule.name());
    CollectionShape shape = collection(rule.system(), rule.collection(), place.need("in"));
    List<FieldShape> fields =
        rule.origin() == LookupRule.Origin.EVENTS ? shape.eventFields() : shape.fields();
    List<CompiledValue> by = new ArrayList<>();
    rule.by()
        .forEach(
            (key, value) ->
                attempt(place.need("by").need(key), () -> key(value, scope)).ifPresent(by::add));
    rule.several()
        .firstBy()
        .ifPresent(field -> attempt(place.need("several"), () -> ordering(field, fields, shape)));
    if (rule.origin() == LookupRule.Origin.EVENTS) {
      rule.by()
          .keySet()
          .forEach(key -> attempt(place.need("by").need(key), () -> eventKey(key, fields, shape)));
    }
    scope.add(new CompiledLookup(rule, shape, fields, List.copyOf(rule.by().keySet()), by));
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

  private List<BoundField> match(BridgeScope scope) {
    List<BoundField> match = new ArrayList<>();
    List<DocumentNode> places = document.need("match").list();
    for (int i = 0; i < places.size(); i++) {
      Address address = definition.match().get(i);
      attempt(places.get(i), () -> part(scope.bind(address))).ifPresent(match::add);
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
