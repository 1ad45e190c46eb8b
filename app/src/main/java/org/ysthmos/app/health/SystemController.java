package org.ysthmos.app.health;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.load.RateLimit;

/** The connected systems, what can be done with them, and whether they answer. */
@RestController
@RequestMapping(path = "/api/systems", produces = MediaType.APPLICATION_JSON_VALUE)
class SystemController {

  /**
   * A system.
   *
   * @param limitCalls the most calls that it answers in {@code limitSeconds}; null if it names none
   */
  record SystemView(
      String id,
      String name,
      String address,
      @Schema(nullable = true) @Nullable Integer limitCalls,
      @Schema(nullable = true) @Nullable Long limitSeconds,
      List<CollectionView> collections) {}

  /**
   * A collection of it.
   *
   * @param can what its description lets us do there, in words
   * @param bridges the live bridges that start, end or look something up there
   * @param lookedAt when it was last looked at; null if not yet
   * @param problem why it does not answer as described, and what to do; empty if it does
   */
  record CollectionView(
      String id,
      String name,
      List<String> can,
      List<BridgeRef> bridges,
      @Schema(nullable = true) @Nullable Instant lookedAt,
      String problem) {}

  /** A live bridge. */
  record BridgeRef(String id, String name) {}

  private final Systems systems;
  private final Bridges bridges;
  private final Health health;

  SystemController(Systems systems, Bridges bridges, Health health) {
    this.systems = systems;
    this.bridges = bridges;
    this.health = health;
  }

  @GetMapping
  List<SystemView> all() {
    return systems.all().stream().map(system -> view(system.description())).toList();
  }

  /** Looks at every collection of a system, now. */
  @PostMapping("/{id}/look")
  SystemView look(@PathVariable String id) {
    health.lookAt(id);
    return systems
        .find(id)
        .map(system -> view(system.description()))
        .orElseThrow(() -> ApiProblem.notFound("system", id));
  }

  private SystemView view(SystemDescription system) {
    return new SystemView(
        system.id(),
        system.name(),
        system.address().toString(),
        system.limit().map(RateLimit::calls).orElse(null),
        system.limit().map(limit -> limit.per().toSeconds()).orElse(null),
        system.collections().entrySet().stream()
            .map(entry -> view(system.id(), entry.getKey(), entry.getValue()))
            .toList());
  }

  private CollectionView view(String system, String id, SystemDescription.Collection collection) {
    Optional<Health.Looked> looked = health.last(system, id);
    return new CollectionView(
        id,
        collection.shape().name(),
        can(collection),
        bridges.live().stream()
            .map(live -> live.version().definition())
            .filter(bridge -> uses(bridge, system, id))
            .map(bridge -> new BridgeRef(bridge.id(), bridge.name()))
            .toList(),
        looked.map(Health.Looked::at).orElse(null),
        looked.map(Health.Looked::problem).orElse(""));
  }

  private static List<String> can(SystemDescription.Collection collection) {
    List<String> can = new ArrayList<>();
    collection
        .push()
        .ifPresent(
            push ->
                can.add(
                    "tells what was "
                        + String.join(" or ", push.kinds().values().stream().distinct().toList())));
    collection.poll().ifPresent(poll -> can.add("is asked what changed"));
    for (SystemDescription.Find find : collection.finds()) {
      can.add("finds by " + String.join(" and ", find.by()));
    }
    String record = collection.shape().recordWord();
    if (!collection.create().isEmpty()) {
      can.add("makes a " + record);
    }
    if (!collection.change().isEmpty()) {
      can.add("changes a " + record);
    }
    if (collection.remove().isPresent()) {
      can.add("takes a " + record + " away");
    }
    return can;
  }

  private static boolean uses(BridgeDefinition bridge, String system, String collection) {
    return (bridge.from().system().equals(system) && bridge.from().collection().equals(collection))
        || (bridge.to().system().equals(system) && bridge.to().collection().equals(collection))
        || bridge.lookups().stream()
            .anyMatch(
                lookup -> lookup.system().equals(system) && lookup.collection().equals(collection));
  }
}
