package org.ysthmos.core.trial;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.table.ReferenceTable;

/**
 * A world of given records, tables and calendars, in which decisions have no effect but the pairs
 * they would make: an event after another about the same thing is an update, as it would be live.
 * Not safe for several threads.
 */
public final class TrialWorld implements World {

  private final Catalog catalog;
  private final Map<String, ReferenceTable> tables;
  private final TrialRecords records = new TrialRecords();
  private final TrialPairs synced = new TrialPairs();
  private final List<Event> received = new ArrayList<>();
  private final Map<String, PairState> pairs = new HashMap<>();
  private final Set<MadeTask> tasks = new LinkedHashSet<>();
  private int made;

  /** A task that would have been made of a record. */
  private record MadeTask(String bridge, String record, String part, String id) {
    boolean is(Question question) {
      return bridge.equals(question.collection())
          && holds(question, LookupRule.TASK, id)
          && holds(question, LookupRule.RECORD, record)
          && holds(question, LookupRule.PART, part);
    }

    private static boolean holds(Question question, String key, String value) {
      return question.keys().getOrDefault(key, value).equals(value);
    }

    JsonNode asRecord() {
      return JsonNodeFactory.instance.objectNode().put("id", id).put("record", record);
    }
  }

  /**
   * @param catalog what the bridges were compiled against; gives shapes and calendars
   */
  public TrialWorld(Catalog catalog, Map<String, ReferenceTable> tables) {
    this.catalog = catalog;
    this.tables = Map.copyOf(tables);
  }

  /** Adds a record that lookups find. */
  public void add(String system, String collection, JsonNode record) {
    records.add(new CollectionRef(system, collection), record);
  }

  /** Takes note that an event was received; lookups among the events find it from then on. */
  public void receive(Event event) {
    received.add(event);
  }

  /**
   * An event tells how its record stands, before it is decided by a bridge that goes both ways:
   * what it carries, if that is the record with its id, or that there is none any more.
   */
  public void tells(Event event) {
    CollectionRef place = new CollectionRef(event.system(), event.collection());
    if (event.kind().equals("removed")) {
      records.remove(place, event.record());
    } else if (event.data().path(TrialRecords.ID).asText().equals(event.record())) {
      records.put(place, event.record(), event.data());
    }
  }

  /**
   * The same as {@link #carryOut(Event, Decision)}, with the pair of a bridge that goes both ways.
   */
  public void carryOut(BridgeVersion bridge, Event event, Decision decision) {
    bridge
        .between()
        .ifPresentOrElse(
            both -> synced.carryOut(both, decision, records), () -> carryOut(event, decision));
  }

  /** Keeps what a decision would have made of an event, so that later events know of it. */
  public void carryOut(Event event, Decision decision) {
    for (TaskDecision task : decision.tasks()) {
      if (task.delivery().isPresent()) {
        Optional<PairState> before = Optional.ofNullable(pairs.get(task.key().hash()));
        PairState after = task.carriedOut(before, () -> "new-" + ++made);
        pairs.put(task.key().hash(), after);
        if (!task.then()) {
          String target = after.target().orElseThrow();
          tasks.add(new MadeTask(task.key().bridge(), event.record(), task.member(), target));
        }
      }
    }
  }

  /** Sets what is known of a pair. */
  public void pair(MatchKey key, PairState state) {
    pairs.put(key.hash(), state);
  }

  @Override
  public LookupAnswer lookUp(String lookup, Question question) {
    if (question.origin() == LookupRule.Origin.TASKS) {
      return new Found(
          tasks.stream().filter(task -> task.is(question)).map(MadeTask::asRecord).toList());
    }
    if (question.origin() == LookupRule.Origin.EVENTS) {
      return new Found(
          received.stream()
              .filter(event -> event.system().equals(question.system()))
              .filter(event -> event.collection().equals(question.collection()))
              .map(Event::data)
              .filter(data -> TrialRecords.holds(data, question.keys()))
              .toList());
    }
    CollectionRef place = new CollectionRef(question.system(), question.collection());
    return new Found(records.holding(place, question.keys()));
  }

  @Override
  public Optional<PairState> pair(String bridge, MatchKey key) {
    return Optional.ofNullable(pairs.get(key.hash()));
  }

  @Override
  public Optional<SyncedPair> synced(String bridge, Side side, String record) {
    return synced.of(side, record);
  }

  /** Nobody works on a task that is never made. */
  @Override
  public TouchAnswer touched(MatchKey key, PairState pair) {
    return new Touched(false);
  }

  @Override
  public Optional<ReferenceTable> table(String id) {
    return Optional.ofNullable(tables.get(id));
  }

  @Override
  public Optional<WorkingCalendar> calendar(String id) {
    return catalog.calendar(id);
  }

  @Override
  public Optional<JsonNode> previous(Event event) {
    for (int i = received.size() - 1; i >= 0; i--) {
      Event earlier = received.get(i);
      if (earlier.system().equals(event.system())
          && earlier.collection().equals(event.collection())
          && earlier.record().equals(event.record())
          && !earlier.id().equals(event.id())) {
        return Optional.of(earlier.data());
      }
    }
    return Optional.empty();
  }
}
