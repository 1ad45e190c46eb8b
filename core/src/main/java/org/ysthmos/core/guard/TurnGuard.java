package org.ysthmos.core.guard;

import java.time.Duration;
import java.util.Optional;
import org.ysthmos.core.bridge.BridgeDefinition.Turns;

/**
 * Stops bridges whose own doing comes back to them: one that acts again on what it caused, a chain
 * of bridges that only each other set going, and one that writes to one task over and over.
 *
 * @param turns what is stated
 * @param per the span in which writing to one task is counted
 */
public record TurnGuard(Turns turns, Duration per) {

  /** Why a bridge is stopped. */
  public enum Sort {
    /** It would act again on what came of its own doing. */
    AGAIN,
    /** Its event comes at the end of a long chain of bridges. */
    CHAIN,
    /** It wrote to one task very often. */
    SAME_TASK
  }

  /**
   * What would pass.
   *
   * @param came how often, or how long, with what is to be done now
   * @param most what is stated
   */
  public record Passed(Sort sort, long came, int most, Duration per) {}

  /**
   * Whether something may be done about an event that was caused from here.
   *
   * @param again how often the bridge stands already among what caused the event
   * @param depth how many bridges' doing caused the event, one caused by the other
   */
  public Optional<Passed> ofChain(int again, int depth) {
    if (again > turns.again()) {
      return Optional.of(new Passed(Sort.AGAIN, again, turns.again(), per));
    }
    if (depth + 1 > turns.chain()) {
      return Optional.of(new Passed(Sort.CHAIN, depth + 1L, turns.chain(), per));
    }
    return Optional.empty();
  }

  /**
   * Whether a task may be written to once more.
   *
   * @param before how often it was in the span
   */
  public Optional<Passed> ofTask(int before) {
    return before + 1 > turns.sameTask()
        ? Optional.of(new Passed(Sort.SAME_TASK, before + 1L, turns.sameTask(), per))
        : Optional.empty();
  }
}
