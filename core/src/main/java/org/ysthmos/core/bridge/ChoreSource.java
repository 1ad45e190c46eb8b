package org.ysthmos.core.bridge;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.core.chore.ChoreTimes.ToMake;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.text.Digest;
import org.ysthmos.core.value.ValueType;

/**
 * Where each row of a collection comes round by itself. Its times are events of its record, in its
 * collection, so that they come in one order with what is told of the row; only the bridge itself
 * hears them, as their kinds name it.
 */
public final class ChoreSource {

  private static final String DUE = "due for ";
  static final String MISSED = "missed for ";
  private static final String READ = "read for ";

  /** What the id of an event may have at most, in characters. */
  private static final int LONGEST_ID = 256;

  private static final FieldShape NEXT =
      FieldShape.of("/occurrence/next", "day after that", ValueType.DAY);

  private ChoreSource() {}

  /** The kind of the event that the time of a row has come. */
  public static String due(String bridge) {
    return DUE + bridge;
  }

  /** The kind of the event that times of a row were missed and are not made up for. */
  public static String missed(String bridge) {
    return MISSED + bridge;
  }

  /** The kind of the event that a row was read, when the bridge began or its rules changed. */
  public static String read(String bridge) {
    return READ + bridge;
  }

  /** The kinds that a bridge hears beside those that it names. */
  static List<String> kinds(String bridge) {
    return List.of(due(bridge), missed(bridge), read(bridge));
  }

  /** Whether events of a kind tell of a row that was read. */
  public static boolean isRow(String kind) {
    return kind.startsWith(READ);
  }

  /** Whether an event tells of a time and of no row. */
  public static boolean isTime(Event event) {
    return event.kind().startsWith(DUE) || event.kind().startsWith(MISSED);
  }

  /** A collection as the bridge sees it: with what is said of a time beside what is in a row. */
  static CollectionShape shape(CollectionShape rows) {
    List<FieldShape> fields = new ArrayList<>(rows.eventFields());
    Stream.concat(TimeSource.fields().stream(), Stream.of(NEXT))
        .filter(field -> rows.eventField(field.key()).isEmpty())
        .forEach(fields::add);
    return rows.withEventFields(fields);
  }

  /** The id of the event that the time of a row has come. */
  public static String id(String bridge, String record, Occurrence time) {
    return kept("%s/%s/%s".formatted(bridge, record, time.id()));
  }

  /** An id that is too long to be kept, in another form that is its own. */
  private static String kept(String id) {
    return id.length() <= LONGEST_ID ? id : Digest.sha256(id);
  }

  /**
   * The event that the time of a row has come.
   *
   * @param row the last that was told of the row
   * @param missed why nobody looked when it came; empty if somebody did
   * @param next the time after it; empty if there is none, or it is not known yet
   */
  public static Event event(
      String bridge, Event row, ToMake time, String missed, Optional<Occurrence> next) {
    ObjectNode occurrence = TimeSource.occurrence(time.time(), missed);
    next.ifPresent(one -> occurrence.put("next", one.at().toLocalDate().toString()));
    String id = id(bridge, row.record(), time.time());
    return of(row, id, due(bridge), time.make(), occurrence);
  }

  /**
   * The event that a person runs a time of a row by hand. It is the event of that time, so that it
   * does not come again by itself.
   *
   * @param by who
   */
  public static Event asked(
      String bridge, Event row, ToMake time, String by, Optional<Occurrence> next) {
    Event event = event(bridge, row, time, "", next);
    ((ObjectNode) event.data().path(TimeSource.OCCURRENCE)).put(TimeSource.ASKED, by);
    return event;
  }

  /**
   * The event that times of a row were missed and are not made up for.
   *
   * @param times at least one, the earliest first
   * @param why nobody looked when they came
   */
  public static Event missed(
      String bridge, Event row, List<Occurrence> times, String why, CatchUp catchUp) {
    String id =
        kept(
            "%s/%s/missed/%s/%s"
                .formatted(bridge, row.record(), times.getFirst().id(), times.getLast().id()));
    return of(
        row,
        id,
        missed(bridge),
        times.getLast().at().toInstant(),
        TimeSource.missedOccurrence(times, why, catchUp));
  }

  private static Event of(Event row, String id, String kind, Instant at, ObjectNode occurrence) {
    ObjectNode data =
        row.data() instanceof ObjectNode told
            ? told.deepCopy()
            : JsonNodeFactory.instance.objectNode();
    data.set(TimeSource.OCCURRENCE, occurrence);
    return new Event(id, row.system(), row.collection(), kind, row.record(), at, data);
  }
}
