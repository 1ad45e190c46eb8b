package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.bridge.CompiledTwoWay.CompiledPlace;
import org.ysthmos.core.bridge.CompiledTwoWay.FieldOf;
import org.ysthmos.core.bridge.CompiledTwoWay.Part;
import org.ysthmos.core.bridge.CompiledTwoWay.Translation;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.FieldRule;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.rule.Source;
import org.ysthmos.core.rule.ValueRule;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.BothChanged;
import org.ysthmos.core.sync.Direction;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.uses.Use;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** Type-checks what keeps two places alike and makes it into functions. */
final class TwoWayCompiler {

  private static final Address IN_HAND = new Address(Address.ITEM, new Pointer(List.of("value")));

  private static final String MADE = Address.MADE + "/";
  private static final String MADE_ID = MADE + "id";
  private static final String MADE_LINK = MADE + "link";

  private final BridgeCompiler compiler;
  private final BridgeDefinition definition;
  private final TwoWay rule;
  private final Both<CollectionShape> shapes;
  private final Both<BridgeScope> scopes;
  private final DocumentNode between;
  private final Catalog catalog;

  /**
   * @param shapes of the tasks of both sides, with all their fields
   */
  TwoWayCompiler(
      BridgeCompiler compiler,
      BridgeDefinition definition,
      Both<CollectionShape> shapes,
      Catalog catalog) {
    this.compiler = compiler;
    this.definition = definition;
    this.rule = definition.between().orElseThrow();
    this.shapes = shapes;
    this.catalog = catalog;
    this.between = compiler.document().need(TwoWayDocument.BETWEEN);
    this.scopes = Both.by(side -> scope(shapes.of(side)));
  }

  private BridgeScope scope(CollectionShape shape) {
    return new BridgeScope(
        definition, whole(shape), catalog, Set.of(), Set.of(), compiler.uses(), Optional.empty());
  }

  /** The shape of a record that is read whole, each field under its address. */
  private static CollectionShape whole(CollectionShape shape) {
    Map<String, FieldShape> fields = new LinkedHashMap<>();
    for (FieldShape field : shape.fields()) {
      String address = addressOf(field.key());
      fields.put(address, field.withKey(address));
    }
    return shape.withEventFields(List.copyOf(fields.values()));
  }

  /** Where a field stands in a record that is read whole. */
  static String addressOf(String key) {
    return key.startsWith("/") ? key : new Pointer(List.of(key)).toString();
  }

  /** What is wrong is kept with the compiler; the result counts only if nothing is. */
  CompiledTwoWay compile() {
    for (Side side : Side.values()) {
      abilities(side);
      place(side, Use.How.HEARS);
      if (rule.place(side.across()).begins()
          || rule.fields().stream().anyMatch(field -> goes(field, side))) {
        place(side, Use.How.WRITES);
      }
    }
    List<CompiledTwoWay.Field> fields = new ArrayList<>();
    for (TwoWay.Field field : rule.fields()) {
      DocumentNode place = compiler.document().need("fields").need(field.name());
      compiler.attempt(place, () -> field(field)).ifPresent(fields::add);
    }
    for (Side side : Side.values()) {
      onceEach(side);
      required(side);
    }
    return new CompiledTwoWay(rule, Side.LEFT, Both.by(this::place), fields);
  }

  private void place(Side side, Use.How how) {
    TwoWay.Place place = rule.place(side);
    compiler.uses().collection(at(side), place.system(), place.collection(), how);
  }

  private DocumentNode at(Side side) {
    return between.need(side == Side.LEFT ? TwoWayDocument.LEFT : TwoWayDocument.RIGHT);
  }

  private CompiledPlace place(Side side) {
    TwoWay.Place place = rule.place(side);
    CompiledCondition when =
        compiler
            .attempt(
                at(side).get("when").orElse(at(side)),
                () -> CompiledCondition.compile(place.when(), scopes.of(side)))
            .orElse(new CompiledCondition.All(List.of()));
    return new CompiledPlace(place, shapes.of(side).written(), when, early(side));
  }

  /** A condition that asks for more than comes with an event is asked once the task was read. */
  private Optional<CompiledCondition> early(Side side) {
    // What it names is taken down with the condition itself.
    BridgeScope ofEvents =
        new BridgeScope(
            definition,
            shapes.of(side),
            catalog,
            Set.of(),
            Set.of(),
            new UseRecorder(catalog),
            Optional.empty());
    try {
      return Optional.of(CompiledCondition.compile(rule.place(side).when(), ofEvents));
    } catch (Misfit notAllComesWithIt) {
      return Optional.empty();
    }
  }

  private void abilities(Side side) {
    CollectionShape shape = shapes.of(side);
    shape
        .abilities()
        .ifPresent(
            can -> {
              if (!can.reads()) {
                unable(side, "read by their id", "find: by: [id]");
              }
              if (!can.makes() && rule.place(side.across()).begins()) {
                unable(side, "made", "create");
              }
              if (!can.changes() && rule.fields().stream().anyMatch(field -> goes(field, side))) {
                unable(side, "changed", "change");
              }
            });
  }

  private void unable(Side side, String what, String call) {
    CollectionShape shape = shapes.of(side);
    compiler.problem(
        at(side)
            .problem(
                "%s of %s cannot be %s: its description names no call that does (%s)"
                    .formatted(shape.name(), shape.systemName(), what, call)));
  }

  /** Whether changes of a field go to a side. */
  private static boolean goes(TwoWay.Field field, Side to) {
    return field.direction().carries(to.across());
  }

  /** Whether a field is written when a task is made on a side. */
  private static boolean isMadeWith(TwoWay.Field field, Side to) {
    return goes(field, to) || field.direction() == Direction.ONCE;
  }

  private CompiledTwoWay.Field field(TwoWay.Field field) {
    Both<FieldOf> at = Both.by(side -> fieldOf(field, side));
    return new CompiledTwoWay.Field(
        field, at, Both.by(to -> translation(field, to, at.of(to.across()), at.of(to))));
  }

  private FieldOf fieldOf(TwoWay.Field field, Side side) {
    TwoWay.FieldAt at = field.at(side);
    CollectionShape shape = shapes.of(side);
    boolean written = isMadeWith(field, side);
    if (at.key().startsWith(MADE)) {
      return partOf(at, shape, written);
    }
    List<FieldShape> known =
        written ? shape.written().fields() : scopes.of(side).source().eventFields();
    if (written && at.key().startsWith("/")) {
      throw new Misfit(
          "“%s” is an address, which can be read only; name the field that is written, or let it go the other way alone"
              .formatted(at.key()));
    }
    Optional<FieldShape> found = shape.field(at.key());
    FieldShape one =
        found
            .or(() -> known.stream().filter(any -> any.key().equals(at.key())).findFirst())
            .orElseThrow(
                () ->
                    new Misfit(
                        Nearest.unknown(
                            "field of " + shape.name(),
                            at.key(),
                            known.stream().map(FieldShape::key).toList())));
    if (isMadeWith(field, side.across())) {
      compiler.uses().field(shape, one.key(), Use.How.READS);
    }
    if (written) {
      compiler.uses().field(shape, one.key(), Use.How.WRITES);
    }
    return new FieldOf(one, Part.FIELD, at.address());
  }

  /** The id or the page of a task, which its system says and nobody writes. */
  private static FieldOf partOf(TwoWay.FieldAt at, CollectionShape shape, boolean written) {
    FieldShape part =
        switch (at.key()) {
          case MADE_ID -> BridgeScope.MADE_ID;
          case MADE_LINK -> BridgeScope.MADE_LINK;
          default ->
              throw new Misfit(
                  Nearest.unknown("part of a task", at.key(), List.of(MADE_ID, MADE_LINK)));
        };
    if (written) {
      throw new Misfit(
          "“%s” is told by %s and never written; let it go the other way alone (direction)"
              .formatted(at.key(), shape.systemName()));
    }
    boolean link = at.key().equals(MADE_LINK);
    if (link && shape.abilities().filter(can -> !can.pages()).isPresent()) {
      throw new Misfit(
          "%s of %s have no page of their own (page)".formatted(shape.name(), shape.systemName()));
    }
    return new FieldOf(part, link ? Part.LINK : Part.ID, at.address());
  }

  private Translation translation(TwoWay.Field field, Side to, FieldOf from, FieldOf target) {
    String key = to == Side.LEFT ? TwoWayDocument.TO_LEFT : TwoWayDocument.TO_RIGHT;
    Optional<TwoWay.Translation> stated = field.to(to);
    if (!isMadeWith(field, to)) {
      if (stated.isPresent()) {
        throw new Misfit("it does not go this way (direction), so nothing is said of it here")
            .under(key);
      }
      return new Translation.None();
    }
    return switch (stated.orElseGet(() -> unsaid(field, to, from, target))) {
      case TwoWay.Translation.Steps steps ->
          Misfit.at(key, () -> bySteps(steps.steps(), to, from, target));
      case TwoWay.Translation.Values values -> Misfit.at(key, () -> byValues(values, from, target));
      case TwoWay.Translation.ItsPair pair -> Misfit.at(key, () -> byPair(field, to, from, target));
    };
  }

  /** Where nothing is said it stays the same; a way there does not tell the way back. */
  private static TwoWay.Translation unsaid(
      TwoWay.Field field, Side to, FieldOf from, FieldOf target) {
    String here = to == Side.LEFT ? TwoWayDocument.TO_LEFT : TwoWayDocument.TO_RIGHT;
    String there = to == Side.LEFT ? TwoWayDocument.TO_RIGHT : TwoWayDocument.TO_LEFT;
    if (field.to(to.across()).filter(TwoWayCompiler::isItsPair).isPresent()) {
      return new TwoWay.Translation.ItsPair();
    }
    boolean stays =
        field.to(to.across()).map(TwoWayCompiler::isSame).orElse(true)
            && from.shape().type().equals(target.shape().type());
    if (field.to(to.across()).isPresent() && !stays) {
      throw new Misfit(
          "%s says what it becomes, and nothing says the way back; state %s, or let it go one way: direction: %s"
              .formatted(there, here, there));
    }
    return new TwoWay.Translation.Steps(List.of());
  }

  private static boolean isItsPair(TwoWay.Translation translation) {
    return translation instanceof TwoWay.Translation.ItsPair;
  }

  /** What names a task on one side names its other one on the other. */
  private static Translation byPair(TwoWay.Field field, Side to, FieldOf from, FieldOf target) {
    for (FieldOf one : List.of(from, target)) {
      ValueType type = one.shape().type();
      if (one.part() != Part.FIELD
          || !(type.equals(ValueType.TEXT) || type.equals(ValueType.NUMBER))) {
        throw new Misfit(
            "the id of a task is a text or a number, “%s” is a %s"
                .formatted(one.shape().name(), one.part() == Part.FIELD ? type : "task's own"));
      }
    }
    if (field.to(to.across()).filter(back -> !isItsPair(back)).isPresent()) {
      throw new Misfit("what names a task names its other one both ways; write its-pair on either");
    }
    if (field.both() == BothChanged.MERGE) {
      throw new Misfit("two tasks cannot be brought together into one; say which of both counts");
    }
    return new Translation.ByPair(target.shape());
  }

  private static boolean isSame(TwoWay.Translation translation) {
    return translation instanceof TwoWay.Translation.Steps steps && steps.steps().isEmpty();
  }

  private Translation bySteps(List<Step> steps, Side to, FieldOf from, FieldOf target) {
    BridgeScope scope = scopes.of(to.across()).withItem(from.shape().type(), from.shape().name());
    ValueRule value = new ValueRule(new Source.Field(IN_HAND), steps);
    CompiledField field =
        RuleCompiler.field(new FieldRule(target.shape().key(), value), target.shape(), scope);
    return new Translation.BySteps(field);
  }

  private static Translation byValues(
      TwoWay.Translation.Values values, FieldOf from, FieldOf target) {
    if (from.shape().type().isList() || target.shape().type().isList()) {
      throw new Misfit("values stand for single ones, and one of the fields is a list");
    }
    Map<String, Value> becomes = new LinkedHashMap<>();
    values
        .values()
        .forEach(
            (value, written) -> {
              String at = "values/" + value;
              String known = Misfit.at(at, () -> known(value, from.shape()));
              becomes.put(known, Misfit.at(at, () -> constant(written, target.shape())));
            });
    return new Translation.ByValues(
        becomes,
        values
            .otherwise()
            .map(written -> Misfit.at("otherwise", () -> constant(written, target.shape()))),
        target.shape().required());
  }

  private static Value constant(String written, FieldShape shape) {
    return Constant.parse(known(written, shape), shape.type());
  }

  private static String known(String value, FieldShape shape) {
    if (!shape.names().isEmpty() && !shape.names().containsKey(value)) {
      throw new Misfit(Nearest.unknown(shape.name(), value, shape.names().keySet()));
    }
    return value;
  }

  /** A field of a side that two rules wrote would be written twice, with different values. */
  private void onceEach(Side side) {
    Set<String> written = new LinkedHashSet<>();
    for (TwoWay.Field field : rule.fields()) {
      if (isMadeWith(field, side) && !written.add(field.at(side).key())) {
        compiler.problem(
            compiler
                .document()
                .need("fields")
                .need(field.name())
                .problem(
                    "“%s” is kept alike by another field already".formatted(field.at(side).key())));
      }
    }
  }

  private void required(Side side) {
    if (!rule.place(side.across()).begins()) {
      return;
    }
    for (FieldShape field : shapes.of(side).written().fields()) {
      boolean stated =
          rule.fields().stream()
              .anyMatch(one -> isMadeWith(one, side) && one.at(side).key().equals(field.key()));
      if (field.required() && !stated) {
        compiler.problem(
            compiler
                .document()
                .need("fields")
                .problem("“%s” is required by %s".formatted(field.key(), shapes.of(side).name())));
      }
    }
  }
}
