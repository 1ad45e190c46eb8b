package org.ysthmos.adapters.dav;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.ysthmos.adapters.http.HttpCaller.Answer;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.decide.World.LookupAnswer;
import org.ysthmos.core.decide.World.Unanswered;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.load.RateLimiter;

/**
 * Tasks by CalDAV. A task is known by the name of its resource without {@code .ics}; one that we
 * make is named by its idempotency key and only made where nothing of that name is, so that it is
 * made once however often it is tried. A change goes with the tag of what was read.
 */
final class TodoSystem implements SystemGateway {

  private static final String TYPE = "text/calendar";
  static final String ENDING = ".ics";

  private final SystemDescription system;
  private final DavCalls calls;
  private final InstantSource clock;

  TodoSystem(SystemDescription system, Surroundings surroundings) {
    this.system = system;
    this.calls = new DavCalls(system, surroundings);
    this.clock = surroundings.clock();
  }

  private TodoCollection collection(String id) {
    return (TodoCollection) system.collection(id);
  }

  private URI folder(String collection) {
    return URI.create(system.address() + collection(collection).folder());
  }

  private URI at(String collection, String id) {
    return at(folder(collection), id);
  }

  /** Where a task stands in its calendar. */
  static URI at(URI folder, String id) {
    String name = URLEncoder.encode(id, StandardCharsets.UTF_8).replace("+", "%20");
    return URI.create(folder + name + ENDING);
  }

  @Override
  public Changes changes(String collection, Cursor cursor, CallLog log) {
    return new TodoChanges(system.name(), calls, folder(collection)).since(cursor, log);
  }

  /** Empty if it is no task: a calendar may hold events too. */
  private static Optional<ObjectNode> record(String id, Answered there) {
    return Todo.read(there.body().asText()).map(todo -> todo.record(id, there.tag().orElse("")));
  }

  @Override
  public LookupAnswer find(String collection, SequencedMap<String, String> keys, CallLog log) {
    if (!keys.keySet().equals(Set.of("id"))) {
      return new Unanswered(
          Failure.of(
                  FailureKind.SHAPE_CHANGED,
                  system.name() + " cannot find tasks by " + String.join(", ", keys.keySet()))
              .withRemedy("Tasks are found by id"));
    }
    String id = keys.sequencedValues().getFirst();
    try {
      Optional<Answered> there = calls.get(Purpose.READ, at(collection, id), log);
      return new Found(
          there.flatMap(answered -> record(id, answered)).map(JsonNode.class::cast).stream()
              .toList(),
          there.flatMap(Answered::tag));
    } catch (DavCalls.Failed e) {
      return new Unanswered(e.failure());
    }
  }

  @Override
  public LookupAnswer list(String collection, int most, CallLog log) {
    try {
      List<JsonNode> records = new ArrayList<>();
      List<String> there = new ArrayList<>();
      calls.list(
          folder(collection),
          List.of("{DAV:}getetag"),
          one -> {
            if (one.href().endsWith(ENDING)) {
              there.add(one.href());
            }
          },
          log);
      for (String href : there) {
        if (records.size() < most) {
          Optional<Answered> read = calls.get(Purpose.READ, calls.resolve(href), log);
          read.flatMap(answered -> record(TodoChanges.id(href), answered)).ifPresent(records::add);
        }
      }
      return new Found(records);
    } catch (DavCalls.Failed e) {
      return new Unanswered(e.failure());
    }
  }

  @Override
  public Search findByKey(String collection, String idempotencyKey, CallLog log) {
    try {
      return new Searched(
          calls
              .get(Purpose.FIND_BY_KEY, at(collection, idempotencyKey), log)
              .map(there -> idempotencyKey));
    } catch (DavCalls.Failed e) {
      return new Unsearched(e.failure());
    }
  }

  @Override
  public Outcome deliver(Effect effect, Progress progress, CallLog log) {
    try {
      return effect.record().isEmpty()
          ? make(effect, log)
          : change(effect, effect.record().get(), log);
    } catch (DavCalls.Failed e) {
      return new Undelivered(e.failure());
    } catch (IllegalArgumentException e) {
      return new Undelivered(
          Failure.of(FailureKind.VALUE_REFUSED, "The task cannot be written: " + e.getMessage())
              .withRemedy("Change the rule of the field, then send again"));
    }
  }

  private Outcome make(Effect effect, CallLog log) throws DavCalls.Failed {
    String id = effect.idempotencyKey();
    Todo todo = Todo.make(id, clock.instant());
    todo.set(effect.fields(), clock.instant());
    Answer answer =
        calls.put(
            Purpose.CREATE,
            at(effect.collection(), id),
            "If-None-Match",
            "*",
            TYPE,
            todo.write(),
            log);
    // 412: a try of ours made it already.
    if (!(answer instanceof Answered answered && answered.status() == 412)) {
      Answered unused = calls.made(answer, true);
    }
    return new Delivered(id, stored(todo, effect.fields()), marks(answer));
  }

  private Outcome change(Effect effect, String id, CallLog log) throws DavCalls.Failed {
    URI at = at(effect.collection(), id);
    Answered there =
        calls
            .get(Purpose.READ_VERSION, at, log)
            .orElseThrow(
                () ->
                    calls.refused(
                        FailureKind.NOT_FOUND,
                        system.name() + " has no task “" + id + "” any more",
                        "Check that what the bridge names still exists there"));
    Todo todo =
        Todo.read(there.body().asText())
            .orElseThrow(() -> calls.shapeChanged("“" + id + "” holds no VTODO"));
    String tag = there.tag().orElseThrow(() -> calls.shapeChanged("no ETag comes with a task"));
    if (effect.tag().filter(read -> !read.equals(tag)).isPresent()) {
      throw calls.refused(
          FailureKind.CHANGED_MEANWHILE, "the task was changed since it was read", "Send it again");
    }
    todo.set(effect.fields(), clock.instant());
    Answered changed =
        calls.made(calls.put(Purpose.CHANGE, at, "If-Match", tag, TYPE, todo.write(), log), true);
    return new Delivered(id, stored(todo, effect.fields()), marks(changed));
  }

  /** A server that keeps exactly what was sent says its tag (RFC 4791 section 5.3.4). */
  private static List<String> marks(Answer answer) {
    return answer instanceof Answered answered
        ? answered.tag().map(DavCalls::strong).stream().toList()
        : List.of();
  }

  private static Map<String, JsonNode> stored(Todo todo, SequencedMap<String, ?> fields) {
    Map<String, JsonNode> stored = new LinkedHashMap<>();
    ObjectNode record = todo.record("", "");
    for (String field : fields.keySet()) {
      if (record.path(field).isValueNode()) {
        stored.put(field, record.path(field));
      }
    }
    return stored;
  }

  @Override
  public Removal remove(String collection, String record, Optional<String> tag, CallLog log) {
    Answer answer = calls.delete(at(collection, record), tag, log);
    if (answer instanceof Answered answered
        && (answered.status() == 404 || answered.status() == 410)) {
      return new Removed();
    }
    try {
      Answered unused = calls.made(answer, true);
      return new Removed();
    } catch (DavCalls.Failed e) {
      return new NotRemoved(e.failure());
    }
  }

  @Override
  public RateLimiter limiter() {
    return calls.limiter();
  }

  @Override
  public void close() {
    calls.close();
  }
}
