package org.ysthmos.adapters.dav;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.TreeSet;
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
import org.ysthmos.core.gateway.Seen;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.load.RateLimiter;

/**
 * Tasks by CalDAV. A task is known by the name of its resource without {@code .ics}; one that we
 * make is named by its idempotency key and only made where nothing of that name is, so that it is
 * made once however often it is tried. A change goes with the tag of what was read.
 */
final class TodoSystem implements SystemGateway {

  private static final String TYPE = "text/calendar";
  private static final String ENDING = ".ics";
  private static final String DATA = "{urn:ietf:params:xml:ns:caldav}calendar-data";
  private static final List<String> TAG = List.of("{DAV:}getetag");
  private static final int PAGE = 50;

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
    String name = URLEncoder.encode(id, StandardCharsets.UTF_8).replace("+", "%20");
    return URI.create(folder(collection) + name + ENDING);
  }

  private static String id(String href) {
    String name = href.substring(href.lastIndexOf('/') + 1);
    String decoded = URLDecoder.decode(name.replace("+", "%2B"), StandardCharsets.UTF_8);
    return decoded.endsWith(ENDING)
        ? decoded.substring(0, decoded.length() - ENDING.length())
        : decoded;
  }

  /**
   * The first pass takes a token and tells nothing: what stands there then was there before. Each
   * later one asks what changed since the token, and tells it in pages by name.
   */
  @Override
  public Changes changes(String collection, Cursor cursor, CallLog log) {
    try {
      URI folder = folder(collection);
      if (cursor.since().isEmpty()) {
        Multistatus all = calls.changes(folder, "", TAG, log);
        Map<String, String> met = new LinkedHashMap<>();
        members(all, "").forEach(one -> met.put(id(one.href()), tag(one)));
        return new Page(List.of(), Optional.empty(), Optional.of(token(all))).meeting(met);
      }
      String since = cursor.since().get();
      Multistatus changed = calls.changes(folder, since, TAG, log);
      // The token of the first page: what changes while pages are read is told after it.
      SyncCursor reached =
          cursor.page().map(SyncCursor::read).orElse(new SyncCursor(token(changed), ""));
      List<Multistatus.Response> members = members(changed, reached.href());
      Gathered gathered = new Gathered(since, cursor.seen());
      for (Multistatus.Response one : members.subList(0, Math.min(PAGE, members.size()))) {
        gathered.take(one, log);
      }
      return members.size() > PAGE
          ? gathered.page(
              Optional.of(new SyncCursor(reached.token(), members.get(PAGE - 1).href()).write()),
              Optional.empty())
          : gathered.page(Optional.empty(), Optional.of(reached.token()));
    } catch (DavCalls.Failed e) {
      return e.failure().kind() == FailureKind.NOT_ALLOWED && cursor.since().isPresent()
          ? forgotten(collection, cursor.seen(), log)
          : new NotRead(e.failure());
    }
  }

  /** What is no collection, in the order of names, after a name. */
  private static List<Multistatus.Response> members(Multistatus answer, String after) {
    return answer.responses().stream()
        .filter(one -> !one.href().endsWith("/"))
        .filter(one -> one.href().compareTo(after) > 0)
        .sorted(Comparator.comparing(Multistatus.Response::href))
        .toList();
  }

  private static String tag(Multistatus.Response one) {
    return DavCalls.strong(one.dav("getetag").orElse("untagged"));
  }

  /** What a page gathers. */
  private final class Gathered {
    private final String since;
    private final Seen seen;
    private final List<Changed> records = new ArrayList<>();
    private final Map<String, String> met = new LinkedHashMap<>();
    private final List<SetAside> aside = new ArrayList<>();

    /**
     * @param since the token that was asked with; it tells a state that came back from what it was
     */
    Gathered(String since, Seen seen) {
      this.since = since;
      this.seen = seen;
    }

    /** Tells of a task unless it stands as it was met last; what holds no task is passed over. */
    void take(Multistatus.Response one, CallLog log) throws DavCalls.Failed {
      String id = id(one.href());
      Optional<Answered> there =
          one.status() == 404
              ? Optional.empty()
              : calls.get(Purpose.READ, calls.resolve(one.href()), log);
      if (there.isEmpty()) {
        gone(id);
        return;
      }
      String tag = DavCalls.strong(there.get().tag().orElse("untagged"));
      if (seen.state(id).filter(tag::equals).isPresent()) {
        return;
      }
      met.put(id, tag);
      String text = there.get().body().asText();
      try {
        Todo.read(text)
            .map(todo -> todo.record(id, there.get().tag().orElse("")))
            .ifPresent(record -> records.add(changed(id, tag, record)));
      } catch (RuntimeException e) {
        aside.add(unreadable(id, tag, text, e));
      }
    }

    /** A task that is gone has no tag; the token tells one going from the next. */
    void gone(String id) {
      met.put(id, "");
      records.add(
          new Changed(
              id,
              "removed since " + since,
              Optional.empty(),
              Optional.empty(),
              Optional.of(TodoCollection.REMOVED),
              JsonNodeFactory.instance.objectNode().put("id", id)));
    }

    private Changed changed(String id, String tag, ObjectNode record) {
      // Where nothing was met yet, an old date says that it was there before.
      Optional<Instant> at = seen.items().isEmpty() ? moment(record) : Optional.empty();
      return new Changed(id, tag + " since " + since, at, Optional.empty(), record);
    }

    Page page(Optional<String> next, Optional<String> token) {
      return new Page(records, next, token, met, aside, List.of());
    }
  }

  private SetAside unreadable(String id, String tag, String text, RuntimeException why) {
    return new SetAside(
        id,
        tag,
        "task " + id,
        Failure.of(
                FailureKind.UNREADABLE,
                "The task “%s” of %s is no calendar that can be read: %s"
                    .formatted(id, system.name(), why.getMessage()))
            .withRemedy("Open it in a calendar program and save it anew"),
        text);
  }

  /**
   * How far a pass is.
   *
   * @param token from which the next pass goes on
   * @param href the last name that was told
   */
  private record SyncCursor(String token, String href) {

    static SyncCursor read(String page) {
      int end = page.indexOf('\n');
      return new SyncCursor(page.substring(0, end), page.substring(end + 1));
    }

    String write() {
      return token + "\n" + href;
    }
  }

  /**
   * A server may forget old tokens (RFC 6578 section 3.2, {@code valid-sync-token}, answered with
   * 403): then all tasks are compared with what was met of them.
   */
  private Changes forgotten(String collection, Seen seen, CallLog log) {
    try {
      Multistatus all = calls.changes(folder(collection), "", TAG, log);
      Gathered gathered = new Gathered(token(all), seen);
      Set<String> gone = new TreeSet<>(seen.items().keySet());
      for (Multistatus.Response one : members(all, "")) {
        gone.remove(id(one.href()));
        if (seen.state(id(one.href())).filter(tag(one)::equals).isEmpty()) {
          gathered.take(one, log);
        }
      }
      gone.forEach(gathered::gone);
      return gathered.page(Optional.empty(), Optional.of(token(all)));
    } catch (DavCalls.Failed e) {
      return new NotRead(e.failure());
    }
  }

  private static Optional<Instant> moment(ObjectNode record) {
    return Optional.ofNullable(record.get("changedAt")).map(JsonNode::asText).map(Instant::parse);
  }

  private String token(Multistatus answer) throws DavCalls.Failed {
    return answer
        .syncToken()
        .orElseThrow(() -> calls.shapeChanged("no sync-token comes with what changed"));
  }

  private ObjectNode record(String id, Answered there) throws DavCalls.Failed {
    Todo todo =
        Todo.read(there.body().asText())
            .orElseThrow(() -> calls.shapeChanged("“" + id + "” holds no VTODO"));
    return todo.record(id, there.tag().orElse(""));
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
      return there.isEmpty() ? new Found(List.of()) : new Found(List.of(record(id, there.get())));
    } catch (DavCalls.Failed e) {
      return new Unanswered(e.failure());
    }
  }

  @Override
  public LookupAnswer list(String collection, int most, CallLog log) {
    try {
      List<JsonNode> records = new ArrayList<>();
      Multistatus all = calls.list(folder(collection), List.of("{DAV:}getetag", DATA), log);
      for (Multistatus.Response one : all.responses()) {
        if (records.size() < most && one.href().endsWith(ENDING)) {
          Optional<Answered> there = calls.get(Purpose.READ, calls.resolve(one.href()), log);
          if (there.isPresent()) {
            records.add(record(id(one.href()), there.get()));
          }
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
    return new Delivered(id, stored(todo, effect.fields()));
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
    todo.set(effect.fields(), clock.instant());
    Answered unused =
        calls.made(calls.put(Purpose.CHANGE, at, "If-Match", tag, TYPE, todo.write(), log), true);
    return new Delivered(id, stored(todo, effect.fields()));
  }

  private static Map<String, String> stored(Todo todo, SequencedMap<String, ?> fields) {
    Map<String, String> stored = new LinkedHashMap<>();
    ObjectNode record = todo.record("", "");
    for (String field : fields.keySet()) {
      if (record.path(field).isValueNode()) {
        stored.put(field, record.path(field).asText());
      }
    }
    return stored;
  }

  @Override
  public Removal remove(String collection, String record, CallLog log) {
    Answer answer = calls.delete(at(collection, record), log);
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
