package org.ysthmos.app.desk.draft;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;

/**
 * Where a draft takes its events from, as far as it says so.
 *
 * @param kinds the kinds of event; empty while none is said
 */
public record DraftStart(String system, String collection, List<String> kinds) {

  public DraftStart {
    kinds = List.copyOf(kinds);
  }

  public static DraftStart of(ObjectNode draft) {
    JsonNode event = draft.at("/from/event");
    List<String> kinds = new ArrayList<>();
    if (event.isArray()) {
      event.forEach(kind -> kinds.add(kind.asText()));
    } else if (!event.asText().isBlank()) {
      kinds.add(event.asText());
    }
    return new DraftStart(
        draft.at("/from/system").asText(), draft.at("/from/collection").asText(), kinds);
  }
}
