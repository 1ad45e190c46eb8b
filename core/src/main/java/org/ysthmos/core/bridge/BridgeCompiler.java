package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.ysthmos.core.bridge.BridgeDefinition.LookupRule;
import org.ysthmos.core.bridge.BridgeVersion.CompiledLookup;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.rule.Address;
import org.ysthmos.core.rule.BoundField;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.shape.Shapes;
import org.ysthmos.core.value.ValueType;

/**
 * Checks a bridge against the collections it speaks of and compiles it. Finds all problems at once.
 */
public final class BridgeCompiler {

  private final DocumentNode document;
  private final BridgeDefinition definition;
  private final Shapes shapes;
  private final List<DocumentProblem> problems = new ArrayList<>();
  private final List<CompiledLookup> lookups = new ArrayList<>();

  private BridgeCompiler(DocumentNode document, Shapes shapes) {
    this.document = document;
    this.definition = BridgeReader.read(document);
    this.shapes = shapes;
  }

  /**
   * Reads and compiles a bridge document.
   *
   * @param number the version it will have, counted from 1
   * @throws DocumentException with every problem found, each with its place
   */
  public static BridgeVersion compile(String yaml, int number, Shapes shapes) {
    return new BridgeCompiler(DocumentNode.parse(yaml), shapes).compile(number);
  }

  private BridgeVersion compile(int number) {
    BridgeDefinition.From from = definition.from();
    BridgeDefinition.To to = definition.to();
    CollectionShape source = shape(from.system(), from.collection(), document.need("from"));
    CollectionShape target = shape(to.system(), to.collection(), document.need("to"));
    definition.lookups().forEach(rule -> lookup(rule, source));
    RuleCompiler rules = new RuleCompiler(address -> bind(address, source));

    Optional<CompiledCondition> when =
        attempt(
            document.get("when").orElse(document),
            () -> CompiledCondition.compile(definition.when(), address -> bind(address, source)));
    List<BoundField> match = new ArrayList<>();
    definition
        .match()
        .forEach(
            address ->
                attempt(document.need("match"), () -> bind(address, source)).ifPresent(match::add));
    List<CompiledField> fields = new ArrayList<>();
    for (FieldRule rule : definition.fields()) {
      DocumentNode place = document.need("fields").need(rule.field());
      attempt(place, () -> rules.compile(rule, target(rule, target))).ifPresent(fields::add);
    }
    requireFields(target);
    if (!problems.isEmpty()) {
      throw new DocumentException(problems);
    }
    return new BridgeVersion(
        definition, number, source, target, lookups, when.orElseThrow(), match, fields);
  }

  private CollectionShape shape(String system, String collection, DocumentNode at) {
    return shapes
        .find(system, collection)
        .orElseThrow(() -> at.refuse("there is no collection " + system + "/" + collection));
  }

  private void lookup(LookupRule rule, CollectionShape source) {
    DocumentNode place = document.need("lookups").need(rule.name());
    CollectionShape shape = shape(rule.system(), rule.collection(), place);
    List<BoundField> by = new ArrayList<>();
    rule.by()
        .forEach((key, address) -> attempt(place, () -> bind(address, source)).ifPresent(by::add));
    lookups.add(new CompiledLookup(rule, shape, List.copyOf(rule.by().keySet()), by));
  }

  private static FieldShape target(FieldRule rule, CollectionShape target) {
    return target
        .field(rule.field())
        .orElseThrow(
            () ->
                new IllegalArgumentException(
                    Nearest.unknown(
                        "field of " + target.name(),
                        rule.field(),
                        target.fields().stream().map(FieldShape::key).toList())));
  }

  private void requireFields(CollectionShape target) {
    for (FieldShape field : target.fields()) {
      if (field.required()
          && definition.fields().stream().noneMatch(rule -> rule.field().equals(field.key()))) {
        problems.add(
            document
                .need("fields")
                .problem("“" + field.key() + "” is required by " + target.name()));
      }
    }
  }

  private BoundField bind(Address address, CollectionShape source) {
    if (address.isInEventData()) {
      FieldShape shape = named(source.eventFields(), address, "that comes with the event");
      return new BoundField(address, shape, "event", -1);
    }
    if (address.isEventAttribute()) {
      String name = address.pointer().lastToken();
      if (address.pointer().tokens().size() != 1 || !Address.EVENT_ATTRIBUTES.contains(name)) {
        throw new IllegalArgumentException(
            Nearest.unknown("attribute of an event", name, Address.EVENT_ATTRIBUTES));
      }
      ValueType type = BoundField.attributeType(name);
      return new BoundField(address, FieldShape.of(name, name, type), "event", -1);
    }
    for (int i = 0; i < lookups.size(); i++) {
      CompiledLookup lookup = lookups.get(i);
      if (lookup.rule().name().equals(address.root())) {
        FieldShape shape = named(lookup.shape().fields(), address, "of " + lookup.shape().name());
        return new BoundField(address, shape, lookup.shape().recordWord(), i);
      }
    }
    throw new IllegalArgumentException(
        Nearest.unknown(
            "lookup",
            address.root(),
            definition.lookups().stream().map(LookupRule::name).toList()));
  }

  private static FieldShape named(List<FieldShape> fields, Address address, String of) {
    String key = address.pointer().toString();
    return fields.stream()
        .filter(field -> field.key().equals(key))
        .findFirst()
        .orElseThrow(
            () ->
                new IllegalArgumentException(
                    Nearest.unknown(
                        "field " + of, key, fields.stream().map(FieldShape::key).toList())));
  }

  private <T> Optional<T> attempt(DocumentNode place, Supplier<T> compile) {
    try {
      return Optional.of(compile.get());
    } catch (IllegalArgumentException refused) {
      problems.add(place.problem(String.valueOf(refused.getMessage())));
      return Optional.empty();
    }
  }
}
