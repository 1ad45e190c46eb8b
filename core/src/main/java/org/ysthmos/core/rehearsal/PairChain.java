package org.ysthmos.core.rehearsal;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.decide.World.PairState;

/**
 * The pairs as a rehearsal leaves them, so that a later event about the same thing is an update as
 * it would be live.
 */
public interface PairChain {

  /**
   * How a pair stands.
   *
   * @param state empty if there is none, though there was one when the events came
   */
  record Known(Optional<PairState> state) {}

  /** Empty if the rehearsal did not come across it. */
  Optional<Known> find(String key);

  void put(String key, Known known);

  /** In memory, for rehearsals over few events. */
  static PairChain inMemory() {
    Map<String, Known> kept = new HashMap<>();
    return new PairChain() {
      @Override
      public Optional<Known> find(String key) {
        return Optional.ofNullable(kept.get(key));
      }

      @Override
      public void put(String key, Known known) {
        kept.put(key, known);
      }
    };
  }
}
