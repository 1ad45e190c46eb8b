package org.ysthmos.app.uses;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.uses.RenameDrafts.Renamed;
import org.ysthmos.app.uses.UseFinder.Kind;
import org.ysthmos.app.uses.UseFinder.UseLine;
import org.ysthmos.app.uses.UseFinder.Wanted;
import org.ysthmos.app.who.OwnerMapper;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.impact.Need;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.uses.Thing;

/** What hangs on what. */
@RestController
@RequestMapping(path = "/api/uses", produces = MediaType.APPLICATION_JSON_VALUE)
class UseController {

  /** Something by its id, as people call it. */
  record NamedThing(String id, String name) {}

  record CollectionThings(String id, String name, List<NamedThing> fields) {}

  record SystemThings(String id, String name, List<CollectionThings> collections) {}

  /** All that can be asked about, but for people, who are looked for by their names. */
  record ThingsView(
      List<SystemThings> systems,
      List<NamedThing> tables,
      List<NamedThing> calendars,
      List<NamedThing> bridges,
      List<String> secrets) {}

  /**
   * The bridges that use a thing.
   *
   * @param unknown those that cannot be used any more, so that it is not known what they use
   */
  record UsesView(List<UseLine> bridges, List<String> unknown) {}

  /**
   * What a bridge would need if a system were left.
   *
   * @param owner whose bridge it is; empty if nobody is said to own it
   */
  record LeavingBridge(
      String bridge, String name, String purpose, String owner, List<Need> needs) {}

  /** If a system is left. */
  record LeavingView(String name, List<LeavingBridge> bridges, List<String> unknown) {}

  /**
   * A field that is to have another key.
   *
   * @param field its key now
   * @param to its key from then on
   */
  record RenameWish(String system, String collection, String field, String to) {}

  private final UseFinder finder;
  private final RenameDrafts renaming;
  private final OwnerMapper owners;
  private final Bridges bridges;
  private final Systems systems;
  private final Tables tables;
  private final Catalog catalog;

  UseController(
      UseFinder finder,
      RenameDrafts renaming,
      OwnerMapper owners,
      Bridges bridges,
      Systems systems,
      Tables tables,
      Catalog catalog) {
    this.finder = finder;
    this.renaming = renaming;
    this.owners = owners;
    this.bridges = bridges;
    this.systems = systems;
    this.tables = tables;
    this.catalog = catalog;
  }

  @GetMapping("/things")
  ThingsView things() {
    List<SystemDescription> all =
        systems.all().stream().map(Systems.Connected::description).toList();
    return new ThingsView(
        all.stream()
            .map(this::things)
            .sorted(Comparator.comparing(byName(SystemThings::name)))
            .toList(),
        tables.all().values().stream()
            .map(table -> new NamedThing(table.definition().id(), table.definition().name()))
            .sorted(Comparator.comparing(byName(NamedThing::name)))
            .toList(),
        tables.calendars().values().stream()
            .map(calendar -> new NamedThing(calendar.id(), calendar.name()))
            .sorted(Comparator.comparing(byName(NamedThing::name)))
            .toList(),
        bridges.live().stream()
            .map(live -> live.version().definition())
            .map(bridge -> new NamedThing(bridge.id(), bridge.name()))
            .sorted(Comparator.comparing(byName(NamedThing::name)))
            .toList(),
        all.stream()
            .flatMap(system -> UseFinder.secrets(system).stream())
            .distinct()
            .sorted()
            .toList());
  }

  private static <T> Function<T, String> byName(Function<T, String> name) {
    return one -> name.apply(one).toLowerCase(Locale.ROOT);
  }

  private SystemThings things(SystemDescription system) {
    return new SystemThings(
        system.id(),
        system.name(),
        systems.collectionsOf(system).keySet().stream()
            .flatMap(id -> systems.find(system.id(), id).stream())
            .map(UseController::things)
            .toList());
  }

  private static CollectionThings things(CollectionShape shape) {
    Map<String, String> fields = new LinkedHashMap<>();
    Stream.concat(shape.eventFields().stream(), shape.fields().stream())
        .forEach(
            field -> {
              fields.putIfAbsent(field.key(), field.name());
              for (FieldShape item : field.fields()) {
                fields.putIfAbsent(
                    Thing.keyInList(field.key(), item.key()),
                    "%s of %s".formatted(item.name(), field.name()));
              }
            });
    return new CollectionThings(
        shape.collection(),
        shape.name(),
        fields.entrySet().stream()
            .map(entry -> new NamedThing(entry.getKey(), entry.getValue()))
            .toList());
  }

  /** The bridges that use a thing, and where. */
  @GetMapping
  UsesView uses(
      @RequestParam Kind kind,
      @RequestParam(defaultValue = "") String system,
      @RequestParam(defaultValue = "") String collection,
      @RequestParam(defaultValue = "") String id) {
    return new UsesView(finder.of(new Wanted(kind, system, collection, id)), unknown());
  }

  private List<String> unknown() {
    return bridges.broken().stream().map(Bridges.Broken::id).sorted().toList();
  }

  /** What each bridge would need instead if a system were left. */
  @GetMapping("/leaving")
  LeavingView leaving(@RequestParam String system) {
    SystemDescription left =
        systems
            .find(system)
            .map(Systems.Connected::description)
            .orElseThrow(() -> ApiProblem.notFound("system", system));
    Map<String, String> owned = owners.byBridge();
    return new LeavingView(
        left.name(),
        bridges.live().stream()
            .map(Bridges.Live::version)
            .map(
                bridge ->
                    new LeavingBridge(
                        bridge.definition().id(),
                        bridge.definition().name(),
                        bridge.definition().purpose(),
                        owned.getOrDefault(bridge.definition().id(), ""),
                        Need.of(bridge, system, catalog)))
            .filter(line -> !line.needs().isEmpty())
            .sorted(Comparator.comparing(byName(LeavingBridge::name)))
            .toList(),
        unknown());
  }

  /** What would become of each bridge if a field had another key; nothing is kept. */
  @PostMapping("/renaming")
  List<Renamed> renaming(@RequestBody RenameWish wish) {
    return renaming.of(field(wish), wish.to());
  }

  /** Keeps what would become of each bridge as its draft, for all of them or for none. */
  @PostMapping("/renaming/drafts")
  List<Renamed> drafts(@RequestBody RenameWish wish) {
    return renaming.keep(field(wish), wish.to());
  }

  private Thing field(RenameWish wish) {
    CollectionShape shape =
        systems
            .find(wish.system(), wish.collection())
            .orElseThrow(() -> ApiProblem.notFound("collection", wish.collection()));
    boolean known =
        things(shape).fields().stream().anyMatch(field -> field.id().equals(wish.field()));
    if (!known) {
      throw new ApiProblem(
          HttpStatus.NOT_FOUND,
          "No such field",
          "%s has no field “%s”.".formatted(shape.name(), wish.field()));
    }
    return Thing.field(wish.system(), wish.collection(), wish.field());
  }
}
