package org.ysthmos.app.health;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.http.HttpSystem;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.gateway.ChangeGateway;
import org.ysthmos.core.gateway.TaskGateway;

/**
 * Asks systems small questions that change nothing, to see whether they answer us and as they are
 * described. A failure names its remedy.
 */
@Component
public class Health {

  /** The key of nothing: a system that answers says that it finds nothing. */
  private static final String NOBODY = "ysthmos-looks";

  /**
   * What looking came to.
   *
   * @param problem why it does not answer us as described, and what to do; empty if it does
   */
  public record Looked(Instant at, String problem) {}

  private record Place(String system, String collection) {}

  private final Systems systems;
  private final SecretVault secrets;
  private final AppClock clock;
  private final Map<Place, Looked> looked = new ConcurrentHashMap<>();

  Health(Systems systems, SecretVault secrets, AppClock clock) {
    this.systems = systems;
    this.secrets = secrets;
    this.clock = clock;
  }

  /** Looks at every collection. */
  @Scheduled(
      initialDelayString = "${ysthmos.health.first}",
      fixedDelayString = "${ysthmos.health.every}")
  void lookAtAll() {
    systems.all().forEach(system -> lookAt(system.description().id()));
  }

  /** Looks at every collection of a system. */
  void lookAt(String id) {
    SystemDescription system =
        systems
            .find(id)
            .map(Systems.Connected::description)
            .orElseThrow(() -> ApiProblem.notFound("system", id));
    system.collections().keySet().forEach(collection -> ask(id, collection));
  }

  /** What the last look came to; empty if nobody looked yet. */
  Optional<Looked> last(String system, String collection) {
    return Optional.ofNullable(looked.get(new Place(system, collection)));
  }

  /** Why a place does not answer us; empty if it does. Nothing is changed there. */
  public String ask(String system, String collection) {
    Systems.Connected connected =
        systems.find(system).orElseThrow(() -> ApiProblem.notFound("system", system));
    SystemDescription.Collection described =
        systems
            .collection(system, collection)
            .orElseThrow(() -> ApiProblem.notFound("collection", collection));
    String unsigned = unsigned(connected);
    String problem =
        unsigned.isEmpty() ? question(connected.gateway(), collection, described) : unsigned;
    looked.put(new Place(system, collection), new Looked(clock.instant(), problem));
    return problem;
  }

  /** Why we cannot sign in at a system; empty if we can try. */
  public String unsigned(Systems.Connected system) {
    return system
        .description()
        .signIn()
        .map(SystemDescription.SignIn::secret)
        .filter(secret -> secrets.find(secret).isEmpty())
        .map(
            secret ->
                "We have no token for %s. Ask its administrator for one and keep it as the secret “%s”."
                    .formatted(system.description().name(), secret))
        .orElse("");
  }

  private static String question(
      HttpSystem gateway, String collection, SystemDescription.Collection described) {
    if (described.findByKey().isPresent()) {
      return gateway.findByKey(collection, NOBODY, call -> {})
              instanceof TaskGateway.Unsearched unsearched
          ? Words.sentence(unsearched.failure())
          : "";
    }
    if (described.poll().isPresent()) {
      return gateway.changes(collection, ChangeGateway.Place.BEGINNING, call -> {})
              instanceof ChangeGateway.NotRead notRead
          ? Words.sentence(notRead.failure())
          : "";
    }
    if (described.list().isPresent()) {
      return problem(gateway.list(collection, 1, call -> {}));
    }
    if (described.finds().isEmpty()) {
      return "";
    }
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    described.finds().getFirst().by().forEach(key -> keys.put(key, NOBODY));
    return problem(gateway.find(collection, keys, call -> {}));
  }

  private static String problem(World.LookupAnswer answer) {
    return answer instanceof World.Unanswered unanswered
        ? Words.sentence(unanswered.failure())
        : "";
  }
}
