package org.ysthmos.core.bridge;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.uses.Thing;
import org.ysthmos.core.uses.Use;

/**
 * A compiled bridge: functions and nothing to parse. Immutable and safe to share between threads.
 *
 * @param number the version, counted from 1
 * @param values the values that the bridge names, in the order of their places
 * @param valueNames their names, in the same order
 * @param lookupsBeforeWhen how many lookups must be answered before the condition can be asked; the
 *     others are spared where it is not met
 * @param uses what its rules name outside of it, and where
 * @param remarks what a person should know before using it, each with its place in the document
 * @param chores how each record comes round where it begins, where they do
 * @param between what keeps two places alike, where it does
 * @param place the place from which it is seen, where it hears several
 * @param places it as it is for the events of each of its places, by the id of the collection,
 *     where it hears several; it is seen from the first of them itself
 */
public record BridgeVersion(
    BridgeDefinition definition,
    int number,
    CollectionShape source,
    CollectionShape target,
    List<CompiledLookup> lookups,
    List<CompiledValue> values,
    List<String> valueNames,
    CompiledCondition when,
    int lookupsBeforeWhen,
    List<BoundField> match,
    CompiledPlan plan,
    List<CompiledEffect> then,
    List<DocumentProblem> remarks,
    List<Use> uses,
    Optional<CompiledChores> chores,
    Optional<CompiledTwoWay> between,
    Optional<Place> place,
    SequencedMap<String, BridgeVersion> places) {

  public BridgeVersion {
    lookups = List.copyOf(lookups);
    values = List.copyOf(values);
    valueNames = List.copyOf(valueNames);
    match = List.copyOf(match);
    then = List.copyOf(then);
    remarks = List.copyOf(remarks);
    uses = List.copyOf(uses);
    places = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(places));
  }

  /** The same as it looks to an event of a collection, where it hears more than one. */
  public BridgeVersion seenFrom(String system, String collection) {
    if (!places.isEmpty()) {
      return source.system().equals(system) ? places.getOrDefault(collection, this) : this;
    }
    return between
        .flatMap(both -> both.sideOf(system, collection))
        .filter(side -> side != between.orElseThrow().from())
        .map(this::seenFrom)
        .orElse(this);
  }

  private BridgeVersion seenFrom(Side side) {
    return new BridgeVersion(
        definition.seenFrom(side),
        number,
        /* source= */ target,
        /* target= */ source,
        lookups,
        values,
        valueNames,
        when,
        lookupsBeforeWhen,
        match,
        plan,
        then,
        remarks,
        uses,
        chores,
        between.map(both -> both.seenFrom(side)),
        place,
        places);
  }

  /** The ids of the collections that its events come from. */
  public List<String> heard() {
    return places.isEmpty() ? List.of(source.collection()) : List.copyOf(places.sequencedKeySet());
  }

  /** What people call where its events come from; of several places how many they are. */
  public String sourceName() {
    return places.size() > 1 ? places.size() + " places" : source.name();
  }

  /** What people call where its tasks stand; of several places how many they are. */
  public String targetName() {
    long others =
        places.values().stream().map(view -> view.target().collection()).distinct().count();
    return others > 1 ? others + " places" : target.name();
  }

  /**
   * Whether an event came from a place that it does not hear any more; false where it hears one
   * collection, as all that waits for it is of that.
   */
  public boolean leftPlace(String system, String collection) {
    return !places.isEmpty() && !(source.system().equals(system) && places.containsKey(collection));
  }

  /** The same with its places, seen from the first of them. */
  BridgeVersion with(
      SequencedMap<String, BridgeVersion> all,
      List<Use> allUses,
      List<DocumentProblem> allRemarks) {
    return new BridgeVersion(
        definition,
        number,
        source,
        target,
        lookups,
        values,
        valueNames,
        when,
        lookupsBeforeWhen,
        match,
        plan,
        then,
        allRemarks,
        allUses,
        chores,
        between,
        place,
        all);
  }

  /** The reference tables that its rules name. */
  public Set<String> tables() {
    return named(Thing.Kind.TABLE);
  }

  /** The calendars that its rules name. */
  public Set<String> calendars() {
    return named(Thing.Kind.CALENDAR);
  }

  private Set<String> named(Thing.Kind kind) {
    return uses.stream()
        .map(Use::thing)
        .filter(thing -> thing.kind() == kind)
        .map(Thing::id)
        .collect(Collectors.toUnmodifiableSet());
  }

  /** Whether any of its rules names a thing. */
  public boolean names(Thing thing) {
    return uses.stream().anyMatch(use -> use.thing().equals(thing));
  }

  /** The systems that are asked while an event of it is decided. */
  public List<String> asked() {
    Stream<String> lookedUp =
        definition.lookups().stream()
            .filter(lookup -> lookup.origin() == LookupRule.Origin.SYSTEM)
            .map(LookupRule::system);
    Stream<String> kept =
        definition.between().stream()
            .flatMap(both -> Stream.of(both.left().system(), both.right().system()));
    return Stream.concat(lookedUp, kept).distinct().toList();
  }

  /** It as it looks to each of the collections that it hears. */
  public List<BridgeVersion> views() {
    if (!places.isEmpty()) {
      return List.copyOf(places.sequencedValues());
    }
    return between.isEmpty()
        ? List.of(this)
        : List.of(this, seenFrom(between.orElseThrow().from().across()));
  }
}
