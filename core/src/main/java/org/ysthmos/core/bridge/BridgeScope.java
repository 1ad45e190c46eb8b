package org.ysthmos.core.bridge;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.function.Supplier;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.BoundField.OfAttribute;
import org.ysthmos.core.reading.BoundField.OfEvent;
import org.ysthmos.core.reading.BoundField.OfItem;
import org.ysthmos.core.reading.BoundField.OfItemValue;
import org.ysthmos.core.reading.BoundField.OfLookup;
import org.ysthmos.core.reading.BoundField.OfMade;
import org.ysthmos.core.reading.BoundField.OfNamed;
import org.ysthmos.core.reading.BoundField.OfPlace;
import org.ysthmos.core.reading.BoundField.OfSet;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.rule.RuleCompiler;
import org.ysthmos.core.rule.ValueRule;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.uses.Use;
import org.ysthmos.core.value.ValueType;

/** What the rules of one bridge can name, as far as it is compiled. */
final class BridgeScope implements Scope {

  private static final FieldShape DAY = FieldShape.of("day", "day of the task", ValueType.DAY);
  static final FieldShape MADE_ID = FieldShape.of("id", "id of the task", ValueType.TEXT);
  static final FieldShape MADE_LINK = FieldShape.of("link", "link of the task", ValueType.LINK);
  private static final FieldShape ANCHOR = FieldShape.of("anchor", "anchor day", ValueType.DAY);

  private final CollectionShape source;
  private final Catalog catalog;
  private final Map<String, ValueRule> named;
  private final List<String> valueNames;
  private final List<String> lookupNames;
  private final List<CompiledLookup> lookups;
  private final SequencedMap<String, NamedValue> compiledValues;
  private final Set<String> underWay;
  private final ItemKind item;
  private final boolean inSet;
  private final boolean afterTask;
  private final UseRecorder uses;
  private final Optional<Place> place;

  /**
   * A value that the bridge names.
   *
   * @param lookup the last lookup that must be answered first, counted from 0; -1 if none need be
   */
  private record NamedValue(CompiledValue value, int lookup) {
    static NamedValue of(UseRecorder uses, Supplier<CompiledValue> compile) {
      UseRecorder.Needing<CompiledValue> needing = uses.needing(compile);
      return new NamedValue(needing.compiled(), needing.lastLookup());
    }
  }

  /** What {@code item/…} means just now. */
  private sealed interface ItemKind {}

  private record NoItem() implements ItemKind {}

  private record RecordItem(CollectionShape of, FieldShape list, int lookup) implements ItemKind {}

  private record ValueItem(ValueType type, String name) implements ItemKind {}

  /**
   * @param lookups the names of all lookups, those that cannot be read included
   * @param values the names of all values, those that cannot be read included
   * @param place the place whose events it is for, where the bridge hears several
   */
  BridgeScope(
      BridgeDefinition definition,
      CollectionShape source,
      Catalog catalog,
      Collection<String> lookups,
      Collection<String> values,
      UseRecorder uses,
      Optional<Place> place) {
    this(
        source,
        catalog,
        definition.values(),
        List.copyOf(values),
        List.copyOf(lookups),
        new ArrayList<>(),
        new LinkedHashMap<>(),
        new HashSet<>(),
        new NoItem(),
        false,
        false,
        uses,
        place);
  }

  private BridgeScope(
      CollectionShape source,
      Catalog catalog,
      Map<String, ValueRule> named,
      List<String> valueNames,
      List<String> lookupNames,
      List<CompiledLookup> lookups,
      SequencedMap<String, NamedValue> compiledValues,
      Set<String> underWay,
      ItemKind item,
      boolean inSet,
      boolean afterTask,
      UseRecorder uses,
      Optional<Place> place) {
    this.source = source;
    this.catalog = catalog;
    this.named = named;
    this.valueNames = valueNames;
    this.lookupNames = lookupNames;
    this.lookups = lookups;
    this.compiledValues = compiledValues;
    this.underWay = underWay;
    this.item = item;
    this.inSet = inSet;
    this.afterTask = afterTask;
    this.uses = uses;
    this.place = place;
  }

  private BridgeScope with(ItemKind newItem, boolean nowInSet) {
    return with(newItem, nowInSet, afterTask);
  }

  private BridgeScope with(ItemKind newItem, boolean nowInSet, boolean nowAfterTask) {
    return new BridgeScope(
        source,
        catalog,
        named,
        valueNames,
        lookupNames,
        lookups,
        compiledValues,
        underWay,
        newItem,
        nowInSet,
        nowAfterTask,
        uses,
        place);
  }

  /** The scope of what comes after a task was made. */
  BridgeScope afterTask() {
    return with(item, inSet, true);
  }

  /** The scope of the tasks of a set. */
  BridgeScope inSet() {
    return with(item, true);
  }

  /** The scope of the tasks that are made for each value of a list. */
  BridgeScope withItem(ValueType type, String name) {
    return with(new ValueItem(type, name), inSet);
  }

  /** What comes with the event. */
  CollectionShape source() {
    return source;
  }

  void add(CompiledLookup lookup) {
    lookups.add(lookup);
  }

  List<CompiledLookup> lookups() {
    return lookups;
  }

  /** The named values compiled so far, in the order of their places. */
  List<CompiledValue> compiledValues() {
    return compiledValues.sequencedValues().stream().map(NamedValue::value).toList();
  }

  /** The names of the compiled values, in the order of their places. */
  List<String> valueNames() {
    return List.copyOf(compiledValues.sequencedKeySet());
  }

  @Override
  public BridgeScope inItemsOf(BoundField list) {
    if (!list.shape().type().equals(ValueType.listOf(ValueType.RECORD))) {
      throw new Misfit(
          "“%s” is a %s and no list of records; use steps such as for-each on it instead"
              .formatted(list.address(), list.shape().type()));
    }
    CollectionShape of = list.lookup() < 0 ? source : lookups.get(list.lookup()).shape();
    return with(new RecordItem(of, list.shape(), list.lookup()), inSet);
  }

  @Override
  public BoundField bind(Address address) {
    return uses.bound(bound(address));
  }

  private BoundField bound(Address address) {
    if (place.isPresent() && address.root().equals(Address.PLACE)) {
      return place(address, place.get());
    }
    return switch (address.root()) {
      case "" -> {
        FieldShape shape = field(source.eventFields(), address, "that comes with the event");
        uses.field(source, shape.key(), Use.How.READS);
        yield new BoundField(address, shape, "event", -1, new OfEvent(address.pointer(), shape));
      }
      case Address.EVENT -> attribute(address);
      case Address.VALUES -> namedValue(address);
      case Address.ITEM -> item(address);
      case Address.SET -> setDay(address);
      case Address.MADE -> made(address);
      default -> lookedUp(address);
    };
  }

  private static BoundField attribute(Address address) {
    String name = oneToken(address, Address.EVENT_ATTRIBUTES, "attribute of an event");
    FieldShape shape = FieldShape.of(name, name, OfAttribute.type(name));
    return new BoundField(address, shape, "event", -1, new OfAttribute(name));
  }

  private static String oneToken(Address address, Collection<String> known, String what) {
    String name = address.pointer().lastToken();
    if (address.pointer().tokens().size() != 1 || !known.contains(name)) {
      throw new Misfit(Nearest.unknown(what, name, known));
    }
    return name;
  }

  private BoundField namedValue(Address address) {
    String name = oneToken(address, valueNames, "value of this bridge");
    if (!named.containsKey(name)) {
      throw new Misfit("“" + address + "” cannot be used, since its own rule cannot be read");
    }
    NamedValue value = compiledValues.get(name);
    if (value == null) {
      if (!underWay.add(name)) {
        throw new Misfit("“values/" + name + "” is made from itself");
      }
      ValueRule rule = Objects.requireNonNull(named.get(name));
      // A named value is the same for all items, so it cannot name one.
      BridgeScope within = with(new NoItem(), false, false);
      value =
          uses.at(
              "values/" + name,
              () -> NamedValue.of(uses, () -> RuleCompiler.value(rule, Optional.empty(), within)));
      underWay.remove(name);
      compiledValues.put(name, value);
    }
    int place = List.copyOf(compiledValues.sequencedKeySet()).indexOf(name);
    return new BoundField(
        address,
        FieldShape.of(name, name, value.value().gives()),
        "bridge",
        value.lookup(),
        new OfNamed(place));
  }

  private BoundField item(Address address) {
    return switch (item) {
      case NoItem none ->
          throw new Misfit("“" + address + "” has a meaning only where a list is gone through");
      case ValueItem value -> {
        String unused = oneToken(address, List.of("value"), "part of an item");
        yield new BoundField(
            address,
            FieldShape.of("value", value.name(), value.type()),
            "item",
            -1,
            new OfItemValue());
      }
      case RecordItem record -> {
        FieldShape shape =
            field(record.list().fields(), address, "of an item of " + record.list().name());
        uses.fieldInList(record.of(), record.list(), shape.key());
        yield new BoundField(
            address, shape, "item", record.lookup(), new OfItem(address.pointer(), shape));
      }
    };
  }

  private BoundField setDay(Address address) {
    if (!inSet) {
      throw new Misfit("“" + address + "” has a meaning only for the tasks of a set");
    }
    boolean anchor = oneToken(address, List.of("day", "anchor"), "day of a set").equals("anchor");
    return new BoundField(address, anchor ? ANCHOR : DAY, "set", -1, new OfSet(anchor));
  }

  private BoundField made(Address address) {
    if (!afterTask) {
      throw new Misfit(
          "“"
              + address
              + "” has a meaning only in the fields of what comes then, after one task was made");
    }
    boolean link = oneToken(address, List.of("id", "link"), "part of the task").equals("link");
    return new BoundField(address, link ? MADE_LINK : MADE_ID, "task", -1, new OfMade(link));
  }

  /** What is said of the place: its id, its name, and what its row of the table holds. */
  private BoundField place(Address address, Place at) {
    SequencedMap<String, Place.Said> said = at.known(source.name());
    String name = oneToken(address, List.copyOf(said.keySet()), "thing that is known of a place");
    Place.Said one = Objects.requireNonNull(said.get(name));
    return new BoundField(
        address,
        FieldShape.of(name, at.shownName(name), one.type()),
        Address.PLACE,
        -1,
        new OfPlace(one.value()));
  }

  private BoundField lookedUp(Address address) {
    for (int i = 0; i < lookups.size(); i++) {
      CompiledLookup lookup = lookups.get(i);
      if (lookup.rule().name().equals(address.root())) {
        FieldShape shape = field(lookup.fields(), address, "of " + lookup.shape().name());
        uses.field(lookup.shape(), shape.key(), Use.How.READS);
        return new BoundField(
            address,
            shape,
            lookup.shape().recordWord(),
            i,
            new OfLookup(i, address.pointer(), shape));
      }
    }
    throw new Misfit(
        lookupNames.contains(address.root())
            ? "the lookup “" + address.root() + "” comes later, or cannot be used"
            : Nearest.unknown("lookup", address.root(), lookupNames));
  }

  private static FieldShape field(List<FieldShape> fields, Address address, String of) {
    String key = address.pointer().toString();
    return fields.stream()
        .filter(field -> field.key().equals(key))
        .findFirst()
        .orElseThrow(
            () ->
                new Misfit(
                    Nearest.unknown(
                        "field " + of, key, fields.stream().map(FieldShape::key).toList())));
  }

  @Override
  public TableDefinition table(String id) {
    uses.table(id);
    return catalog
        .table(id)
        .orElseThrow(() -> new Misfit(Nearest.unknown("table", id, catalog.tables())));
  }

  @Override
  public WorkingCalendar calendar(String id) {
    uses.calendar(id);
    return catalog
        .calendar(id)
        .orElseThrow(() -> new Misfit(Nearest.unknown("calendar", id, catalog.calendars())));
  }
}
