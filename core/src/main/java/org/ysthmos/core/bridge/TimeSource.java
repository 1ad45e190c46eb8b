package org.ysthmos.core.bridge;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.recurrence.CatchUp;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

/**
 * Where a bridge begins with times instead of a collection: each time is an event, of a system
 * called {@link #SYSTEM} and a collection called like the bridge. It is the same event however
 * often it is offered, so that no time is made twice.
 */
public final class TimeSource {

  /** The id of the system that such events are of; no connected system may be called so. */
  public static final String SYSTEM = "time";

  /** The kind of the event that a time has come. */
  public static final String DUE = "due";

  /** The kind of the event that times were missed and are not made up for. */
  public static final String MISSED = "missed";

  /** Under which it stands who asked for a time before it came, or once more. */
  public static final String ASKED = "asked";

  /** Under which what is said of the time stands in what comes with an event. */
  public static final String OCCURRENCE = "occurrence";

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private static final DateTimeFormatter SHOWN =
      DateTimeFormatter.ofPattern("EEE d MMM uuuu, HH:mm", Locale.ENGLISH);

  private static final List<FieldShape> FIELDS =
      List.of(
          FieldShape.of("/occurrence/day", "day", ValueType.DAY),
          FieldShape.of("/occurrence/at", "time", ValueType.MOMENT),
          FieldShape.of("/occurrence/said", "as the rule says it", ValueType.TEXT),
          FieldShape.of("/occurrence/moved", "moved from a day off", ValueType.FLAG),
          FieldShape.of("/occurrence/missed", "why it was missed at first", ValueType.TEXT),
          FieldShape.of("/occurrence/asked", "who ran it by hand", ValueType.TEXT));

  private TimeSource() {}

  static List<String> kinds() {
    return List.of(DUE, MISSED);
  }

  /** What is said of a time. */
  static List<FieldShape> fields() {
    return FIELDS;
  }

  static CollectionShape shape(String bridge) {
    return new CollectionShape(
        SYSTEM, "Time", bridge, "times", "time", "/occurrence/said", "", List.of(), FIELDS);
  }

  /**
   * The event that a time has come.
   *
   * @param missed why nobody looked when it came; empty if somebody did
   */
  public static Event event(String bridge, Occurrence time, String missed) {
    ObjectNode data = JSON.objectNode();
    data.set(OCCURRENCE, occurrence(time, missed));
    return new Event(
        id(bridge, time), SYSTEM, bridge, DUE, name(time), time.at().toInstant(), data);
  }

  /** What is said of a time in the event that it has come. */
  static ObjectNode occurrence(Occurrence time, String missed) {
    ObjectNode occurrence =
        JSON.objectNode()
            .put("day", time.at().toLocalDate().toString())
            .put("at", DateTimeFormatter.ISO_OFFSET_DATE_TIME.format(time.at()))
            .put("said", time.said().toString())
            .put("moved", time.moved());
    return missed.isEmpty() ? occurrence : occurrence.put(MISSED, missed);
  }

  /** The id of the event that a time has come. */
  public static String id(String bridge, Occurrence time) {
    return bridge + "/" + time.id();
  }

  /** What people call a time: {@code 2026-11-27 06:00}. */
  private static String name(Occurrence time) {
    return time.said().toString().replace('T', ' ');
  }

  /**
   * The event that a person runs a time by hand, whether it came or not. It is the event of that
   * time, so that it does not come again by itself.
   *
   * @param by who
   */
  public static Event asked(String bridge, Occurrence time, String by) {
    Event event = event(bridge, time, "");
    ((ObjectNode) event.data().path(OCCURRENCE)).put(ASKED, by);
    return event;
  }

  /**
   * The event that times were missed and are not made up for, so that somebody can see which.
   *
   * @param times at least one, the earliest first
   * @param why nobody looked when they came
   * @param catchUp which of those that were missed the bridge makes up for
   */
  public static Event missed(String bridge, List<Occurrence> times, String why, CatchUp catchUp) {
    Occurrence first = times.getFirst();
    Occurrence last = times.getLast();
    ObjectNode data = JSON.objectNode();
    data.set(OCCURRENCE, missedOccurrence(times, why, catchUp));
    return new Event(
        "%s/%s/%s/%s".formatted(bridge, MISSED, first.id(), last.id()),
        SYSTEM,
        bridge,
        MISSED,
        name(first),
        last.at().toInstant(),
        data);
  }

  /** What is said of times that were missed in the event that tells of them. */
  static ObjectNode missedOccurrence(List<Occurrence> times, String why, CatchUp catchUp) {
    Occurrence first = times.getFirst();
    Occurrence last = times.getLast();
    ObjectNode occurrence = JSON.objectNode();
    occurrence.put(
        MISSED,
        "%s missed, as %s; the bridge makes up for %s"
            .formatted(
                times.size() == 1
                    ? "the time at " + SHOWN.format(first.at()) + " was"
                    : "%d times from %s to %s were"
                        .formatted(times.size(), SHOWN.format(first.at()), SHOWN.format(last.at())),
                why,
                catchUp == CatchUp.LATEST ? "the latest alone" : "none"));
    ArrayNode all = occurrence.putArray("times");
    times.forEach(time -> all.add(time.id()));
    return occurrence;
  }

  /** What is said of times that were missed; empty if the event tells of none. */
  public static Optional<String> missed(Event event) {
    boolean tells =
        event.system().equals(SYSTEM)
            ? event.kind().equals(MISSED)
            : event.kind().startsWith(ChoreSource.MISSED);
    return tells
        ? Optional.of(event.data().path(OCCURRENCE).path(MISSED).asText())
        : Optional.empty();
  }
}
