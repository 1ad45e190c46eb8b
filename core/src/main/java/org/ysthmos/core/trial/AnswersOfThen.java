package org.ysthmos.core.trial;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.decide.WorldOver;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Side;

/**
 * A world in which lookups find given records, and no task exists.
 *
 * @param answers what the lookups find, by the name of the lookup; one that is not named is asked
 * @param pair the two tasks that are a pair; empty if none are
 * @param under gives tables and calendars, and answers the other lookups
 */
public record AnswersOfThen(
    Map<String, List<JsonNode>> answers, Optional<PairOfThen> pair, World under)
    implements WorldOver {

  @Override
  public LookupAnswer lookUp(String lookup, Question question) {
    List<JsonNode> then = answers.get(lookup);
    return then == null ? under.lookUp(lookup, question) : new Found(then);
  }

  @Override
  public Optional<PairState> pair(String of, MatchKey key) {
    return Optional.empty();
  }

  @Override
  public Optional<SyncedPair> synced(String bridge, Side side, String record) {
    return pair.flatMap(then -> then.of(bridge, side, record));
  }

  @Override
  public TouchAnswer touched(MatchKey key, PairState pair) {
    return new Touched(false);
  }

  /** What was read then lacks what it lacks. */
  @Override
  public Optional<Failure> vanished(SyncedPair two, FieldAsked asked) {
    return Optional.empty();
  }

  @Override
  public Optional<Overtaken> overtaken(Event event, Collection<String> kinds) {
    return Optional.empty();
  }

  @Override
  public boolean isOwnWrite(Event event) {
    return false;
  }

  @Override
  public boolean waits(Event event, Duration span) {
    return false;
  }
}
