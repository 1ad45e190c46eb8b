package org.ysthmos.app.health;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.system.ManyPlaces;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Directories;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.gateway.QuotaReading;
import org.ysthmos.core.load.RateLimit;
import org.ysthmos.core.load.RateLimiter;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.shape.ShapeChange;
import org.ysthmos.core.text.Nouns;
import org.ysthmos.core.uses.Thing;
import org.ysthmos.core.uses.Use;

/** The connected systems, what can be done with them, and whether they answer. */
@RestController
@RequestMapping(path = "/api/systems", produces = MediaType.APPLICATION_JSON_VALUE)
class SystemController {

  /**
   * A system.
   *
   * @param limitCalls the most calls that it answers in {@code limitSeconds}; null if it names none
   * @param usedCalls how many calls we made within such a span until now
   * @param practice whether its faults can be switched
   * @param closedSeconds for how long it asked us to make none; 0 if it did not
   * @param quota how full it was when it was looked at; null if it does not say
   * @param names what of its directories is not as it was, and is used
   * @param unreadNames the directories that could not be read, each with why
   */
  record SystemView(
      String id,
      String name,
      String address,
      @Schema(nullable = true) @Nullable Integer limitCalls,
      @Schema(nullable = true) @Nullable Long limitSeconds,
      int usedCalls,
      long closedSeconds,
      boolean practice,
      @Schema(nullable = true) @Nullable QuotaView quota,
      List<NameView> names,
      Map<String, String> unreadNames,
      List<CollectionView> collections) {}

  /**
   * An entry of a directory that is not as it was.
   *
   * @param was what it was called before; null if it is gone
   * @param uses the rules and rows that name it
   */
  record NameView(
      String directory,
      String key,
      String name,
      @Schema(nullable = true) @Nullable String was,
      Instant since,
      List<NameUses.UseView> uses) {}

  /**
   * How full a system is.
   *
   * @param of what is counted, in the plural
   * @param nearlyFull whether somebody should make room before it is full
   * @param problem why it could not be read; empty if it was
   */
  record QuotaView(String of, long used, long most, boolean nearlyFull, String problem) {}

  /**
   * A collection of it.
   *
   * @param places how many places there are that it describes alike; 0 for a single one
   * @param can what its description lets us do there, in words
   * @param cannot what it does not let us do there
   * @param promise what happens there after a lost answer, in words; empty where nothing is made
   * @param bridges the live bridges that start, end or look something up there
   * @param lookedAt when it was last looked at; null if not yet
   * @param problem why it does not answer as described, and what to do; empty if it does
   */
  record CollectionView(
      String id,
      String name,
      int places,
      List<String> can,
      List<String> cannot,
      String promise,
      List<BridgeRef> bridges,
      @Schema(nullable = true) @Nullable Instant lookedAt,
      String problem,
      List<ChangedField> changes) {}

  /**
   * A field whose records are not as described any more.
   *
   * @param text what is the matter, in words
   * @param bridges the live bridges that read it
   */
  record ChangedField(String field, String text, List<BridgeRef> bridges) {}

  /** A live bridge. */
  record BridgeRef(String id, String name) {}

  private final Systems systems;
  private final Directories directories;
  private final NameUses nameUses;
  private final Bridges bridges;
  private final Health health;
  private final AppClock clock;

  SystemController(
      Systems systems,
      Directories directories,
      NameUses nameUses,
      Bridges bridges,
      Health health,
      AppClock clock) {
    this.systems = systems;
    this.directories = directories;
    this.nameUses = nameUses;
    this.bridges = bridges;
    this.health = health;
    this.clock = clock;
  }

  @GetMapping
  List<SystemView> all() {
    return systems.all().stream().map(this::view).toList();
  }

  /** Looks at every collection of a system, now. */
  @PostMapping("/{id}/look")
  SystemView look(@PathVariable String id) {
    health.lookAt(id);
    return systems.find(id).map(this::view).orElseThrow(() -> ApiProblem.notFound("system", id));
  }

  private SystemView view(Systems.Connected connected) {
    SystemDescription system = connected.description();
    RateLimiter.Use use = connected.gateway().limiter().use(clock.instant());
    return new SystemView(
        system.id(),
        system.name(),
        system.address().toString(),
        system.limit().map(RateLimit::calls).orElse(null),
        system.limit().map(limit -> limit.per().toSeconds()).orElse(null),
        use.made(),
        use.closedFor().toSeconds(),
        system.practice().isPresent(),
        health.quota(system.id()).map(SystemController::view).orElse(null),
        directories.findings(system.id()).stream()
            .map(finding -> view(system.id(), finding))
            .filter(name -> !name.uses().isEmpty())
            .toList(),
        health.unreadNames(system.id()),
        Stream.concat(
                system.collections().entrySet().stream()
                    .map(entry -> view(system.id(), entry.getKey(), entry.getValue())),
                system.many().values().stream().map(many -> view(system.id(), many)))
            .toList());
  }

  private NameView view(String system, Directories.Finding finding) {
    return new NameView(
        finding.directory(),
        finding.key(),
        finding.name(),
        finding.was(),
        finding.since(),
        nameUses.of(new NameUses.Key(system, finding.directory(), finding.key())));
  }

  private static QuotaView view(QuotaReading reading) {
    return switch (reading) {
      case QuotaReading.Filled filled ->
          new QuotaView(filled.of(), filled.used(), filled.most(), filled.nearlyFull(), "");
      case QuotaReading.Unread unread ->
          new QuotaView("", 0, 0, false, Words.sentence(unread.failure()));
    };
  }

  /** Places that are described alike, as one of them was looked at. */
  private CollectionView view(String system, ManyPlaces many) {
    int there = directories.names(system, many.directory()).size();
    String one = health.oneOf(system, many).orElse(many.id());
    return view(system, one, many.id(), many.name(), there, many.any(), bridgesOf(system, many));
  }

  private CollectionView view(String system, String id, SystemCollection collection) {
    List<BridgeRef> named = naming(bridge -> bridge.names(Thing.collection(system, id)));
    return view(system, id, id, collection.shape().name(), 0, collection, named);
  }

  private List<BridgeRef> bridgesOf(String system, ManyPlaces many) {
    return naming(
        bridge ->
            bridge.uses().stream()
                .map(Use::thing)
                .filter(thing -> thing.kind() == Thing.Kind.COLLECTION)
                .filter(thing -> thing.system().equals(system))
                .flatMap(thing -> PlaceId.parse(thing.collection()).stream())
                .anyMatch(place -> place.of().equals(many.id())));
  }

  private List<BridgeRef> naming(Predicate<BridgeVersion> names) {
    return bridges.live().stream()
        .map(Bridges.Live::version)
        .filter(names)
        .map(BridgeVersion::definition)
        .map(bridge -> new BridgeRef(bridge.id(), bridge.name()))
        .toList();
  }

  private CollectionView view(
      String system,
      String looked,
      String id,
      String name,
      int places,
      SystemCollection collection,
      List<BridgeRef> named) {
    Optional<Health.Looked> last = health.last(system, looked);
    return new CollectionView(
        id,
        name,
        places,
        can(collection),
        cannot(collection),
        collection.makes() ? collection.promise().words() : "",
        named,
        last.map(Health.Looked::at).orElse(null),
        last.map(Health.Looked::problem).orElse(""),
        last.map(Health.Looked::changes).orElse(List.of()).stream()
            .map(change -> changed(system, looked, change))
            .toList());
  }

  private ChangedField changed(String system, String id, ShapeChange change) {
    return new ChangedField(
        change.field().key(),
        change.words(),
        naming(bridge -> bridge.names(Thing.field(system, id, change.field().key()))));
  }

  private static List<String> can(SystemCollection collection) {
    List<String> can = new ArrayList<>();
    collection
        .push()
        .ifPresent(
            push ->
                can.add(
                    "tells what was "
                        + String.join(" or ", push.kinds().values().stream().distinct().toList())));
    collection.polled().ifPresent(asked -> can.add("is asked what changed"));
    for (List<String> keys : collection.findsBy()) {
      can.add("finds by " + String.join(" and ", keys));
    }
    String record = Nouns.withArticle(collection.shape().recordWord());
    if (collection.makes()) {
      can.add("makes " + record);
    }
    if (collection.changes()) {
      can.add("changes " + record);
    }
    if (collection.removes()) {
      can.add("takes " + record + " away");
    }
    return can;
  }

  private static List<String> cannot(SystemCollection collection) {
    List<String> cannot = new ArrayList<>();
    if (collection.push().isEmpty() && collection.polled().isEmpty()) {
      cannot.add("see what changed");
    }
    if (collection.findsBy().isEmpty()) {
      cannot.add("find one by a key");
    }
    String record = Nouns.withArticle(collection.shape().recordWord());
    if (!collection.makes()) {
      cannot.add("make " + record);
    }
    if (!collection.changes()) {
      cannot.add("change one");
    }
    if (!collection.removes()) {
      cannot.add("take one away");
    }
    return cannot;
  }
}
