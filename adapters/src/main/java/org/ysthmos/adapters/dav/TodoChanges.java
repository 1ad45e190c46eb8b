package org.ysthmos.adapters.dav;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.ysthmos.adapters.http.HttpCaller.Answered;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Changes;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.ChangeGateway.Page;
import org.ysthmos.core.gateway.ChangeGateway.SetAside;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.gateway.Seen;

/**
 * What happened to the tasks of one calendar, by sync-collection (RFC 6578) and by what was met.
 */
final class TodoChanges {

  private static final List<String> TAG = List.of("{DAV:}getetag");
  private static final int PAGE = 50;

  private final String name;
  private final DavCalls calls;
  private final URI folder;

  /**
   * @param name of the system, for people
   * @param folder where the calendar is
   */
  TodoChanges(String name, DavCalls calls, URI folder) {
    this.name = name;
    this.calls = calls;
    this.folder = folder;
  }

  /** The name of a resource without its ending. */
  static String id(String href) {
    String name = href.substring(href.lastIndexOf('/') + 1);
    String decoded = URLDecoder.decode(name.replace("+", "%2B"), StandardCharsets.UTF_8);
    return decoded.endsWith(TodoSystem.ENDING)
        ? decoded.substring(0, decoded.length() - TodoSystem.ENDING.length())
        : decoded;
  }

  /**
   * The first pass takes a token and tells nothing: what stands there then was there before. Each
   * later one asks what changed since the token, and tells it in pages by name.
   */
  Changes since(Cursor cursor, CallLog log) {
    try {
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
      if (cursor.page().isEmpty()) {
        gathered.takeAgain(log);
      }
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
          ? forgotten(cursor.seen(), log)
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
    private final Map<String, String> seen;
    private final List<Changed> records = new ArrayList<>();
    private final Map<String, String> met = new LinkedHashMap<>();
    private final List<SetAside> aside = new ArrayList<>();

    /**
     * @param since the token that was asked with; it tells a state that came back from what it was
     */
    Gathered(String since, Seen seen) {
      this.since = since;
      this.seen = seen.items();
    }

    /** Reads what could not be read and is wanted again, though nothing of it has changed. */
    void takeAgain(CallLog log) throws DavCalls.Failed {
      for (Map.Entry<String, String> item : seen.entrySet()) {
        if (item.getValue().startsWith(Seen.AGAIN)) {
          take(item.getKey(), Optional.of(TodoSystem.at(folder, item.getKey())), log);
        }
      }
    }

    /** Tells of a task unless it stands as it was met last; what holds no task is passed over. */
    void take(Multistatus.Response one, CallLog log) throws DavCalls.Failed {
      take(
          id(one.href()),
          one.status() == 404 ? Optional.empty() : Optional.of(calls.resolve(one.href())),
          log);
    }

    private void take(String id, Optional<URI> at, CallLog log) throws DavCalls.Failed {
      if (met.containsKey(id)) {
        return;
      }
      Optional<Answered> there =
          at.isEmpty() ? Optional.empty() : calls.get(Purpose.READ, at.get(), log);
      if (there.isEmpty()) {
        gone(id);
        return;
      }
      String tag = DavCalls.strong(there.get().tag().orElse("untagged"));
      if (tag.equals(seen.get(id))) {
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
      Optional<Instant> at = seen.isEmpty() ? moment(record) : Optional.empty();
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
                    .formatted(id, name, why.getMessage()))
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
  private Changes forgotten(Seen seen, CallLog log) {
    try {
      Multistatus all = calls.changes(folder, "", TAG, log);
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
}
