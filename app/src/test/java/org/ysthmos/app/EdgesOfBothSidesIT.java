package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.List;
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
    renamed("", "", "due:deadline");
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

  /** A task whose job was made, in an answer that does not say what it is called. */
  private static String made(String title) throws Exception {
    renamed("POST", "/api/jobs", "id:number");
    String task =
        makeTask("{\"title\":\"%s\",\"lane\":\"wanted\",\"labels\":[\"board\"]}".formatted(title))
            .path("id")
            .asText();
    await()
        .atMost(Duration.ofSeconds(30))
        .untilAsserted(
            () ->
                assertThat(ofRecord(task))
                    .hasSize(1)
                    .first()
                    .asString()
                    .contains("In the answer of Works Ledger no id stands at"));
    send("DELETE", "http://127.0.0.1:" + LEDGER.port() + "/control/faults", "", Map.of());
    return task;
  }

  private static List<JsonNode> ofRecord(String record) {
    return traces().stream().filter(one -> one.path("record").asText().equals(record)).toList();
  }

  private static List<String> tasksCalled(String title) throws Exception {
    return board("GET", "/api/boards/works/tasks", "")
        .path("items")
        .valueStream()
        .filter(one -> one.path("title").asText().equals(title))
        .map(one -> one.path("id").asText())
        .toList();
  }

  /**
   * What was made is known by what it holds; taken for a new one it would be made a second time.
   */
  @Test
  void jobWhoseIdNoAnswerSaidIsKnownWhenTheLedgerTellsOfIt() throws Exception {
    String task = made("Whitewash the boathouse");
    quiet();
    assertThat(tasksCalled("Whitewash the boathouse")).containsExactly(task);
    String job = jobIdOf(task);
    changeJob(job, "{\"status\":\"done\"}");
    quiet();
    assertThat(task(task).path("lane").asText()).isEqualTo("finished");
    // Whoever sends again what failed makes nothing.
    resend(ofRecord(task).getLast());
    quiet();
    assertThat(jobIdOf(task)).isEqualTo(job);
    assertThat(ofRecord(task).getFirst().path("verdict").asText()).isEqualTo("UNCHANGED");
    assertThat(tasksCalled("Whitewash the boathouse")).containsExactly(task);
  }

  /** Somebody made another of it before it was told, so that it stands for a task of its own. */
  @Test
  void jobThatIsInAPairAlreadyIsNamedWhereItIsFoundAgain() throws Exception {
    String task = made("Oil the gate of the orchard");
    JsonNode job =
        jobs().stream()
            .filter(one -> one.path("title").asText().equals("Oil the gate of the orchard"))
            .findFirst()
            .orElseThrow();
    changeJob(job.path("id").asText(), "{\"title\":\"Oil both gates of the orchard\"}");
    quiet();
    String other = tasksCalled("Oil both gates of the orchard").getFirst();
    assertThat(jobIdOf(other)).isEqualTo(job.path("id").asText());
    resend(ofRecord(task).getFirst());
    await()
        .atMost(Duration.ofSeconds(30))
        .untilAsserted(
            () ->
                assertThat(ofRecord(task).getFirst().path("reason").asText())
                    .contains(
                        "“%s”, which is in a pair with “%s”"
                            .formatted(job.path("id").asText(), other)));
    // What is one too many goes where it stands, as other tests hold both lists against each other.
    JsonNode gone = board("DELETE", "/api/tasks/" + task, "");
    assertThat(gone).isEmpty();
    quiet();
  }

  private static void renamed(String method, String below, String field) throws Exception {
    send(
        "POST",
        "http://127.0.0.1:" + LEDGER.port() + "/control/faults",
        JSON.createObjectNode()
            .put("kind", "field-renamed")
            .put("method", method)
            .put("below", below)
            .put("calls", 1000)
            .put("field", field)
            .toString(),
        Map.of());
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
