package org.ysthmos.app.desk.draft;

import org.springframework.stereotype.Component;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.app.health.Health;
import org.ysthmos.app.system.Systems;

/** Whether bridges can use a place, and if not, why and what to ask for. */
@Component
class PlaceCheck {

  private final Health health;

  PlaceCheck(Health health) {
    this.health = health;
  }

  /** Why no bridge can start there; empty if one can. */
  String asSource(Systems.Connected system, SystemCollection collection) {
    if (collection.kinds().isEmpty()) {
      return "Its description names neither events (push) nor how to ask for changes (poll), so"
          + " nothing would ever come from there.";
    }
    return health.unsigned(system);
  }

  /** Why no bridge can lead there; empty if one can. */
  String asTarget(Systems.Connected system, SystemCollection collection) {
    if (!collection.makes()) {
      return "Its description names no call that makes a %s (create)."
          .formatted(collection.shape().recordWord());
    }
    return health.unsigned(system);
  }

  /** Why a place does not answer us; empty if it does. */
  String ask(String system, String collection) {
    return health.ask(system, collection);
  }
}
