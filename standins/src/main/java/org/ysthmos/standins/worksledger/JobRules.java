package org.ysthmos.standins.worksledger;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.List;
import java.util.function.Predicate;
import org.ysthmos.standins.http.Refusal;

/** What the ledger takes as the fields of a job. */
final class JobRules {

  static final List<String> STATUSES =
      List.of("open", "planned", "in-work", "waiting", "done", "dropped");

  static final List<String> PEOPLE =
      List.of(
          "works@tidewrack.example",
          "h.duarte@tidewrack.example",
          "s.imanov@tidewrack.example",
          "glass@tidewrack.example",
          "records@tidewrack.example");

  private static final List<String> TEXTS = List.of("title", "description", "link", "askedBy");
  private static final int LONGEST_TITLE = 90;

  private JobRules() {}

  /**
   * @param known whether there is a job with an id
   */
  static void apply(JsonNode wish, ObjectNode job, Predicate<String> known) {
    if (!wish.isObject()) {
      throw new Refusal(400, "a job is a JSON object");
    }
    wish.properties().forEach(entry -> set(entry.getKey(), entry.getValue(), job, known));
  }

  private static void set(String field, JsonNode value, ObjectNode job, Predicate<String> known) {
    if (value.isNull()) {
      job.remove(field);
      return;
    }
    switch (field) {
      case "status" -> oneOf(field, value, STATUSES);
      case "owner" -> oneOf(field, value, PEOPLE);
      case "due" -> day(value);
      case "labels" -> {
        if (!value.isArray()) {
          throw Refusal.ofField(field, "labels are a list of texts");
        }
      }
      case "parent" -> {
        if (!known.test(value.asText())) {
          throw Refusal.ofField(field, "there is no job “" + value.asText() + "”");
        }
      }
      default -> text(field, value);
    }
    job.set(field, value);
  }

  private static void oneOf(String field, JsonNode value, List<String> known) {
    if (!known.contains(value.asText())) {
      throw Refusal.ofField(
          field, "“" + value.asText() + "” is none of " + String.join(", ", known));
    }
  }

  private static void day(JsonNode value) {
    try {
      LocalDate.parse(value.asText());
    } catch (DateTimeException e) {
      throw Refusal.ofField("due", "“" + value.asText() + "” is no day such as 2026-11-30");
    }
  }

  private static void text(String field, JsonNode value) {
    if (!TEXTS.contains(field)) {
      throw Refusal.ofField(field, "a job has no field “" + field + "”");
    }
    if (!value.isTextual()) {
      throw Refusal.ofField(field, field + " is a text");
    }
    if (field.equals("title") && value.textValue().length() > LONGEST_TITLE) {
      throw Refusal.ofField(field, "a title has at most " + LONGEST_TITLE + " characters");
    }
  }
}
