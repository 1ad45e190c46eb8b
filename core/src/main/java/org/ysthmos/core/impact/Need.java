package org.ysthmos.core.impact;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.text.Nouns;
import org.ysthmos.core.uses.Thing;
import org.ysthmos.core.uses.Use;
import org.ysthmos.core.uses.Use.How;

/**
 * What a bridge would need in place of a collection of a system that is left.
 *
 * @param collection what the collection is called now
 * @param what in words, for example {@code something that tells when a report is created}
 * @param fields those of the collection that it needs, each in words
 * @param tables the ids of tables whose rows name things of that system
 */
public record Need(
    How how, String collection, String what, List<String> fields, List<String> tables) {

  public Need {
    fields = List.copyOf(fields);
    tables = List.copyOf(tables);
  }

  /** All that a bridge would need if a system were gone, in the order in which it names it. */
  public static List<Need> of(BridgeVersion bridge, String system, Catalog catalog) {
    List<Need> needs = new ArrayList<>();
    for (How how : List.of(How.HEARS, How.LOOKS_UP, How.WRITES)) {
      for (Use use : bridge.uses()) {
        Thing thing = use.thing();
        if (use.how() == how
            && thing.kind() == Thing.Kind.COLLECTION
            && thing.system().equals(system)) {
          catalog
              .collection(system, thing.collection())
              .map(shape -> need(bridge, shape, how))
              .filter(need -> !needs.contains(need))
              .ifPresent(needs::add);
        }
      }
    }
    return needs;
  }

  private static Need need(BridgeVersion bridge, CollectionShape shape, How how) {
    boolean writes = how == How.WRITES;
    List<Use> fields =
        bridge.uses().stream()
            .filter(use -> isFieldOf(use.thing(), shape))
            .filter(use -> (use.how() == How.WRITES) == writes)
            .filter(use -> writes || comesWith(bridge, shape, how, use.thing().id()))
            .toList();
    Set<String> places = new LinkedHashSet<>(fields.stream().map(Use::place).toList());
    return new Need(
        how,
        shape.name(),
        what(bridge, shape, how),
        fields.stream().map(use -> words(shape, use.thing().id(), writes)).distinct().toList(),
        writes ? tables(bridge, places::contains) : List.of());
  }

  private static boolean isFieldOf(Thing thing, CollectionShape shape) {
    return thing.kind() == Thing.Kind.FIELD
        && thing.system().equals(shape.system())
        && thing.collection().equals(shape.collection());
  }

  /** Whether a field that is read comes with what is heard, or with the record that is found. */
  private static boolean comesWith(
      BridgeVersion bridge, CollectionShape shape, How how, String key) {
    boolean ofRecords =
        bridge.between().isPresent()
            || (how == How.LOOKS_UP
                && lookups(bridge, shape)
                    .anyMatch(one -> one.origin() == LookupRule.Origin.SYSTEM));
    return find(ofRecords ? shape.fields() : shape.eventFields(), key).isPresent();
  }

  private static Stream<LookupRule> lookups(BridgeVersion bridge, CollectionShape shape) {
    return bridge.definition().lookups().stream()
        .filter(one -> one.origin() != LookupRule.Origin.TASKS)
        .filter(one -> one.system().equals(shape.system()))
        .filter(one -> one.collection().equals(shape.collection()));
  }

  private static List<String> tables(BridgeVersion bridge, Predicate<String> place) {
    return bridge.uses().stream()
        .filter(use -> use.thing().kind() == Thing.Kind.TABLE && place.test(use.place()))
        .map(use -> use.thing().id())
        .distinct()
        .toList();
  }

  private static String what(BridgeVersion bridge, CollectionShape shape, How how) {
    String record = Nouns.withArticle(shape.recordWord());
    return switch (how) {
      case HEARS ->
          "something that tells when %s is %s"
              .formatted(record, String.join(" or ", kinds(bridge, shape)));
      case LOOKS_UP -> "something that finds %s%s".formatted(record, by(bridge, shape));
      default ->
          changesAlone(bridge, shape)
              ? "a place where %s can be changed".formatted(record)
              : "a place where %s can be made and changed".formatted(record);
    };
  }

  private static List<String> kinds(BridgeVersion bridge, CollectionShape shape) {
    return bridge
        .between()
        .flatMap(both -> both.sideOf(shape.system(), shape.collection()).map(both::place))
        .map(place -> place.rule().events())
        .orElse(bridge.definition().from().events());
  }

  private static String by(BridgeVersion bridge, CollectionShape shape) {
    List<String> keys =
        lookups(bridge, shape)
            .flatMap(one -> one.by().sequencedKeySet().stream())
            .map(key -> key.startsWith("/") ? words(shape, key).orElse(key) : key)
            .distinct()
            .toList();
    return keys.isEmpty() ? "" : " by " + String.join(" and ", keys);
  }

  /** Whether nothing is made there, and records that are there are changed alone. */
  private static boolean changesAlone(BridgeVersion bridge, CollectionShape shape) {
    boolean makes =
        bridge.between().isPresent()
            || makes(bridge.target(), bridge.definition().to().changes(), shape)
            || bridge.then().stream()
                .anyMatch(one -> makes(one.target(), one.rule().to().changes(), shape));
    return !makes;
  }

  private static boolean makes(CollectionShape target, boolean changes, CollectionShape shape) {
    return !changes
        && target.system().equals(shape.system())
        && target.collection().equals(shape.collection());
  }

  /** {@code title, a text of at most 120 characters, without which none is made}. */
  private static String words(CollectionShape shape, String key, boolean written) {
    return find(shape, key)
        .map(
            field -> {
              StringBuilder words = new StringBuilder(field.name()).append(", ");
              words.append(Nouns.withArticle(field.type().toString()));
              if (written) {
                field.longest().ifPresent(most -> words.append(" of at most ").append(most));
                words.append(field.required() ? ", without which none is made" : "");
              }
              return words.toString();
            })
        .orElse(key);
  }

  private static Optional<String> words(CollectionShape shape, String key) {
    return find(shape, key).map(FieldShape::name);
  }

  private static Optional<FieldShape> find(CollectionShape shape, String key) {
    return find(shape.fields(), key).or(() -> find(shape.eventFields(), key));
  }

  private static Optional<FieldShape> find(List<FieldShape> fields, String key) {
    int list = key.indexOf("/*");
    String first = list < 0 ? key : key.substring(0, list);
    return fields.stream()
        .filter(field -> field.key().equals(first))
        .flatMap(field -> list < 0 ? Stream.of(field) : field.fields().stream())
        .filter(field -> list < 0 || field.key().equals(key.substring(list + 2)))
        .findFirst();
  }
}
