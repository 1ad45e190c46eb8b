package org.ysthmos.adapters.hook;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.adapters.system.Push;
import org.ysthmos.adapters.system.SystemCollection;
import org.ysthmos.core.gateway.ChangeGateway.Changed;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.text.Digest;

/**
 * A change that was asked for, as an event. Where a webhook tells the version of a record too, both
 * get one id, so that a change that comes both ways is one event.
 */
public final class PolledEvent {

  /** What the id of an event may have at most, in characters. */
  private static final int LONGEST_ID = 256;

  private PolledEvent() {}

  /** The id of the change that brought a record to a version. */
  public static String id(String collection, String record, String version) {
    String id = collection + "/" + record + "@" + version;
    return id.length() <= LONGEST_ID ? id : collection + "/" + Digest.sha256(id);
  }

  /**
   * The body of the event: the record; or where the collection pushes too, what its webhook would
   * say, so that a bridge finds the same fields whichever way an event came.
   *
   * @param kind our word for the kind of event
   */
  public static JsonNode data(SystemCollection collection, Changed record, String kind) {
    Optional<Push> push = collection.push();
    if (push.isEmpty()) {
      return record.record();
    }
    ObjectNode body = JsonNodeFactory.instance.objectNode();
    put(body, push.get().record(), record.id());
    push.get().kinds().entrySet().stream()
        .filter(word -> word.getValue().equals(kind))
        .map(Map.Entry::getKey)
        .findFirst()
        .ifPresent(word -> put(body, push.get().kind(), word));
    push.get().version().ifPresent(at -> put(body, at, record.version()));
    return body;
  }

  private static void put(ObjectNode body, Pointer at, String value) {
    ObjectNode group = body;
    for (String token : at.tokens().subList(0, at.tokens().size() - 1)) {
      group = group.withObjectProperty(token);
    }
    group.put(at.lastToken(), value);
  }
}
