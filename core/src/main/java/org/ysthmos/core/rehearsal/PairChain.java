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

  /** Whether the rehearsal came across it, which costs less than how it stands. */
  boolean knows(String key);

  /** It is as a task leaves it that is made or changed now. */
  void put(Outcome.Task now);

  /**
   * It is as what was decided of the event that is at hand left it then, so that it need not be
   * kept a second time.
   */
  void putAsThen(Outcome.Task then);

  /** There is none. */
  void putNone(String key);

  /** In memory, for rehearsals over few events. */
  static PairChain inMemory() {
    Map<String, Known> kept = new HashMap<>();
    return new PairChain() {
      @Override
      public Optional<Known> find(String key) {
        return Optional.ofNullable(kept.get(key));
      }

      @Override
      public boolean knows(String key) {
        return kept.containsKey(key);
      }

      @Override
      public void put(Outcome.Task now) {
        kept.put(now.key(), new Known(Optional.of(now.after())));
      }

      @Override
      public void putAsThen(Outcome.Task then) {
        put(then);
      }

      @Override
      public void putNone(String key) {
        kept.put(key, new Known(Optional.empty()));
      }
    };
  }
}
