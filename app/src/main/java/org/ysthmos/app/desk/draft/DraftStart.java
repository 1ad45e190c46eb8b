package org.ysthmos.app.desk.draft;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;

/**
 * Where a draft takes its events from, as far as it says so; of two places that are kept alike, the
 * left one.
 *
 * @param kinds the kinds of event; empty while none is said
 */
public record DraftStart(String system, String collection, List<String> kinds) {

  public DraftStart {
    kinds = List.copyOf(kinds);
  }

  public static DraftStart of(ObjectNode draft) {
    JsonNode from = draft.has("between") ? draft.at("/between/left") : draft.path("from");
    JsonNode event = from.path("event");
    List<String> kinds = new ArrayList<>();
    if (event.isArray()) {
      event.forEach(kind -> kinds.add(kind.asText()));
    } else if (!event.asText().isBlank()) {
      kinds.add(event.asText());
    }
    return new DraftStart(from.path("system").asText(), from.path("collection").asText(), kinds);
  }
}
