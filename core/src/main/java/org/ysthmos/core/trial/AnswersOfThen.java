package org.ysthmos.core.trial;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.value.Value;

/**
 * A world in which lookups find given records, and no task exists.
 *
 * @param answers what the lookups find, by the name of the lookup; one that is not named is asked
 * @param pair the two tasks that are a pair; empty if none are
 * @param now gives tables and calendars, and answers the other lookups
 */
public record AnswersOfThen(
    Map<String, List<JsonNode>> answers, Optional<PairOfThen> pair, World now) implements World {

  @Override
  public LookupAnswer lookUp(String lookup, Question question) {
    List<JsonNode> then = answers.get(lookup);
    return then == null ? now.lookUp(lookup, question) : new Found(then);
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
  public Optional<SyncedPair> named(String bridge, Side side, String record) {
    return now.named(bridge, side, record);
  }

  @Override
  public Optional<Instant> changedAt(String system, String collection, JsonNode record) {
    return now.changedAt(system, collection, record);
  }

  @Override
  public Optional<URI> page(String system, String collection, String record) {
    return now.page(system, collection, record);
  }

  @Override
  public Map<String, Value> closing(String system, String collection) {
    return now.closing(system, collection);
  }

  @Override
  public boolean removes(String system, String collection) {
    return now.removes(system, collection);
  }

  @Override
  public TouchAnswer touched(MatchKey key, PairState pair) {
    return new Touched(false);
  }

  @Override
  public Optional<ReferenceTable> table(String id) {
    return now.table(id);
  }

  @Override
  public Optional<WorkingCalendar> calendar(String id) {
    return now.calendar(id);
  }

  @Override
  public Optional<JsonNode> previous(Event event) {
    return now.previous(event);
  }
}
