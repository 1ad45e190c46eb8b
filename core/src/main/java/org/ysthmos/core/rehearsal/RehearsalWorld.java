package org.ysthmos.core.rehearsal;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.decide.WorldOver;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;

/**
 * The world of one event in a rehearsal. A pair stands as the rehearsal left it; one that it did
 * not come across yet, as what was decided of the event then says.
 *
 * @param then what became of the event; empty if the bridge did not hear it
 * @param answers what lookups found then; another question is asked of the world under
 * @param under gives tables and calendars, asks lookups, and knows the pairs that others made
 *     before
 */
record RehearsalWorld(
    Optional<Then> then, Map<Question, List<JsonNode>> answers, PairChain chain, World under)
    implements WorldOver {

  @Override
  public LookupAnswer lookUp(String lookup, Question question) {
    List<JsonNode> found = answers.get(question);
    return found == null ? under.lookUp(lookup, question) : new Found(found);
  }

  @Override
  public Optional<PairState> pair(String bridge, MatchKey key) {
    Optional<PairChain.Known> known = chain.find(key.hash());
    if (known.isPresent()) {
      return known.get().state();
    }
    Optional<Outcome.Task> task =
        then.flatMap(Then::decided).flatMap(decided -> decided.task(key.hash()));
    return task.isPresent() ? task.get().before() : under.pair(bridge, key);
  }

  /** What is kept of our own writing is kept for a few last times alone. */
  @Override
  public boolean isOwnWrite(Event event) {
    return then.flatMap(Then::decided)
        .map(decided -> decided.because().equals(Decider.OWN_WRITING))
        .orElseGet(() -> under.isOwnWrite(event));
  }

  /** Whether somebody worked on a task then is not kept. */
  @Override
  public TouchAnswer touched(MatchKey key, PairState pair) {
    return new Touched(false);
  }

  /** What is waited for is there by now, or never comes. */
  @Override
  public boolean waits(Event event, Duration span) {
    return false;
  }
}
