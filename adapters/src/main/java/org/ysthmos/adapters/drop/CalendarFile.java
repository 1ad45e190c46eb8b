package org.ysthmos.adapters.drop;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.ICalComponent;
import biweekly.component.VEvent;
import biweekly.component.VTodo;
import biweekly.property.DateOrDateTimeProperty;
import biweekly.property.RecurrenceId;
import biweekly.property.TextProperty;
import biweekly.property.Uid;
import biweekly.util.DateTimeComponents;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.ValueType;

/** The events and tasks of a calendar (RFC 5545) as records. */
final class CalendarFile {

  private static final Pattern BEGIN = Pattern.compile("(?im)^BEGIN:VCALENDAR\\s*$");
  private static final Pattern END = Pattern.compile("(?im)^END:VCALENDAR\\s*$");

  /** What may stand in a record; a document says which of it is read. */
  static final List<FieldShape> FIELDS =
      List.of(
          FieldShape.of("/kind", "event or task", ValueType.TEXT).withRequired(true),
          FieldShape.of("/id", "id", ValueType.TEXT),
          FieldShape.of("/series", "id of the series of which it is one day", ValueType.TEXT),
          FieldShape.of("/instead", "the time that the day had in its series", ValueType.TEXT),
          FieldShape.of("/title", "title", ValueType.TEXT),
          FieldShape.of("/description", "description", ValueType.TEXT),
          FieldShape.of("/place", "place", ValueType.TEXT),
          FieldShape.of("/link", "link", ValueType.LINK),
          FieldShape.of("/status", "status", ValueType.TEXT),
          FieldShape.of("/starts", "starts, a day or a moment", ValueType.TEXT),
          FieldShape.of("/ends", "ends, of an event", ValueType.TEXT),
          FieldShape.of("/due", "due, of a task", ValueType.TEXT));

  private final ICalendar calendar;
  private final FileForm form;
  private final Set<String> remarks;

  private CalendarFile(ICalendar calendar, FileForm form, Set<String> remarks) {
    this.calendar = calendar;
    this.form = form;
    this.remarks = remarks;
  }

  static FileRecords read(String text, FileForm form) throws Unreadable {
    long begun = BEGIN.matcher(text).results().count();
    if (begun == 0) {
      throw new Unreadable("it holds no calendar (BEGIN:VCALENDAR)");
    }
    if (END.matcher(text).results().count() < begun) {
      throw Unreadable.cut("its end is missing (END:VCALENDAR)");
    }
    List<JsonNode> records = new ArrayList<>();
    Set<String> remarks = new LinkedHashSet<>();
    for (ICalendar calendar : Biweekly.parse(text).all()) {
      new CalendarFile(calendar, form, remarks).add(records);
    }
    return new FileRecords(records, List.copyOf(remarks));
  }

  private void add(List<JsonNode> records) throws Unreadable {
    for (VEvent event : calendar.getEvents()) {
      records.add(event(event));
    }
    for (VTodo todo : calendar.getTodos()) {
      records.add(todo(todo));
    }
  }

  private ObjectNode event(VEvent event) throws Unreadable {
    ObjectNode record = component("event", event);
    put(record, "title", event.getSummary());
    put(record, "description", event.getDescription());
    put(record, "place", event.getLocation());
    put(record, "link", event.getUrl());
    put(record, "status", event.getStatus());
    date(record, "starts", event.getDateStart());
    date(record, "ends", event.getDateEnd());
    return record;
  }

  private ObjectNode todo(VTodo todo) throws Unreadable {
    ObjectNode record = component("task", todo);
    put(record, "title", todo.getSummary());
    put(record, "description", todo.getDescription());
    put(record, "place", todo.getLocation());
    put(record, "link", todo.getUrl());
    put(record, "status", todo.getStatus());
    date(record, "starts", todo.getDateStart());
    date(record, "due", todo.getDateDue());
    return record;
  }

  /**
   * One day of a series that was changed has the id of the series (RFC 5545 section 3.8.4.4): it
   * stands beside it under an id of its own, and says which day it was.
   */
  private ObjectNode component(String kind, ICalComponent component) throws Unreadable {
    ObjectNode record = JsonNodeFactory.instance.objectNode().put("kind", kind);
    Uid uid = component.getProperty(Uid.class);
    if (uid == null || uid.getValue() == null) {
      return record;
    }
    RecurrenceId day = component.getProperty(RecurrenceId.class);
    if (day == null) {
      return record.put("id", uid.getValue());
    }
    date(record, "instead", day);
    return record
        .put("id", uid.getValue() + "/" + record.path("instead").asText())
        .put("series", uid.getValue());
  }

  private static void put(ObjectNode record, String field, @Nullable TextProperty text) {
    if (text != null && text.getValue() != null) {
      record.put(field, text.getValue());
    }
  }

  /** A day as it is written, whatever zone; a moment in UTC. */
  private void date(ObjectNode record, String field, @Nullable DateOrDateTimeProperty date)
      throws Unreadable {
    if (date == null || date.getValue() == null) {
      return;
    }
    DateTimeComponents read = date.getValue().getRawComponents();
    if (read == null) {
      record.put(field, date.getValue().toInstant().toString());
    } else if (!date.getValue().hasTime()) {
      record.put(field, LocalDate.of(read.getYear(), read.getMonth(), read.getDate()).toString());
    } else {
      record.put(field, moment(field, date, read).toString());
    }
  }

  private Instant moment(String field, DateOrDateTimeProperty date, DateTimeComponents read)
      throws Unreadable {
    boolean placed = calendar.getTimezoneInfo().getTimezone(date) != null;
    String named = Optional.ofNullable(date.getParameters().getTimezoneId()).orElse("");
    if (read.isUtc() || (placed && named.isEmpty())) {
      return date.getValue().toInstant();
    }
    LocalDateTime local =
        LocalDateTime.of(
            read.getYear(),
            read.getMonth(),
            read.getDate(),
            read.getHour(),
            read.getMinute(),
            Math.min(59, read.getSecond()));
    Optional<ZoneId> known = known(named);
    if (known.isPresent()) {
      return local.atZone(known.get()).toInstant();
    }
    String what =
        named.isEmpty() ? "times in no zone" : "times in a zone that nobody knows, " + named;
    ZoneId zone =
        form.zone()
            .orElseThrow(
                () ->
                    new Unreadable(
                        "%s is %s; state the zone that is meant in the document (zone: Europe/Lisbon)"
                            .formatted(field, what.replace("times in", "a time in"))));
    remarks.add("has %s, which were read in %s".formatted(what, zone));
    return local.atZone(zone).toInstant();
  }

  /**
   * A zone by its name in the registry of IANA, also where the name of another registry stands
   * before it (RFC 5545 section 3.2.19).
   */
  private static Optional<ZoneId> known(String name) {
    String plain = name.replaceFirst("^/[^/]*/", "").replaceFirst("^/", "");
    return ZoneId.getAvailableZoneIds().contains(plain)
        ? Optional.of(ZoneId.of(plain))
        : Optional.empty();
  }
}
