package org.ysthmos.adapters.dav;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.Page;

/**
 * What happened to documents since they were listed last. It is told by what we met then: the dates
 * of servers do not say it, as many set the creation date anew with each revision. A document is
 * known by its path, and its state is its tag.
 */
final class DocumentChanges {

  private final Map<String, String> seen;
  private final Optional<Integer> pass;
  private final Map<String, String> met = new LinkedHashMap<>();
  private final List<Changed> changes = new ArrayList<>();

  private DocumentChanges(Cursor cursor) {
    this.seen = cursor.seen().items();
    this.pass = cursor.since().map(Integer::valueOf);
  }

  /**
   * The whole of what changed, in one page.
   *
   * @param listed the documents that do not stand as they were met
   * @param there the paths of all that there are, also of those that could not be read
   */
  static Page since(Cursor cursor, List<ObjectNode> listed, Set<String> there) {
    DocumentChanges changes = new DocumentChanges(cursor);
    if (changes.pass.isEmpty()) {
      listed.forEach(changes::first);
    } else {
      changes.compare(listed, there);
    }
    int next = changes.pass.orElse(0) + 1;
    return new Page(changes.changes, Optional.empty(), Optional.of(Integer.toString(next)))
        .meeting(changes.met);
  }

  /** At first the dates alone say what came since we began; what is older is left untold. */
  private void first(ObjectNode record) {
    String state = state(record);
    met.put(id(record), state);
    changes.add(
        new Changed(
            id(record),
            record.path("tag").asText(),
            moment(record, "changedAt"),
            moment(record, "createdAt"),
            Optional.of(DocumentCollection.ADDED),
            record));
  }

  private void compare(List<ObjectNode> listed, Set<String> there) {
    Map<String, String> gone = new HashMap<>();
    seen.forEach(
        (id, state) -> {
          if (!there.contains(id)) {
            gone.put(id, state);
          }
        });
    Map<String, String> renamed = renamed(listed, gone);
    for (ObjectNode record : listed) {
      String id = id(record);
      String state = state(record);
      String before = seen.get(id);
      if (state.equals(before)) {
        continue;
      }
      met.put(id, state);
      String was = renamed.get(id);
      if (before != null) {
        tell(id, state, DocumentCollection.REVISED, record);
      } else if (was != null) {
        gone.remove(was);
        met.put(was, "");
        record.put("was", was);
        tell(id, state, DocumentCollection.RENAMED, record);
      } else {
        tell(id, state, DocumentCollection.ADDED, record);
      }
    }
    gone.forEach(
        (id, state) -> {
          met.put(id, "");
          tell(id, "gone", DocumentCollection.REMOVED, named(id));
        });
  }

  /** A document that came with the tag of the only one that went with it is the same one. */
  private Map<String, String> renamed(List<ObjectNode> listed, Map<String, String> gone) {
    Map<String, List<String>> came = new HashMap<>();
    for (ObjectNode record : listed) {
      if (!seen.containsKey(id(record))) {
        came.computeIfAbsent(state(record), state -> new ArrayList<>()).add(id(record));
      }
    }
    Map<String, List<String>> went = new HashMap<>();
    gone.forEach((id, state) -> went.computeIfAbsent(state, one -> new ArrayList<>()).add(id));
    Map<String, String> renamed = new HashMap<>();
    came.forEach(
        (state, ids) -> {
          List<String> before = went.getOrDefault(state, List.of());
          if (ids.size() == 1 && before.size() == 1) {
            renamed.put(ids.getFirst(), before.getFirst());
          }
        });
    return renamed;
  }

  /** The pass tells a state that came back from the one that it was before. */
  private void tell(String id, String state, String kind, ObjectNode record) {
    changes.add(
        new Changed(
            id,
            "%s in pass %d".formatted(state, pass.orElse(0)),
            Optional.empty(),
            Optional.empty(),
            Optional.of(kind),
            record));
  }

  private static String id(ObjectNode record) {
    return record.path("id").asText();
  }

  /**
   * The tag without its mark of weakness: one that is weak at first and strong a second later is
   * one state (RFC 9110 section 8.8.1).
   */
  private static String state(ObjectNode record) {
    return DavCalls.strong(record.path("tag").asText());
  }

  /** What can be said of a document that is gone. */
  private static ObjectNode named(String id) {
    int slash = id.lastIndexOf('/');
    return JsonNodeFactory.instance
        .objectNode()
        .put("id", id)
        .put("name", id.substring(slash + 1))
        .put("folder", id.substring(0, Math.max(slash, 0)));
  }

  private static Optional<Instant> moment(ObjectNode record, String field) {
    return Optional.ofNullable(record.get(field)).map(JsonNode::asText).map(Instant::parse);
  }
}
