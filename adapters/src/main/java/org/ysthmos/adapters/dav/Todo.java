package org.ysthmos.adapters.dav;

import biweekly.Biweekly;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VTodo;
import biweekly.property.Categories;
import biweekly.property.DateDue;
import biweekly.property.RelatedTo;
import biweekly.property.Status;
import biweekly.property.TextProperty;
import biweekly.util.DateTimeComponents;
import biweekly.util.ICalDate;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Date;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.text.Controls;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * A task as a {@code VTODO} (RFC 5545 section 3.6.2). What it holds besides our fields, alarms for
 * example, stays as it is when it is changed.
 */
final class Todo {

  private static final String PRODUCT = "-//Ysthmos//EN";

  private final ICalendar calendar;
  private final VTodo todo;

  private Todo(ICalendar calendar, VTodo todo) {
    this.calendar = calendar;
    this.todo = todo;
  }

  static Todo make(String uid, Instant now) {
    ICalendar calendar = new ICalendar();
    calendar.setProductId(PRODUCT);
    VTodo todo = new VTodo();
    todo.setUid(uid);
    todo.setCreated(Date.from(now));
    todo.setStatus(Status.needsAction());
    calendar.addTodo(todo);
    return new Todo(calendar, todo);
  }

  /** Empty if the text holds no task. */
  static Optional<Todo> read(String text) {
    ICalendar calendar = Biweekly.parse(text).first();
    if (calendar == null || calendar.getTodos().isEmpty()) {
      return Optional.empty();
    }
    // Changes of one day of a series (RFC 5545 section 3.8.4.4) may stand before the series.
    VTodo meant =
        calendar.getTodos().stream()
            .filter(todo -> todo.getRecurrenceId() == null)
            .findFirst()
            .orElse(calendar.getTodos().getFirst());
    return Optional.of(new Todo(calendar, meant));
  }

  String uid() {
    return todo.getUid() == null ? "" : todo.getUid().getValue();
  }

  String write() {
    return Biweekly.write(calendar).version(ICalVersion.V2_0).go();
  }

  /** Sets fields; a field that is nothing is taken away. */
  void set(Map<String, Value> fields, Instant now) {
    fields.forEach(this::set);
    todo.setDateTimeStamp(Date.from(now));
    todo.setLastModified(Date.from(now));
    todo.setSequence(todo.getSequence() == null ? 0 : todo.getSequence().getValue() + 1);
    if (todo.getStatus() != null && todo.getStatus().isCompleted()) {
      if (todo.getCompleted() == null) {
        todo.setCompleted(Date.from(now));
      }
    } else {
      todo.removeProperties(biweekly.property.Completed.class);
    }
  }

  private void set(String field, Value value) {
    String text = value instanceof Nothing ? null : Controls.without(value.display());
    switch (field) {
      case "title" -> todo.setSummary(text);
      case "description" -> todo.setDescription(text);
      case "due" -> due(value);
      case "status" -> todo.setStatus(text == null ? null : new Status(text));
      case "priority" -> todo.setPriority(text == null ? null : Integer.valueOf(text));
      case "percent" -> todo.setPercentComplete(text == null ? null : Integer.valueOf(text));
      case "labels" -> labels(value);
      case "link" -> todo.setUrl(text);
      case "parent" -> {
        todo.removeProperties(RelatedTo.class);
        if (text != null) {
          todo.addRelatedTo(text);
        }
      }
      default -> throw new IllegalArgumentException("a task has no field “" + field + "”");
    }
  }

  private void due(Value value) {
    // RFC 5545 section 3.6.2: a task has an end or a length, not both.
    todo.removeProperties(biweekly.property.DurationProperty.class);
    switch (value) {
      case Day day ->
          todo.setDateDue(
              new DateDue(
                  Date.from(day.date().atStartOfDay(ZoneId.systemDefault()).toInstant()), false));
      case Moment moment -> todo.setDateDue(Date.from(moment.instant()), true);
      default -> todo.removeProperties(DateDue.class);
    }
  }

  private void labels(Value value) {
    todo.removeProperties(Categories.class);
    if (value instanceof ListValue list && !list.items().isEmpty()) {
      todo.addCategories(list.items().stream().map(Value::display).map(Controls::without).toList());
    }
  }

  /**
   * As a record.
   *
   * @param id the id under which we know it
   */
  ObjectNode record(String id, String tag) {
    ObjectNode record = JsonNodeFactory.instance.objectNode();
    record.put("id", id);
    record.put("tag", tag);
    put(record, "title", todo.getSummary());
    put(record, "description", todo.getDescription());
    put(record, "link", todo.getUrl());
    Optional.ofNullable(todo.getStatus())
        .ifPresent(status -> record.put("status", status.getValue()));
    Optional.ofNullable(todo.getPriority()).ifPresent(p -> record.put("priority", p.getValue()));
    Optional.ofNullable(todo.getPercentComplete())
        .ifPresent(p -> record.put("percent", p.getValue()));
    Optional.ofNullable(todo.getDateDue()).ifPresent(due -> record.put("due", written(due)));
    Optional.ofNullable(todo.getLastModified())
        .ifPresent(at -> record.put("changedAt", at.getValue().toInstant().toString()));
    ArrayNode labels = record.putArray("labels");
    todo.getCategories().forEach(some -> some.getValues().forEach(labels::add));
    List<RelatedTo> related = todo.getRelatedTo();
    if (!related.isEmpty()) {
      record.put("parent", related.getFirst().getValue());
    }
    return record;
  }

  private static void put(ObjectNode record, String field, @Nullable TextProperty text) {
    if (text != null && text.getValue() != null) {
      record.put(field, text.getValue());
    }
  }

  /** A day as it is written, whatever zone; a moment in UTC. */
  private static String written(DateDue due) {
    ICalDate date = due.getValue();
    if (!date.hasTime()) {
      DateTimeComponents read = date.getRawComponents();
      // One that we set has no components; it was made of the day in this zone.
      return read == null
          ? LocalDate.ofInstant(date.toInstant(), ZoneId.systemDefault()).toString()
          : LocalDate.of(read.getYear(), read.getMonth(), read.getDate()).toString();
    }
    return date.toInstant().atOffset(ZoneOffset.UTC).toInstant().toString();
  }
}
