package org.ysthmos.app.desk;

import java.util.LinkedHashMap;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.stereotype.Component;
import org.ysthmos.adapters.http.HttpSystem;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.secret.SecretVault;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.gateway.TaskGateway;

/** Whether bridges can use a place, and if not, why and what to ask for. */
@Component
class PlaceCheck {

  /** A key that no record has; a place that we may see says that it found none. */
  private static final String NOBODY = "ysthmos-is-looking";

  private final Systems systems;
  private final SecretVault secrets;

  PlaceCheck(Systems systems, SecretVault secrets) {
    this.systems = systems;
    this.secrets = secrets;
  }

  /** Why no bridge can start there; empty if one can. */
  String asSource(Systems.Connected system, SystemDescription.Collection collection) {
    if (collection.kinds().isEmpty()) {
      return "Its description names neither events (push) nor how to ask for changes (poll), so"
          + " nothing would ever come from there.";
    }
    return unsigned(system);
  }

  /** Why no bridge can lead there; empty if one can. */
  String asTarget(Systems.Connected system, SystemDescription.Collection collection) {
    if (collection.create().isEmpty()) {
      return "Its description names no call that makes a %s (create)."
          .formatted(collection.shape().recordWord());
    }
    return unsigned(system);
  }

  private String unsigned(Systems.Connected system) {
    Optional<String> token = system.description().token();
    return token.isPresent() && secrets.find(token.get()).isEmpty()
        ? "We have no token for %s. Ask its administrator for one and keep it as the secret “%s”."
            .formatted(system.description().name(), token.get())
        : "";
  }

  /** Why a place does not answer us; empty if it does. Nothing is changed there. */
  String ask(String system, String collection) {
    Systems.Connected connected =
        systems.find(system).orElseThrow(() -> ApiProblem.notFound("system", system));
    SystemDescription.Collection described =
        systems
            .collection(system, collection)
            .orElseThrow(() -> ApiProblem.notFound("collection", collection));
    String unsigned = unsigned(connected);
    if (!unsigned.isEmpty()) {
      return unsigned;
    }
    HttpSystem gateway = connected.gateway();
    if (described.findByKey().isPresent()) {
      return gateway.findByKey(collection, NOBODY, call -> {})
              instanceof TaskGateway.Unsearched unsearched
          ? Words.sentence(unsearched.failure())
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
