package org.ysthmos.e2e;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;
import java.util.stream.Stream;

/** Where something comes from that must become exactly one task, by each sort of system. */
enum Arrival {
  /** Told by a webhook, read over HTTP, made by two calls. */
  REPORT {
    @Override
    String send(Together together, int number) {
      return together.report("Kill " + number, "5");
    }

    @Override
    Stream<JsonNode> tasks(Together together, String id) {
      return noted(together, "Report " + id + ",");
    }
  },
  /** Told by a webhook, made with a key, and written back to. */
  TICKET {
    @Override
    String send(Together together, int number) {
      return together
          .json(
              "POST",
              together.address("climate-desk") + "/api/tickets",
              "{\"requester\":\"k@mail.example\",\"subject\":\"Cold %d\",\"description\":\"Fault code: HV-1\"}"
                  .formatted(number),
              Map.of("Authorization", "Bearer t", "Content-Type", "application/json"))
          .path("id")
          .asText();
    }

    @Override
    Stream<JsonNode> tasks(Together together, String id) {
      return together.records("works-ledger").stream()
          .filter(job -> job.path("description").asText().contains("Ticket " + id + ","));
    }

    /** The ticket names the one job that was made of it. */
    @Override
    boolean isComplete(Together together, String id) {
      List<String> jobs = tasks(together, id).map(job -> job.path("id").asText()).toList();
      return together.records("climate-desk").stream()
          .filter(ticket -> ticket.path("id").asText().equals(id))
          .anyMatch(ticket -> jobs.equals(List.of(ticket.path("job").asText())));
    }
  },
  /** Asked for over HTTP, page by page. */
  PLEDGE {
    @Override
    String send(Together together, int number) {
      return together
          .json(
              "POST",
              together.friendsAddress() + "/api/pledges",
              "{\"what\":\"Bench %d\",\"mail\":\"a@mail.example\"}".formatted(number),
              Map.of("Authorization", "Bearer friends"))
          .path("id")
          .asText();
    }

    @Override
    Stream<JsonNode> tasks(Together together, String id) {
      return noted(together, "Pledge " + id + "\n");
    }
  },
  /** A mail, by IMAP. */
  MAIL {
    @Override
    String send(Together together, int number) {
      return form(
              together,
              "post-room",
              "/mails",
              Map.of(
                  "folder", "Holiday club",
                  "name", "School",
                  "from", "office@school.example",
                  "subject", "Visit " + number,
                  "text", "Thirty children",
                  "flagged", "yes"))
          .replaceAll("(?s).*id=\"number\">([^<]*)<.*", "$1");
    }

    @Override
    Stream<JsonNode> tasks(Together together, String id) {
      return noted(together, "mid:" + id);
    }
  },
  /** A document, by WebDAV. */
  DOCUMENT {
    @Override
    String send(Together together, int number) {
      String path = "records/ferns/kill-%d.txt".formatted(number);
      form(
          together,
          "leaf-library",
          "/documents",
          Map.of("path", path, "kind", "plant record", "approved", "no", "text", "A fern"));
      return "/" + path;
    }

    @Override
    Stream<JsonNode> tasks(Together together, String id) {
      return noted(together, id + "\n");
    }
  };

  /**
   * Lets something happen.
   *
   * @param number told from all others
   * @return the id that its system gives it
   */
  abstract String send(Together together, int number);

  /** What was made of it, as the target wrote it down. */
  abstract Stream<JsonNode> tasks(Together together, String id);

  boolean isComplete(Together together, String id) {
    return tasks(together, id).findAny().isPresent();
  }

  private static Stream<JsonNode> noted(Together together, String text) {
    return together.tasks().stream()
        .filter(task -> (task.path("notes").asText() + "\n").contains(text));
  }

  private static String form(
      Together together, String standIn, String path, Map<String, String> fields) {
    StringJoiner body = new StringJoiner("&");
    fields.forEach(
        (key, value) -> body.add(key + "=" + URLEncoder.encode(value, StandardCharsets.UTF_8)));
    String type = "application/x-www-form-urlencoded";
    return together
        .send(
            "POST", together.address(standIn) + path, body.toString(), Map.of("Content-Type", type))
        .body();
  }
}
