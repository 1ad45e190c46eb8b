package org.ysthmos.core.testkit;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.value.Value;

/** A world in memory: one answer for every lookup, and pairs by match key. */
public final class MemoryWorld implements World {

  private final Map<String, PairState> pairs = new HashMap<>();
  private final Set<String> touched = new HashSet<>();
  private LookupAnswer answer;
  private Optional<Overtaken> overtaken = Optional.empty();
  private int asked;
  private boolean ownWrite;
  private boolean removes;
  private Map<String, Value> closing = Map.of();

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
  public LookupAnswer lookUp(String lookup, Question question) {
    asked++;
    return answer;
  }

  @Override
  public Optional<PairState> pair(String bridge, MatchKey key) {
    return Optional.ofNullable(pairs.get(key.hash()));
  }

  /** How often a lookup was asked. */
  public int asked() {
    return asked;
  }

  /** The event tells of nothing but our own writing. */
  public MemoryWorld ownWrite() {
    ownWrite = true;
    return this;
  }

  @Override
  public boolean isOwnWrite(Event event) {
    return ownWrite;
  }

  /** A later version of the record came before the event. */
  public MemoryWorld overtaken(String version, String by) {
    overtaken = Optional.of(new Overtaken(version, by));
    return this;
  }

  @Override
  public Optional<Overtaken> overtaken(Event event, Collection<String> kinds) {
    return overtaken;
  }

  /** What a closed task holds. */
  public MemoryWorld closing(Map<String, Value> fields) {
    closing = fields;
    return this;
  }

  @Override
  public Map<String, Value> closing(String system, String collection) {
    return closing;
  }

  /** Tasks can be taken away. */
  public MemoryWorld removing() {
    removes = true;
    return this;
  }

  @Override
  public boolean removes(String system, String collection) {
    return removes;
  }

  /** Someone worked on the task of this key. */
  public void touch(MatchKey key) {
    touched.add(key.hash());
  }

  @Override
  public TouchAnswer touched(MatchKey key, PairState pair) {
    return new Touched(touched.contains(key.hash()));
  }

  @Override
  public Optional<ReferenceTable> table(String id) {
    return Optional.ofNullable(Garden.TABLES.get(id));
  }

  @Override
  public Optional<WorkingCalendar> calendar(String id) {
    return Garden.CATALOG.calendar(id);
  }

  @Override
  public Optional<JsonNode> previous(Event event) {
    return Optional.empty();
  }
}
