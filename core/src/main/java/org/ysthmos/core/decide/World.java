package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.value.Value;

/** Everything outside that a decision may ask. */
public interface World {

  /**
   * Reads the records of a collection whose key fields have these values. May ask another system,
   * so never call it inside a database transaction.
   *
   * @param keys key field to value as text
   */
  LookupAnswer lookUp(String system, String collection, SequencedMap<String, String> keys);

  /** The pair of a bridge with this match key, if there is one. */
  Optional<PairState> pair(String bridge, MatchKey key);

  /** What a lookup came to. */
  sealed interface LookupAnswer {}

  /** The records found; none is an answer too. */
  record Found(List<JsonNode> records) implements LookupAnswer {
    public Found {
      records = List.copyOf(records);
    }
  }

  /** The system could not answer. */
  record Unanswered(Failure failure) implements LookupAnswer {}

  /**
   * What is known of a pair.
   *
   * @param target the id of its task; empty while the task was never made
   * @param agreed the values both sides held when they last agreed
   */
  record PairState(Optional<String> target, Map<String, Value> agreed) {}
}
