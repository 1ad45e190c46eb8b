package org.ysthmos.app.desk.draft;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.FromDocument;
import org.ysthmos.core.bridge.PlaceList;
import org.ysthmos.core.bridge.TimeSource;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.recurrence.Timetable;

/**
 * Where a draft takes its events from, as far as it says so; of two places that are kept alike, the
 * left one.
 *
 * @param collections the collections that it hears, of several places the first first; one at least
 * @param kinds the kinds of event; empty while none is said
 * @param times when it begins by itself, where it begins with times and says when
 * @param rows the whole document, where each of its records comes round by itself
 */
public record DraftStart(
    String system,
    List<String> collections,
    List<String> kinds,
    Optional<Timetable> times,
    Optional<String> rows) {

  public DraftStart {
    collections = List.copyOf(collections);
    kinds = List.copyOf(kinds);
  }

  /** The collection that it hears, of several the first. */
  public String collection() {
    return collections.getFirst();
  }

  /** Whether an event is of one of its collections. */
  public boolean hears(Event event) {
    return event.system().equals(system) && collections.contains(event.collection());
  }

  public static DraftStart of(BridgeDefinition.From from) {
    return new DraftStart(
        from.system(), List.of(from.collection()), from.events(), from.times(), Optional.empty());
  }

  /** The same of a whole version. */
  public static DraftStart of(BridgeVersion version) {
    BridgeDefinition bridge = version.definition();
    DraftStart start = of(bridge.from());
    return new DraftStart(
        start.system(),
        version.heard(),
        start.kinds(),
        start.times(),
        bridge.from().chores().map(chores -> BridgeWriter.write(bridge)));
  }

  /**
   * @param catalog knows the tables in which places can stand
   */
  public static DraftStart of(ObjectNode draft, Catalog catalog) {
    JsonNode from = draft.has("between") ? draft.at("/between/left") : draft.path("from");
    if (from.has("times")) {
      return new DraftStart(
          TimeSource.SYSTEM,
          List.of(draft.path("bridge").asText()),
          List.of(TimeSource.DUE),
          timetable(from),
          Optional.empty());
    }
    JsonNode event = from.path("event");
    List<String> kinds = new ArrayList<>();
    if (event.isArray()) {
      event.forEach(kind -> kinds.add(kind.asText()));
    } else if (!event.asText().isBlank()) {
      kinds.add(event.asText());
    }
    List<String> heard = from.has("places") ? places(from, catalog) : List.of();
    return new DraftStart(
        from.path("system").asText(),
        heard.isEmpty() ? List.of(from.path("collection").asText()) : heard,
        kinds,
        Optional.empty(),
        from.has("chores") ? Optional.of(draft.toString()) : Optional.empty());
  }

  /** None while it cannot be said which; what is wrong with it is told with the rest. */
  private static List<String> places(JsonNode from, Catalog catalog) {
    try {
      return PlaceList.collections(DocumentNode.parse(from.toString()), catalog);
    } catch (DocumentException notYet) {
      return List.of();
    }
  }

  /** Empty while it cannot be read; what is wrong with it is told with the rest of the draft. */
  private static Optional<Timetable> timetable(JsonNode from) {
    try {
      return Optional.of(FromDocument.timetable(DocumentNode.parse(from.toString())));
    } catch (DocumentException notYet) {
      return Optional.empty();
    }
  }
}
