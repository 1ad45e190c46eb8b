package org.ysthmos.app.uses;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.adapters.system.SignIn;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.health.NameUses;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.who.OwnerMapper;
import org.ysthmos.app.who.OwnerMapper.OwnerRow;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.impact.PlaceWords;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.uses.Thing;
import org.ysthmos.core.uses.Use;
import org.ysthmos.core.value.ValueType;

/** Which bridges use a thing, and where. */
@Component
class UseFinder {

  /** So many people of a directory are looked at for one name. */
  private static final int MOST_PEOPLE = 50;

  /** What can be asked about. */
  enum Kind {
    SYSTEM,
    COLLECTION,
    FIELD,
    TABLE,
    CALENDAR,
    /** A bridge whose tasks are looked up. */
    BRIDGE,
    PERSON,
    SECRET
  }

  /**
   * What is asked about.
   *
   * @param id a field's key, an id, a secret's name, or what a person is called in part
   */
  record Wanted(Kind kind, String system, String collection, String id) {}

  /** What a bridge does with a thing. */
  enum Deed {
    HEARS,
    LOOKS_UP,
    READS,
    WRITES,
    /** Of a person: that is asked about the bridge. */
    ASKS;

    static Deed of(Use.How how) {
      return switch (how) {
        case HEARS -> HEARS;
        case LOOKS_UP -> LOOKS_UP;
        case READS -> READS;
        case WRITES -> WRITES;
      };
    }
  }

  /**
   * A place where a bridge uses it.
   *
   * @param what what of the thing it uses, where that is but a part of it; empty for the whole
   * @param words the place in words
   * @param path the place in its document
   */
  record PlaceLine(Deed how, String what, String words, String path) {}

  /** A bridge that uses it. */
  record UseLine(String bridge, String name, boolean held, List<PlaceLine> places) {}

  private final Bridges bridges;
  private final Systems systems;
  private final NameUses names;
  private final OwnerMapper owners;

  UseFinder(Bridges bridges, Systems systems, NameUses names, OwnerMapper owners) {
    this.bridges = bridges;
    this.systems = systems;
    this.names = names;
    this.owners = owners;
  }

  /** Those of the bridges that are at work, by name. */
  List<UseLine> of(Wanted wanted) {
    if (wanted.kind() == Kind.PERSON) {
      return ofPerson(wanted.id().strip());
    }
    return lines(bridge -> places(bridge, wanted));
  }

  private List<UseLine> lines(Function<BridgeVersion, Stream<PlaceLine>> places) {
    return bridges.live().stream()
        .map(live -> line(live, places.apply(live.version())))
        .filter(line -> !line.places().isEmpty())
        .sorted(Comparator.comparing(line -> line.name().toLowerCase(Locale.ROOT)))
        .toList();
  }

  private static UseLine line(Bridges.Live live, Stream<PlaceLine> places) {
    return new UseLine(
        live.version().definition().id(),
        live.version().definition().name(),
        live.hold().isPresent(),
        places.distinct().toList());
  }

  private Stream<PlaceLine> places(BridgeVersion bridge, Wanted wanted) {
    return wanted.kind() == Kind.SECRET
        ? secret(bridge, wanted.id())
        : bridge.uses().stream()
            .filter(use -> is(use.thing(), wanted))
            .map(use -> place(bridge, use, wanted));
  }

  private static boolean is(Thing thing, Wanted wanted) {
    return switch (wanted.kind()) {
      case SYSTEM ->
          thing.kind() == Thing.Kind.COLLECTION && thing.system().equals(wanted.system());
      case COLLECTION ->
          thing.kind() == Thing.Kind.COLLECTION
              && thing.system().equals(wanted.system())
              && thing.collection().equals(wanted.collection());
      case FIELD -> thing.isAlike(Thing.field(wanted.system(), wanted.collection(), wanted.id()));
      case TABLE -> thing.equals(Thing.table(wanted.id()));
      case CALENDAR -> thing.equals(Thing.calendar(wanted.id()));
      case BRIDGE -> thing.equals(Thing.bridge(wanted.id()));
      case PERSON, SECRET -> false;
    };
  }

  private PlaceLine place(BridgeVersion bridge, Use use, Wanted wanted) {
    Thing thing = use.thing();
    String part =
        wanted.kind() == Kind.SYSTEM
            ? systems
                .manyOf(thing.system(), thing.collection())
                .map(ManyPlaces::name)
                .or(
                    () ->
                        systems.find(thing.system(), thing.collection()).map(CollectionShape::name))
                .orElse(thing.collection())
            : "";
    return new PlaceLine(Deed.of(use.how()), part, PlaceWords.of(bridge, use.place()), use.place());
  }

  /** Where a bridge uses what a secret opens. */
  private Stream<PlaceLine> secret(BridgeVersion bridge, String secret) {
    return systems.all().stream()
        .map(Systems.Connected::description)
        .filter(system -> secrets(system).contains(secret))
        .flatMap(system -> places(bridge, new Wanted(Kind.SYSTEM, system.id(), "", "")));
  }

  /** The names of the secrets that a system is called or checked with. */
  static List<String> secrets(SystemDescription system) {
    return Stream.concat(
            system.signIn().stream().map(SignIn::secret),
            system
                .described()
                .flatMap(collection -> collection.push().stream())
                .map(Push::verify)
                .map(Push.Verify::secret))
        .filter(name -> !name.isEmpty())
        .distinct()
        .sorted()
        .toList();
  }

  /**
   * The rules of bridges, and the rows of tables that they ask, that name a person, and the bridges
   * about which a person is asked.
   */
  private List<UseLine> ofPerson(String called) {
    if (called.isEmpty()) {
      return List.of();
    }
    List<Person> people = people(called);
    Map<String, OwnerRow> owned =
        owners.owners().stream().collect(Collectors.toMap(OwnerRow::bridgeId, Function.identity()));
    return lines(
        bridge -> {
          String id = bridge.definition().id();
          return Stream.concat(
              Optional.ofNullable(owned.get(id)).stream().flatMap(row -> asked(row, called)),
              people.stream().flatMap(person -> named(id, person)));
        });
  }

  private static Stream<PlaceLine> asked(OwnerRow row, String called) {
    return Stream.of(
            new PlaceLine(Deed.ASKS, row.owner(), "as its owner", ""),
            new PlaceLine(Deed.ASKS, row.standIn(), "as the owner's stand-in", ""))
        .filter(line -> isCalled(line.what(), called));
  }

  private Stream<PlaceLine> named(String bridge, Person person) {
    return names.of(new NameUses.Key(person.system(), person.directory(), person.key())).stream()
        .filter(use -> use.bridge().equals(bridge))
        .map(use -> new PlaceLine(Deed.WRITES, person.name(), use.what(), ""));
  }

  private static boolean isCalled(String name, String part) {
    return name.toLowerCase(Locale.ROOT).contains(part.toLowerCase(Locale.ROOT));
  }

  /** A person of a directory. */
  record Person(String system, String directory, String key, String name) {}

  /** Those of all directories that are called so in part, or have it as their key. */
  private List<Person> people(String called) {
    return systems.all().stream()
        .flatMap(system -> system.description().described())
        .map(SystemCollection::shape)
        .flatMap(shape -> systems.find(shape.system(), shape.collection()).stream())
        .flatMap(
            shape ->
                shape.fields().stream()
                    .filter(UseFinder::namesPeople)
                    .flatMap(field -> people(shape.system(), field)))
        .filter(one -> isCalled(one.name(), called) || one.key().equalsIgnoreCase(called))
        .distinct()
        .limit(MOST_PEOPLE)
        .toList();
  }

  private static Stream<Person> people(String system, FieldShape field) {
    return field.names().entrySet().stream()
        .map(entry -> new Person(system, field.directory(), entry.getKey(), entry.getValue()));
  }

  private static boolean namesPeople(FieldShape field) {
    ValueType type = field.type();
    return type.element().orElse(type).equals(ValueType.PERSON);
  }
}
