package org.ysthmos.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;

/** What the tests say to the application and the stand-ins, and hear of them. */
class Together extends Processes {

  /**
   * @param settings of the application, besides those that all tests share
   */
  Together(String... settings) {
    super(settings);
  }

  /** Sends a report in through the desk's own API; the desk then sends its webhook. */
  String report(String problem, String danger) {
    String body =
        """
        {"place":"Palm walk","problem":"%s","seenOn":"23 November 2026","danger":"%s",
         "mail":"k.lund@mail.example","photo":""}
        """
            .formatted(problem, danger);
    return json(
            "POST",
            deskAddress() + "/api/submissions",
            body,
            Map.of("Authorization", "Bearer desk"))
        .path("id")
        .asText();
  }

  /** From now on it is this time in the application, until it is started again. */
  void clock(Instant now) {
    HttpResponse<String> set =
        send(
            "PUT",
            appAddress() + "/api/clock",
            "{\"now\":\"%s\"}".formatted(now),
            Map.of("Content-Type", "application/json"));
    if (set.statusCode() != 204) {
      throw new IllegalStateException("the clock cannot be set: " + set.body());
    }
  }

  void fault(String address, String kind, String method, String below, int calls, int millis) {
    send(
        "POST",
        address + "/control/faults",
        """
        {"kind":"%s","method":"%s","below":"%s","calls":%d,"waitMillis":%d}
        """
            .formatted(kind, method, below, calls, millis),
        Map.of());
  }

  /** Somebody removes the only task of a report at the board. */
  void removeTaskOf(String number) {
    String task = tasksOf(number).getFirst().path("id").asText();
    atTheBoard("DELETE", "/api/tasks/" + task, "");
  }

  /**
   * What somebody does by the calls of the board. It takes 90 calls a minute of its account, which
   * the application shares: whoever is refused comes again.
   */
  void atTheBoard(String method, String path, String body) {
    await()
        .atMost(Duration.ofSeconds(90))
        .pollDelay(Duration.ZERO)
        .pollInterval(Duration.ofSeconds(2))
        .until(
            () ->
                send(
                        method,
                        boardAddress() + path,
                        body,
                        Map.of("Authorization", "Bearer board", "Content-Type", "application/json"))
                    .statusCode(),
            status -> {
              if (status >= 400 && status != 429) {
                throw new IllegalStateException(method + " " + path + " answers " + status);
              }
              return status < 400;
            });
  }

  /** Gives every bridge a ceiling that no test reaches, however much it does in an hour. */
  void noCeilings() {
    String roomy = "ceiling: { creates: 99999, changes: 99999, messages: 99999, per: PT1H }";
    JsonNode bridges = json("GET", appAddress() + "/api/bridges", "", Map.of());
    for (JsonNode bridge : bridges) {
      String at = appAddress() + "/api/bridges/" + bridge.path("id").asText();
      String document = json("GET", at, "", Map.of()).path("document").asText();
      send(
          "PUT",
          at + "/document",
          document.replaceAll("(?m)^ceiling: .*$", roomy),
          Map.of("Content-Type", "application/yaml"));
    }
  }

  /** The visitor says another danger; the desk then sends its webhook. */
  void edit(String number, String danger) {
    send(
        "PATCH",
        deskAddress() + "/api/submissions/" + number,
        "{\"danger\":\"%s\"}".formatted(danger),
        Map.of("Authorization", "Bearer desk"));
  }

  /** A task of the crews, made by the calls of their board. */
  void crewWants(String title) {
    atTheBoard(
        "POST",
        "/api/boards/works/tasks",
        "{\"title\":\"%s\",\"lane\":\"wanted\",\"labels\":[\"board\"]}".formatted(title));
  }

  /** Somebody calls a task of the board, or a job of the ledger, something else. */
  void retitle(String id, String title) {
    String body = "{\"title\":\"%s\"}".formatted(title);
    if (id.startsWith("wl-")) {
      send(
          "PATCH",
          address("works-ledger") + "/api/jobs/" + id,
          body,
          Map.of("Authorization", "Bearer t", "If-Match", "*"));
    } else {
      atTheBoard("PATCH", "/api/tasks/" + id, body);
    }
  }

  /** Waits until every collection that is asked for changes was asked once. */
  void awaitAsked() {
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofMillis(200))
        .until(() -> polls().stream().noneMatch(poll -> poll.path("askedAt").asText("").isEmpty()));
  }

  /** Asks every collection for changes now. */
  void askAll() {
    for (JsonNode poll : polls()) {
      send(
          "POST",
          appAddress()
              + "/api/systems/%s/collections/%s/ask"
                  .formatted(poll.path("system").asText(), poll.path("collection").asText()),
          "",
          Map.of());
    }
  }

  /** The same, and waits until each was asked. */
  void askAllAndWait() {
    List<String> before = polls().stream().map(poll -> poll.path("askedAt").asText()).toList();
    askAll();
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofMillis(100))
        .until(
            () ->
                polls().stream()
                    .map(poll -> poll.path("askedAt").asText())
                    .noneMatch(before::contains));
  }

  private List<JsonNode> polls() {
    JsonNode polls = json("GET", appAddress() + "/api/polls", "", Map.of());
    return StreamSupport.stream(polls.spliterator(), false).toList();
  }

  void clearFaults() {
    send("DELETE", deskAddress() + "/control/faults", "", Map.of());
    send("DELETE", boardAddress() + "/control/faults", "", Map.of());
    send("DELETE", friendsAddress() + "/control/faults", "", Map.of());
    for (String other : List.of("works-ledger", "climate-desk", "leaf-library")) {
      send("DELETE", address(other) + "/control/faults", "", Map.of());
    }
  }

  /** Every task as the board wrote it down, the newest state of each. */
  List<JsonNode> tasks() {
    return records("grounds-board");
  }

  /** Every record as a stand-in wrote it down, the newest state of each. */
  List<JsonNode> records(String standIn) {
    Map<String, JsonNode> newest = new java.util.LinkedHashMap<>();
    try {
      Path file = kept("standins/" + standIn + ".ndjson");
      if (Files.exists(file)) {
        for (String line : Files.readAllLines(file)) {
          JsonNode task = read(line);
          if (task.path("removed").asBoolean()) {
            newest.remove(task.path("id").asText());
          } else {
            newest.put(task.path("id").asText(), task);
          }
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return List.copyOf(newest.values());
  }

  List<JsonNode> tasksOf(String number) {
    return tasks().stream()
        .filter(task -> task.path("notes").asText().contains("Report " + number + ","))
        .toList();
  }

  List<JsonNode> tracesOf(String number) {
    JsonNode found = json("GET", appAddress() + "/api/traces?text=" + number, "", Map.of());
    return StreamSupport.stream(found.path("traces").spliterator(), false)
        .filter(trace -> trace.path("record").asText().equals(number))
        .toList();
  }

  void awaitVerdict(String number, String verdict) {
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofMillis(100))
        .untilAsserted(
            () ->
                assertThat(tracesOf(number))
                    .as("traces of report " + number)
                    .anyMatch(trace -> trace.path("verdict").asText().equals(verdict)));
  }

  /** Waits for the newest trace of a report. */
  void awaitNewest(String number, String verdict) {
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofMillis(100))
        .until(() -> tracesOf(number).getFirst().path("verdict").asText().equals(verdict));
  }

  /** Whether nobody knows what became of a record, and a person is asked to look. */
  /** Waits until the task of a report is taken away. */
  void awaitNoTaskOf(String number) {
    await().atMost(Duration.ofSeconds(30)).until(() -> tasksOf(number).isEmpty());
  }

  boolean isAskedOfAPerson(String number) {
    return tracesOf(number).stream()
        .anyMatch(
            trace ->
                trace.path("verdict").asText().equals("FAILED")
                    && trace.path("failureKind").asText().equals("answer unknown"));
  }

  /** All that is told of a report's traces, for whoever wonders why. */
  String told(String number) {
    return number
        + tracesOf(number).stream()
            .map(trace -> trace.path("id").asText())
            .map(id -> "\n" + json("GET", appAddress() + "/api/traces/" + id, "", Map.of()))
            .collect(Collectors.joining());
  }
}
