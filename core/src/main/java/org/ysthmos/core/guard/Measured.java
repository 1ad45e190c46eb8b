package org.ysthmos.core.guard;

import java.time.Duration;
import java.util.Optional;

/**
 * How sound a bridge is by what is counted of it, as against how people judge it.
 *
 * @param state the worst of what was found
 * @param because in words, to stand behind the state
 */
public record Measured(State state, String because) {

  /** How sound it is. */
  public enum State {
    SOUND,
    NEEDS_WORK,
    NOT_WORKING,
    /** Nothing came, so that nothing can be said. */
    NOTHING_CAME
  }

  /** What waits longer is told of; common practice, no source. */
  static final Duration LONG = Duration.ofHours(1);

  /**
   * What is known of a bridge.
   *
   * @param problem why it cannot be used; empty if it can
   * @param held whether it is held, so that what comes waits as it should
   * @param came how many events came to an end in the last 24 hours, those that failed among them
   * @param failed how many of them failed
   * @param waiting how many wait
   * @param oldest how long the oldest of them waits; empty if none does
   * @param odd what is far from usual with how many come, in words; empty if nothing is
   */
  public record Facts(
      Optional<String> problem,
      boolean held,
      int came,
      int failed,
      int waiting,
      Optional<Duration> oldest,
      Optional<String> odd) {}

  public static Measured of(Facts facts) {
    if (facts.problem().isPresent()) {
      return new Measured(State.NOT_WORKING, "it cannot be used: " + facts.problem().get());
    }
    if (facts.failed() > 0) {
      return facts.failed() == facts.came()
          ? new Measured(
              State.NOT_WORKING, "all %d of the last day failed".formatted(facts.failed()))
          : new Measured(
              State.NEEDS_WORK,
              "%d of %d of the last day failed".formatted(facts.failed(), facts.came()));
    }
    if (!facts.held() && facts.oldest().filter(age -> age.compareTo(LONG) > 0).isPresent()) {
      return new Measured(
          State.NEEDS_WORK, "%d wait, the oldest for over an hour".formatted(facts.waiting()));
    }
    if (facts.odd().isPresent()) {
      return new Measured(State.NEEDS_WORK, facts.odd().get());
    }
    return facts.came() == 0
        ? new Measured(State.NOTHING_CAME, "nothing came in the last day")
        : new Measured(State.SOUND, "%d of the last day, none failed".formatted(facts.came()));
  }
}
