package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;

/** Tasks of the works board and jobs of the ledger that the demo's bridge keeps alike. */
abstract class BothWaysTestBase extends AppTestBase {

  static final String BRIDGE = "works-both-ways";

  /** Waits are of as many events as these tests make. */
  private static final Duration LONGEST = Duration.ofSeconds(40);

  @BeforeEach
  void allThatCameBeforeIsAskedFor() throws Exception {
    quiet();
  }

  static JsonNode task(String id) throws Exception {
    return board("GET", "/api/tasks/" + id, "");
  }

  static JsonNode changeTask(String id, String fields) throws Exception {
    return board("PATCH", "/api/tasks/" + id, fields);
  }

  static JsonNode makeTask(String fields) throws Exception {
    return board("POST", "/api/boards/works/tasks", fields);
  }

  static JsonNode ledger(String method, String path, String body, Map<String, String> headers)
      throws Exception {
    Map<String, String> all = new java.util.HashMap<>(headers);
    all.put("Authorization", "Bearer ledger");
    String answer = send(method, "http://127.0.0.1:" + LEDGER.port() + path, body, all).body();
    return JSON.readTree(answer.isEmpty() ? "{}" : answer);
  }

  static JsonNode job(String id) throws Exception {
    return ledger("GET", "/api/jobs/" + id, "", Map.of());
  }

  /** Somebody changes a job, whatever anybody else did to it. */
  static JsonNode changeJob(String id, String fields) throws Exception {
    return ledger("PATCH", "/api/jobs/" + id, fields, Map.of("If-Match", "*"));
  }

  static JsonNode makeJob(String fields) throws Exception {
    return ledger("POST", "/api/jobs", fields, Map.of());
  }

  /**
   * The traces of the bridge, the newest first. One that came while another test had set the clock
   * ahead is none of them: it would be the newest for a day.
   */
  static List<JsonNode> traces() {
    Instant soon = Instant.now().plusSeconds(60);
    return api("/traces?bridge=" + BRIDGE)
        .path("traces")
        .valueStream()
        .filter(trace -> Instant.parse(trace.path("receivedAt").asText()).isBefore(soon))
        .toList();
  }

  /** Their ids. */
  static Set<String> tracesSoFar() {
    return traces().stream().map(one -> one.path("id").asText()).collect(Collectors.toSet());
  }

  /**
   * Those that came since, the newest first. They are told by their ids, as one that came while
   * another test had the clock ahead stays the newest.
   */
  static List<JsonNode> tracesSince(Set<String> before) {
    return traces().stream().filter(one -> !before.contains(one.path("id").asText())).toList();
  }

  /** Asks the ledger what changed and waits until nothing is under way, until nothing comes. */
  static void quiet() throws Exception {
    String before;
    String now = "";
    do {
      before = now;
      String asked = askedAt();
      send("POST", app("/api/systems/works-ledger/collections/jobs/ask"), "", Map.of());
      await()
          .atMost(LONGEST)
          .pollInterval(Duration.ofMillis(40))
          .until(() -> !askedAt().equals(asked));
      await()
          .atMost(LONGEST)
          .pollInterval(Duration.ofMillis(40))
          .until(
              () ->
                  traces().stream()
                      .noneMatch(one -> one.path("verdict").asText().equals("WAITING")));
      now = traces().toString();
    } while (!now.equals(before));
  }

  private static String askedAt() {
    for (JsonNode poll : api("/polls")) {
      if (poll.path("system").asText().equals("works-ledger")) {
        return poll.path("askedAt").asText();
      }
    }
    return "";
  }

  /** The job that stands for a task; what is looked for is its title at the start. */
  static Optional<JsonNode> jobOf(String task) throws Exception {
    for (JsonNode pair : api("/pairs?id=" + task)) {
      String record = pair.path("task").asText();
      if (record.startsWith("wl-")) {
        return Optional.of(job(record));
      }
    }
    return Optional.empty();
  }

  static String jobIdOf(String task) throws Exception {
    return jobOf(task).orElseThrow().path("id").asText();
  }

  /** A task of the board that is being done, and that is across by now. */
  static String pairedTask(String title) throws Exception {
    String task =
        makeTask("{\"title\":\"%s\",\"lane\":\"doing\",\"labels\":[\"board\"]}".formatted(title))
            .path("id")
            .asText();
    quiet();
    return task;
  }

  /** The demo's bridge, as its document says it. */
  static String demoDocument() throws Exception {
    return Files.readString(SETUP.resolve("bridges").resolve(BRIDGE + ".yaml"));
  }

  static void goLive(String document) throws Exception {
    var put = putBridge(BRIDGE, document);
    assertThat(put.statusCode()).as(put.body()).isBetween(200, 204);
  }

  static List<JsonNode> disagreements() {
    List<JsonNode> all = new ArrayList<>();
    api("/disagreements").path("items").forEach(all::add);
    return all;
  }

  static void answer(JsonNode disagreement, String take, String text) throws Exception {
    var answered =
        send(
            "POST",
            app("/api/disagreements/" + disagreement.path("id").asText() + "/answer"),
            JSON.createObjectNode().put("take", take).put("text", text).toString(),
            Map.of("Content-Type", "application/json"));
    assertThat(answered.statusCode()).as(answered.body()).isEqualTo(200);
  }
}
