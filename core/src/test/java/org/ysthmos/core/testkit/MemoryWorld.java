package org.ysthmos.core.testkit;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.pair.MatchKey;

/** A world in memory: one answer for every lookup, and pairs by match key. */
public final class MemoryWorld implements World {

  private final Map<String, PairState> pairs = new HashMap<>();
  private LookupAnswer answer;

  public MemoryWorld(LookupAnswer answer) {
    this.answer = answer;
  }

  public static MemoryWorld finding(JsonNode... records) {
    return new MemoryWorld(new Found(List.of(records)));
  }

  public void answerWith(LookupAnswer other) {
    answer = other;
  }

  public void pair(MatchKey key, PairState state) {
    pairs.put(key.hash(), state);
  }

  @Override
  public LookupAnswer lookUp(String system, String collection, SequencedMap<String, String> keys) {
    return answer;
  }

  @Override
  public Optional<PairState> pair(String bridge, MatchKey key) {
    return Optional.ofNullable(pairs.get(key.hash()));
  }
}
