package org.ysthmos.adapters.dav;

import biweekly.Biweekly;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VTodo;
import biweekly.io.scribe.ScribeIndex;
import biweekly.parameter.RelationshipType;
import biweekly.property.Categories;
import biweekly.property.Completed;
import biweekly.property.DateDue;
import biweekly.property.DateTimeStamp;
import biweekly.property.Description;
import biweekly.property.DurationProperty;
import biweekly.property.ICalProperty;
import biweekly.property.LastModified;
import biweekly.property.PercentComplete;
import biweekly.property.Priority;
import biweekly.property.RelatedTo;
import biweekly.property.Sequence;
import biweekly.property.Status;
import biweekly.property.Summary;
import biweekly.property.TextProperty;
import biweekly.property.Url;
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
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.text.Controls;
import org.ysthmos.core.value.Day;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * A task as a {@code VTODO} (RFC 5545 section 3.6.2). What it holds besides our fields, alarms for
 * example, stays as it is written when it is changed.
 */
final class Todo {

  private static final String PRODUCT = "-//Ysthmos//EN";

  private static final ScribeIndex SCRIBES = new ScribeIndex();

  /** What every change sets. */
  private static final List<Class<? extends ICalProperty>> ALWAYS =
      List.of(DateTimeStamp.class, LastModified.class, Sequence.class, Completed.class);

  private final String text;
  private final int place;
  private final VTodo todo;
  private final Set<Class<? extends ICalProperty>> changed = new LinkedHashSet<>();

  /**
   * @param text as it was read
   * @param place which of its tasks this is
   */
  private Todo(String text, int place, VTodo todo) {
    this.text = text;
    this.place = place;
    this.todo = todo;
  }

  static Todo make(String uid, Instant now) {
    VTodo todo = new VTodo();
    todo.setUid(uid);
    todo.setCreated(Date.from(now));
    todo.setStatus(Status.needsAction());
    return new Todo(write(todo), 0, todo);
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
    return Optional.of(new Todo(text, calendar.getTodos().indexOf(meant), meant));
  }

  String uid() {
    return todo.getUid() == null ? "" : todo.getUid().getValue();
  }

  /** The text that was read, in which other lines stand for what was set. */
  String write() {
    VTodo set = new VTodo();
    set.getProperties().clear();
    changed.forEach(kind -> todo.getProperties(kind).forEach(set::addProperty));
    Set<String> names =
        changed.stream()
            .map(kind -> SCRIBES.getPropertyScribe(kind).getPropertyName(ICalVersion.V2_0))
            .collect(Collectors.toSet());
    return ContentLines.replaced(text, "VTODO", place, names, ContentLines.of(write(set), "VTODO"));
  }

  private static String write(VTodo todo) {
    ICalendar calendar = new ICalendar();
    calendar.setProductId(PRODUCT);
    calendar.addTodo(todo);
    return Biweekly.write(calendar).version(ICalVersion.V2_0).go();
  }

  /** Sets fields; a field that is nothing is taken away. */
  void set(Map<String, Value> fields, Instant now) {
    fields.forEach(this::set);
    changed.addAll(ALWAYS);
    todo.setDateTimeStamp(Date.from(now));
    todo.setLastModified(Date.from(now));
    todo.setSequence(todo.getSequence() == null ? 0 : todo.getSequence().getValue() + 1);
    if (todo.getStatus() != null && todo.getStatus().isCompleted()) {
      if (todo.getCompleted() == null) {
        todo.setCompleted(Date.from(now));
      }
    } else {
      todo.removeProperties(Completed.class);
    }
  }

  private void set(String field, Value value) {
    String text = value instanceof Nothing ? null : Controls.without(value.display());
    switch (field) {
      case "title" -> change(Summary.class, () -> todo.setSummary(text));
      case "description" -> change(Description.class, () -> todo.setDescription(text));
      case "due" -> due(value);
      case "status" ->
          change(Status.class, () -> todo.setStatus(text == null ? null : new Status(text)));
      case "priority" -> change(Priority.class, () -> todo.setPriority(number(text)));
      case "percent" -> change(PercentComplete.class, () -> todo.setPercentComplete(number(text)));
      case "labels" -> change(Categories.class, () -> labels(value));
      case "link" -> change(Url.class, () -> todo.setUrl(text));
      case "parent" -> change(RelatedTo.class, () -> parent(text));
      default -> throw new IllegalArgumentException("a task has no field “" + field + "”");
    }
  }

  private void change(Class<? extends ICalProperty> kind, Runnable set) {
    changed.add(kind);
    set.run();
  }

  private static @Nullable Integer number(@Nullable String text) {
    return text == null ? null : Integer.valueOf(text);
  }

  /** Its children and what stands beside it stay (RFC 5545 section 3.2.15). */
  private void parent(@Nullable String text) {
    List<RelatedTo> others =
        todo.getRelatedTo().stream().filter(related -> !isParent(related)).toList();
    todo.removeProperties(RelatedTo.class);
    if (text != null) {
      todo.addRelatedTo(text);
    }
    others.forEach(todo::addRelatedTo);
  }

  private static boolean isParent(RelatedTo related) {
    RelationshipType type = related.getRelationshipType();
    return type == null || type.equals(RelationshipType.PARENT);
  }

  private void due(Value value) {
    // RFC 5545 section 3.6.2: a task has an end or a length, not both.
    change(DurationProperty.class, () -> todo.removeProperties(DurationProperty.class));
    changed.add(DateDue.class);
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
    todo.getRelatedTo().stream()
        .filter(Todo::isParent)
        .findFirst()
        .ifPresent(related -> record.put("parent", related.getValue()));
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
