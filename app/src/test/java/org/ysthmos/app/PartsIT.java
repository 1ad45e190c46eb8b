package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;

/** Tasks that are part of others, on the works board and in the ledger. */
class PartsIT extends BothWaysTestBase {

  private static String made(String title, String parent) throws Exception {
    return makeTask(
            """
            {"title":"%s","lane":"wanted","labels":["board"]%s}
            """
                .formatted(title, parent.isEmpty() ? "" : ",\"parent\":\"" + parent + "\""))
        .path("id")
        .asText();
  }

  private static String madeJob(String title, String label, String parent) throws Exception {
    return makeJob(
            """
            {"title":"%s","labels":["%s"]%s}
            """
                .formatted(title, label, parent.isEmpty() ? "" : ",\"parent\":\"" + parent + "\""))
        .path("id")
        .asText();
  }

  private static String parentOf(String job) throws Exception {
    return job(job).path("parent").asText();
  }

  /** The task that stands for a job. */
  private static String taskOf(String job) {
    return StreamSupport.stream(api("/pairs?id=" + job).spliterator(), false)
        .map(pair -> pair.path("task").asText())
        .filter(record -> record.startsWith("gb-"))
        .findFirst()
        .orElseThrow();
  }

  private static List<JsonNode> lookedSince(Set<String> before) {
    return tracesSince(before).stream()
        .filter(one -> story(one).toString().contains("a task that it names is on the other side"))
        .toList();
  }

  @Test
  void partStandsUnderTheJobOfItsWholeAndMovesWithIt() throws Exception {
    String whole = made("Drain the lower pond", "");
    String part = made("Hire the pump", whole);
    String other = made("Plant the margin", "");
    quiet();
    String job = jobIdOf(part);
    assertThat(parentOf(job)).isEqualTo(jobIdOf(whole));

    changeJob(job, "{\"parent\":\"%s\"}".formatted(jobIdOf(other)));
    quiet();
    assertThat(task(part).path("parent").asText()).isEqualTo(other);
    changeTask(part, "{\"parent\":null}");
    quiet();
    assertThat(job(job).has("parent")).isFalse();

    Set<String> before = tracesSoFar();
    quiet();
    assertThat(tracesSince(before)).as("echoes cause nothing more").isEmpty();
    assertThat(disagreements()).isEmpty();
  }

  @Test
  void partThatCameBeforeItsWholeFollowsOnceThatIsThere() throws Exception {
    String whole = madeJob("Rebuild the jetty", "not yet", "");
    String part = madeJob("Order the piles", "board", whole);
    String second = madeJob("Book the barge", "board", whole);
    quiet();
    String task = taskOf(part);
    assertThat(task(task).has("parent")).isFalse();
    assertThat(story(makingOf(part)).toString())
        .contains("“%s” is not on the other side; it follows once that is there".formatted(whole));

    Set<String> before = tracesSoFar();
    changeJob(whole, "{\"labels\":[\"board\"]}");
    quiet();
    String wholeTask = taskOf(whole);
    assertThat(task(task).path("parent").asText()).isEqualTo(wholeTask);
    assertThat(task(taskOf(second)).path("parent").asText()).isEqualTo(wholeTask);
    assertThat(lookedSince(before)).as("one for each part").hasSize(2);
  }

  private static JsonNode makingOf(String job) {
    return traces().stream()
        .filter(one -> one.path("record").asText().equals(job))
        .filter(one -> one.path("verdict").asText().equals("CREATE"))
        .findFirst()
        .orElseThrow();
  }

  /** What was entered meanwhile goes on, and nothing is written over. */
  @Test
  void otherFieldsOfAPartThatWaitsGoOn() throws Exception {
    String whole = madeJob("Clear the culvert", "not yet", "");
    String part = madeJob("Find the key", "board", whole);
    quiet();
    String task = taskOf(part);
    changeTask(task, "{\"title\":\"Find the brass key\"}");
    quiet();
    assertThat(job(part).path("title").asText()).isEqualTo("Find the brass key");
    assertThat(parentOf(part)).isEqualTo(whole);
    assertThat(task(task).has("parent")).isFalse();
  }

  /** The whole is there once it has an id, whatever becomes of the calls that complete it. */
  @Test
  void partFollowsAWholeThatCouldNotBeCompleted() throws Exception {
    String whole = madeJob("Thin the copse", "not yet", "");
    String part = madeJob("Mark the trees", "board", whole);
    quiet();
    fault(BOARD.port(), "forbidden", "PUT", "/api/tasks", 5);
    changeJob(whole, "{\"labels\":[\"board\"],\"description\":\"Leave the oaks\"}");
    quiet();
    String wholeTask = taskOf(whole);
    assertThat(task(wholeTask).has("notes")).isFalse();
    assertThat(task(taskOf(part)).path("parent").asText()).isEqualTo(wholeTask);
    send("DELETE", "http://127.0.0.1:" + BOARD.port() + "/control/faults", "", Map.of());
  }
}
