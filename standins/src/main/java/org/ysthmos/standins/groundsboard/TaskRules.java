package org.ysthmos.standins.groundsboard;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.Set;
import org.ysthmos.standins.http.Refusal;

/** What the board takes for each field of a task, and what it refuses. */
final class TaskRules {

  static final int LONGEST_TITLE = 120;
  private static final Set<String> FIELDS =
      Set.of(
          "title",
          "lane",
          "start",
          "due",
          "priority",
          "assignees",
          "labels",
          "parent",
          "externalId",
          "done");

  private TaskRules() {}

  /** Copies the fields of {@code wish} that are there into {@code task}, each checked. */
  static void apply(Board board, JsonNode wish, ObjectNode task) {
    if (!wish.isObject()) {
      throw new Refusal(400, "a task is a JSON object");
    }
    wish.properties()
        .forEach(
            entry -> {
              check(board, entry.getKey(), entry.getValue());
              task.set(entry.getKey(), entry.getValue());
            });
    if (task.path("title").asText().isBlank()) {
      throw Refusal.ofField("title", "a task needs a title");
    }
    if (wish.has("lane") && !wish.has("done")) {
      task.put("done", board.lanes().getLast().id().equals(wish.path("lane").asText()));
    }
    if (!task.has("lane")) {
      throw Refusal.ofField("lane", "a task needs a lane");
    }
  }

  private static void check(Board board, String field, JsonNode value) {
    if (!FIELDS.contains(field)) {
      throw Refusal.ofField(field, "a task has no such field");
    }
    if (value.isNull()) {
      return;
    }
    switch (field) {
      case "title" -> checkTitle(value);
      case "lane" -> {
        if (!board.hasLane(value.asText())) {
          throw Refusal.ofField(field, "this board has no lane “" + value.asText() + "”");
        }
      }
      case "start", "due" -> checkInstant(field, value);
      case "priority" -> {
        if (!value.isInt() || value.asInt() < 1 || value.asInt() > 9) {
          throw Refusal.ofField(field, "priority is a whole number from 1 (top) to 9");
        }
      }
      case "assignees" -> checkPeople(value);
      case "labels" -> {
        if (!value.isArray()) {
          throw Refusal.ofField(field, "labels are a list of texts");
        }
      }
      case "done" -> {
        if (!value.isBoolean()) {
          throw Refusal.ofField(field, "done is true or false");
        }
      }
      default -> {}
    }
  }

  private static void checkTitle(JsonNode value) {
    if (!value.isTextual() || value.textValue().length() > LONGEST_TITLE) {
      throw Refusal.ofField("title", "a title is a text of at most " + LONGEST_TITLE);
    }
  }

  private static void checkInstant(String field, JsonNode value) {
    try {
      if (!value.asText().endsWith("Z")) {
        throw Refusal.ofField(field, "this is an instant in UTC, such as 2026-11-30T17:00:00Z");
      }
      Instant.parse(value.asText());
    } catch (DateTimeParseException e) {
      throw Refusal.ofField(field, "this is an instant in UTC, such as 2026-11-30T17:00:00Z");
    }
  }

  private static void checkPeople(JsonNode value) {
    if (!value.isArray()) {
      throw Refusal.ofField("assignees", "assignees is a list of ids");
    }
    for (JsonNode person : value) {
      if (!Board.hasPerson(person.asText())) {
        throw Refusal.ofField("assignees", "nobody here has the id “" + person.asText() + "”");
      }
    }
  }
}
