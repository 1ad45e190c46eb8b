package org.ysthmos.app.desk.sample;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.ysthmos.app.event.ReceivedEvents;
import org.ysthmos.app.pair.MadeTasks;
import org.ysthmos.app.sync.SyncedPairs;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.table.ReferenceTable;

/**
 * The world in which samples are decided: lookups are really asked, each question once and then
 * remembered for a while, so that typing asks nothing. Of bridges that go one way no task exists,
 * so that every sample shows what it would make; of those that go both ways the pairs are as they
 * are, as nothing can be said of one without.
 */
@Component
public class SampleWorld implements World {

  private static final int MOST_REMEMBERED = 2000;
  private static final Duration REMEMBERED_FOR = Duration.ofMinutes(15);

  private record Remembered(LookupAnswer answer, Instant at) {}

  private final Systems systems;
  private final MadeTasks tasks;
  private final Tables tables;
  private final ReceivedEvents received;
  private final SyncedPairs synced;
  private final AppClock clock;
  private final Map<Question, Remembered> answers = new ConcurrentHashMap<>();

  SampleWorld(
      Systems systems,
      MadeTasks tasks,
      Tables tables,
      ReceivedEvents received,
      SyncedPairs synced,
      AppClock clock) {
    this.systems = systems;
    this.tasks = tasks;
    this.tables = tables;
    this.received = received;
    this.synced = synced;
    this.clock = clock;
  }

  @Override
  public LookupAnswer lookUp(String lookup, Question question) {
    Instant now = clock.instant();
    Remembered known = answers.get(question);
    if (known != null && known.at().plus(REMEMBERED_FOR).isAfter(now)) {
      return known.answer();
    }
    LookupAnswer answer = ask(question);
    if (answer instanceof Found) {
      if (answers.size() >= MOST_REMEMBERED) {
        answers.clear();
      }
      answers.put(question, new Remembered(answer, now));
    }
    return answer;
  }

  /** Forgets what was found, so that it is asked again. */
  public void forget() {
    answers.clear();
  }

  /** Asks, whatever was found before. */
  public LookupAnswer ask(Question question) {
    if (question.origin() == LookupRule.Origin.TASKS) {
      return tasks.find(question);
    }
    if (question.origin() == LookupRule.Origin.EVENTS) {
      return received.lookThrough(question);
    }
    return systems
        .find(question.system())
        .map(s -> s.gateway().find(question.collection(), question.keys(), call -> {}))
        .orElseGet(
            () ->
                new Unanswered(
                    Failure.of(
                        FailureKind.NOT_FOUND, "There is no system “" + question.system() + "”")));
  }

  @Override
  public Optional<PairState> pair(String bridge, MatchKey key) {
    return Optional.empty();
  }

  @Override
  public Optional<SyncedPair> synced(String bridge, Side side, String record) {
    return synced.find(bridge, side, record).pair();
  }

  @Override
  public Optional<Instant> changedAt(String system, String collection, JsonNode record) {
    return systems.changedAt(system, collection, record);
  }

  @Override
  public Optional<URI> page(String system, String collection, String record) {
    return systems.page(system, collection, record);
  }

  @Override
  public TouchAnswer touched(MatchKey key, PairState pair) {
    return new Touched(false);
  }

  @Override
  public Optional<ReferenceTable> table(String id) {
    return tables.table(id);
  }

  @Override
  public Optional<WorkingCalendar> calendar(String id) {
    return tables.calendar(id);
  }

  @Override
  public Optional<JsonNode> previous(Event event) {
    return received.previous(event);
  }
}
