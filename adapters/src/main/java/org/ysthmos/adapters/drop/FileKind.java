package org.ysthmos.adapters.drop;

import biweekly.Biweekly;
import biweekly.ICalendar;
import biweekly.component.ICalComponent;
import biweekly.component.VEvent;
import biweekly.component.VTodo;
import biweekly.property.DateOrDateTimeProperty;
import biweekly.property.TextProperty;
import biweekly.util.DateTimeComponents;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;

/** What files hold. */
enum FileKind {
  /**
   * Lines of cells under a line of headers (RFC 4180, with another separator where one is stated).
   */
  CSV {
    @Override
    List<JsonNode> read(String text, FileForm form) throws Unreadable {
      CSVFormat format =
          CSVFormat.RFC4180
              .builder()
              .setDelimiter(form.separator())
              .setIgnoreEmptyLines(true)
              .get();
      List<JsonNode> records = new ArrayList<>();
      try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
        List<String> headers = List.of();
        for (CSVRecord line : parser) {
          if (line.stream().allMatch(String::isBlank)) {
            continue;
          }
          if (headers.isEmpty()) {
            headers = headers(line, form);
          } else if (line.size() != headers.size()) {
            throw new Unreadable(
                "line %d has %d cells where the first line has %d"
                    .formatted(parser.getCurrentLineNumber(), line.size(), headers.size()));
          } else {
            ObjectNode record = JsonNodeFactory.instance.objectNode();
            for (int i = 0; i < headers.size(); i++) {
              record.put(headers.get(i), line.get(i));
            }
            records.add(record);
          }
        }
      } catch (IOException
          | UncheckedIOException
          | IllegalArgumentException
          | IllegalStateException e) {
        throw new Unreadable("it is no CSV: " + e.getMessage());
      }
      return records;
    }

    private List<String> headers(CSVRecord line, FileForm form) throws Unreadable {
      List<String> headers = line.stream().map(String::strip).toList();
      Set<String> met = new HashSet<>();
      for (String header : headers) {
        if (!met.add(header)) {
          throw new Unreadable("the header “%s” stands twice in the first line".formatted(header));
        }
      }
      if (headers.size() == 1) {
        Optional<String> other = FileForm.otherSeparator(headers.getFirst(), form.separator());
        if (other.isPresent()) {
          throw new Unreadable(
              "its cells seem to be parted by “%s” and not by “%s”; state the separator in the document"
                  .formatted(other.get(), form.separator()));
        }
      }
      return headers;
    }
  },
  /** A JSON object a line. */
  NDJSON {
    @Override
    List<JsonNode> read(String text, FileForm form) throws Unreadable {
      List<JsonNode> records = new ArrayList<>();
      int number = 0;
      for (String line : text.lines().toList()) {
        number++;
        if (line.isBlank()) {
          continue;
        }
        try {
          JsonNode record = JSON.readTree(line);
          if (!record.isObject()) {
            throw new Unreadable("line " + number + " is no JSON object");
          }
          records.add(record);
        } catch (JsonProcessingException e) {
          throw new Unreadable("line " + number + " is no JSON: " + e.getOriginalMessage());
        }
      }
      return records;
    }
  },
  /** Events and tasks of a calendar (RFC 5545). */
  ICALENDAR {
    @Override
    List<JsonNode> read(String text, FileForm form) throws Unreadable {
      List<ICalendar> calendars = Biweekly.parse(text).all();
      if (calendars.isEmpty()) {
        throw new Unreadable("it holds no calendar (BEGIN:VCALENDAR)");
      }
      List<JsonNode> records = new ArrayList<>();
      for (ICalendar calendar : calendars) {
        calendar.getEvents().forEach(event -> records.add(event(event)));
        calendar.getTodos().forEach(todo -> records.add(todo(todo)));
      }
      return records;
    }
  };

  private static final JsonMapper JSON = JsonMapper.builder().build();

  /** A file that does not hold what it should; the message says where. */
  static final class Unreadable extends Exception {
    Unreadable(String message) {
      super(message);
    }
  }

  /**
   * The records of a file.
   *
   * @param form how a file of cells is written
   * @throws Unreadable if one of them cannot be read
   */
  abstract List<JsonNode> read(String text, FileForm form) throws Unreadable;

  static Optional<FileKind> parse(String word) {
    return List.of(values()).stream()
        .filter(kind -> kind.name().toLowerCase(Locale.ROOT).equals(word))
        .findFirst();
  }

  private static ObjectNode event(VEvent event) {
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

  private static ObjectNode todo(VTodo todo) {
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

  private static ObjectNode component(String kind, ICalComponent component) {
    ObjectNode record = JsonNodeFactory.instance.objectNode().put("kind", kind);
    put(record, "id", component.getProperty(biweekly.property.Uid.class));
    return record;
  }

  private static void put(ObjectNode record, String field, @Nullable TextProperty text) {
    if (text != null && text.getValue() != null) {
      record.put(field, text.getValue());
    }
  }

  /** A day as it is written, whatever zone; a moment in UTC. */
  private static void date(ObjectNode record, String field, @Nullable DateOrDateTimeProperty date) {
    if (date == null || date.getValue() == null) {
      return;
    }
    DateTimeComponents read = date.getValue().getRawComponents();
    boolean day = !date.getValue().hasTime() && read != null;
    record.put(
        field,
        day
            ? LocalDate.of(read.getYear(), read.getMonth(), read.getDate()).toString()
            : date.getValue().toInstant().toString());
  }
}
