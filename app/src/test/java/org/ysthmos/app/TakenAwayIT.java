package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A task whose other one somebody removed goes as well, where the bridge says so. */
class TakenAwayIT extends BothWaysTestBase {

  @BeforeEach
  void jobsGoWithTheirTasks() throws Exception {
    goLive(demoDocument().replace("if-gone: part", "if-gone: delete"));
  }

  @AfterEach
  void asTheDemoSays() throws Exception {
    goLive(demoDocument());
    send("DELETE", "http://127.0.0.1:" + LEDGER.port() + "/control/faults", "", Map.of());
  }

  private static boolean isThere(String job) throws Exception {
    return job(job).has("id");
  }

  private static String parted(String task) {
    return api("/kept-pairs?id=" + task).path(0).path("parted").asText();
  }

  private static JsonNode traceOf(String task) {
    return traces().stream()
        .filter(one -> one.path("record").asText().equals(task))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void jobGoesWithItsTaskAndTheTraceSaysSo() throws Exception {
    String task = pairedTask("Burn the brash");
    String job = jobIdOf(task);
    board("DELETE", "/api/tasks/" + task, "");
    quiet();
    assertThat(isThere(job)).isFalse();
    assertThat(parted(task)).contains("was removed");
    JsonNode trace = traceOf(task);
    assertThat(trace.path("verdict").asText()).isEqualTo("UPDATE");
    assertThat(story(trace).toString()).contains("Took the task away", "If-Match");
  }

  /** What somebody entered and the board never had would be lost. */
  @Test
  void jobThatSaysMoreThanItsTaskDidStaysAndAPersonIsAsked() throws Exception {
    String task = pairedTask("Stack the logs");
    String job = jobIdOf(task);
    changeJob(job, "{\"title\":\"Stack the logs under the lean-to\"}");
    board("DELETE", "/api/tasks/" + task, "");
    await()
        .atMost(Duration.ofSeconds(20))
        .until(() -> traceOf(task).path("verdict").asText().equals("FAILED"));
    assertThat(traceOf(task).path("reason").asText()).contains("was entered on the other");
    assertThat(isThere(job)).isTrue();
    assertThat(parted(task)).isEmpty();

    part(task);
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Stack the logs under the lean-to");
  }

  private static void part(String task) throws Exception {
    String key = api("/kept-pairs?id=" + task).path(0).path("key").asText();
    var answer =
        send("POST", app("/api/kept-pairs/%s/%s/part".formatted(BRIDGE, key)), "", Map.of());
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  /** A person puts the right in order and sends again; nothing was parted meanwhile. */
  @Test
  void removalThatWasRefusedIsMadeUpFor() throws Exception {
    String task = pairedTask("Sweep the yard");
    String job = jobIdOf(task);
    fault(LEDGER.port(), "forbidden", "DELETE", "/api/jobs", 1);
    board("DELETE", "/api/tasks/" + task, "");
    quiet();
    JsonNode trace = traceOf(task);
    assertThat(trace.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(isThere(job)).isTrue();
    assertThat(parted(task)).isEmpty();

    resend(trace);
    quiet();
    assertThat(isThere(job)).isFalse();
    assertThat(parted(task)).contains("was removed");
  }
}
