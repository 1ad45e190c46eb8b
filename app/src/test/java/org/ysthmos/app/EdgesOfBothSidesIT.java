package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What people and systems do to two tasks that nobody would plan for. */
class EdgesOfBothSidesIT extends BothWaysTestBase {

  @AfterEach
  void noFaultsOfTheLedger() throws Exception {
    send("DELETE", "http://127.0.0.1:" + LEDGER.port() + "/control/faults", "", Map.of());
    send("POST", app("/api/systems/works-ledger/look"), "", Map.of());
  }

  private static String paired(String title, String more) throws Exception {
    String task =
        makeTask(
                "{\"title\":\"%s\",\"lane\":\"wanted\",\"labels\":[\"board\"]%s}"
                    .formatted(title, more))
            .path("id")
            .asText();
    quiet();
    return task;
  }

  @Test
  void whatIsUndoneRightAfterOurWriteIsUndoneOnTheOtherSideToo() throws Exception {
    String task = pairedTask("Rope off the meadow");
    String job = jobIdOf(task);
    changeTask(task, "{\"title\":\"Rope off the whole meadow\"}");
    await()
        .atMost(Duration.ofSeconds(20))
        .until(() -> job(job).path("title").asText().equals("Rope off the whole meadow"));
    changeJob(job, "{\"title\":\"Rope off the meadow\"}");
    quiet();
    assertThat(task(task).path("title").asText()).isEqualTo("Rope off the meadow");
    assertThat(disagreements()).isEmpty();
  }

  @Test
  void sidesThatWereEditedWhileOneDidNotAnswerAreBroughtTogether() throws Exception {
    String task = pairedTask("Drain the cellar");
    String job = jobIdOf(task);
    fault(LEDGER.port(), "error", "", "/api", 40);
    changeTask(task, "{\"title\":\"Drain the old cellar\",\"lane\":\"finished\"}");
    changeTask(task, "{\"labels\":[\"board\",\"water\"]}");
    await()
        .atMost(Duration.ofSeconds(20))
        .until(() -> traces().getFirst().path("tries").asInt() > 0);
    send("DELETE", "http://127.0.0.1:" + LEDGER.port() + "/control/faults", "", Map.of());
    changeJob(job, "{\"description\":\"The pump is at the glasshouse\"}");
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Drain the old cellar");
    assertThat(job(job).path("status").asText()).isEqualTo("done");
    assertThat(task(task).path("notes").asText()).isEqualTo("The pump is at the glasshouse");
    assertThat(disagreements()).isEmpty();
  }

  /** It is called otherwise over there: that empties nothing here. */
  @Test
  void fieldThatASideTellsNoMoreIsNamedAndEmptiesNothing() throws Exception {
    String due = ",\"due\":\"2026-12-04T17:00:00Z\"";
    String task = paired("Light the kiln", due);
    paired("Stack the kiln", due);
    String job = jobIdOf(task);
    send(
        "POST",
        "http://127.0.0.1:" + LEDGER.port() + "/control/faults",
        """
        {"kind":"field-renamed","method":"","below":"","calls":1000,"field":"due:deadline"}
        """,
        Map.of());
    changeJob(job, "{\"title\":\"Light the small kiln\"}");
    awaitFailure("tells no “Due” of a job any more (/due): this one had it, and so had");
    assertThat(task(task).path("due").asText()).isEqualTo("2026-12-04T17:00:00Z");
    assertThat(task(task).path("title").asText()).isEqualTo("Light the kiln");

    send("DELETE", "http://127.0.0.1:" + LEDGER.port() + "/control/faults", "", Map.of());
    resend(traces().getFirst());
    quiet();
    assertThat(task(task).path("title").asText()).isEqualTo("Light the small kiln");
    // What somebody really empties is emptied.
    changeJob(job, "{\"due\":null}");
    quiet();
    assertThat(task(task).path("due").isTextual()).isFalse();
  }

  private static void awaitFailure(String says) throws Exception {
    send("POST", app("/api/systems/works-ledger/collections/jobs/ask"), "", Map.of());
    await()
        .atMost(Duration.ofSeconds(30))
        .untilAsserted(
            () -> {
              JsonNode newest = traces().getFirst();
              assertThat(newest.path("verdict").asText()).as(newest.toString()).isEqualTo("FAILED");
              assertThat(newest.path("reason").asText()).contains(says);
            });
  }
}
