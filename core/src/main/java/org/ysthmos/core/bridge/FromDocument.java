package org.ysthmos.core.bridge;

import java.util.LinkedHashMap;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.BridgeDefinition.From;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.RecurrenceDocument;
import org.ysthmos.core.recurrence.Timetable;

/**
 * Reads and writes where a bridge begins: at a collection, of which each record may come round by
 * itself, at several places of a system, or with times that come round, {@code from: { times: {
 * rule: every fourth Friday, … }, catch-up: each }}.
 */
public final class FromDocument {

  static final String TIMES = "times";
  static final String CHORES = "chores";

  private static final String CATCH_UP = "catch-up";
  private static final String EVERY = "every";
  private static final String OWN_WRITES = "own-writes";

  private FromDocument() {}

  /**
   * @param bridge its id
   */
  static From read(DocumentNode node, String bridge) {
    if (node.get(TIMES).isPresent()) {
      return ofTimes(bridge, timetable(node));
    }
    return node.get(PlacesDocument.PLACES).isPresent() ? ofPlaces(node) : ofCollection(node);
  }

  private static From ofPlaces(DocumentNode node) {
    node.only("system", PlacesDocument.PLACES, "event", EVERY, OWN_WRITES);
    Places places = PlacesDocument.read(node.need(PlacesDocument.PLACES));
    return new From(
        node.need("system").text(),
        places.named().stream().findFirst().map(places::collection).orElse(""),
        node.need("event").texts(),
        node.get(EVERY).map(BridgeReader::interval),
        node.get(OWN_WRITES).map(DocumentNode::flag).orElse(false),
        Optional.empty(),
        Optional.empty(),
        Optional.of(places));
  }

  private static From ofCollection(DocumentNode node) {
    node.only("system", "collection", "event", EVERY, OWN_WRITES, CHORES, CATCH_UP);
    Optional<DocumentNode> chores = node.get(CHORES);
    if (chores.isEmpty() && node.get(CATCH_UP).isPresent()) {
      throw node.need(CATCH_UP).refuse("nothing comes round here that could be made up for");
    }
    return new From(
        node.need("system").text(),
        node.need("collection").text(),
        node.need("event").texts(),
        node.get(EVERY).map(BridgeReader::interval),
        node.get(OWN_WRITES).map(DocumentNode::flag).orElse(false),
        Optional.empty(),
        chores.map(one -> ChoreDocument.read(one, catchUp(node))),
        Optional.empty());
  }

  private static From ofTimes(String bridge, Timetable timetable) {
    return new From(
        TimeSource.SYSTEM,
        bridge,
        TimeSource.kinds(),
        Optional.empty(),
        /* ownWrites= */ false,
        Optional.of(timetable),
        Optional.empty(),
        Optional.empty());
  }

  /**
   * Reads what stands under {@code from} where a bridge begins with times.
   *
   * @throws org.ysthmos.core.document.DocumentException if it cannot be read
   */
  public static Timetable timetable(DocumentNode node) {
    node.only(TIMES, CATCH_UP);
    return new Timetable(RecurrenceDocument.read(node.need(TIMES)), catchUp(node));
  }

  private static CatchUp catchUp(DocumentNode node) {
    return node.get(CATCH_UP).map(word -> word.word(CatchUp.class)).orElse(CatchUp.EACH);
  }

  static SequencedMap<String, Object> write(From from) {
    SequencedMap<String, Object> written = new LinkedHashMap<>();
    if (from.times().isPresent()) {
      Timetable timetable = from.times().get();
      written.put(TIMES, RecurrenceDocument.write(timetable.times()));
      writeCatchUp(timetable.catchUp(), written);
      return written;
    }
    written.put("system", from.system());
    from.places()
        .ifPresentOrElse(
            places -> written.put(PlacesDocument.PLACES, PlacesDocument.write(places)),
            () -> written.put("collection", from.collection()));
    written.put("event", from.events());
    from.every().ifPresent(every -> written.put(EVERY, every.toString()));
    if (from.ownWrites()) {
      written.put(OWN_WRITES, true);
    }
    from.chores()
        .ifPresent(
            chores -> {
              written.put(CHORES, ChoreDocument.write(chores));
              writeCatchUp(chores.catchUp(), written);
            });
    return written;
  }

  private static void writeCatchUp(CatchUp catchUp, SequencedMap<String, Object> into) {
    if (catchUp != CatchUp.EACH) {
      into.put(CATCH_UP, DocumentNode.wordOf(catchUp));
    }
  }
}
