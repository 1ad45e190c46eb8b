package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.value.Value;

/** A world that is another one, but for what it says itself. */
public interface WorldOver extends World {

  /** The other one. */
  World under();

  @Override
  default LookupAnswer lookUp(String lookup, Question question) {
    return under().lookUp(lookup, question);
  }

  @Override
  default Optional<PairState> pair(String bridge, MatchKey key) {
    return under().pair(bridge, key);
  }

  @Override
  default TouchAnswer touched(MatchKey key, PairState pair) {
    return under().touched(key, pair);
  }

  @Override
  default Optional<SyncedPair> synced(String bridge, Side side, String record) {
    return under().synced(bridge, side, record);
  }

  @Override
  default Optional<SyncedPair> named(String bridge, Side side, String record) {
    return under().named(bridge, side, record);
  }

  @Override
  default Optional<Failure> vanished(SyncedPair pair, FieldAsked asked) {
    return under().vanished(pair, asked);
  }

  @Override
  default Optional<Instant> changedAt(String system, String collection, JsonNode record) {
    return under().changedAt(system, collection, record);
  }

  @Override
  default Map<String, Value> closing(String system, String collection) {
    return under().closing(system, collection);
  }

  @Override
  default boolean removes(String system, String collection) {
    return under().removes(system, collection);
  }

  @Override
  default Optional<Overtaken> overtaken(Event event, Collection<String> kinds) {
    return under().overtaken(event, kinds);
  }

  @Override
  default boolean isOwnWrite(Event event) {
    return under().isOwnWrite(event);
  }

  @Override
  default boolean waits(Event event, Duration span) {
    return under().waits(event, span);
  }

  @Override
  default Optional<URI> page(String system, String collection, String record) {
    return under().page(system, collection, record);
  }

  @Override
  default Optional<ReferenceTable> table(String id) {
    return under().table(id);
  }

  @Override
  default Optional<WorkingCalendar> calendar(String id) {
    return under().calendar(id);
  }

  @Override
  default Optional<JsonNode> previous(Event event) {
    return under().previous(event);
  }
}
