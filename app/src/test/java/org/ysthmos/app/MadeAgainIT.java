package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A task of a pair that somebody removed is made again, where the bridge says so. */
class MadeAgainIT extends BothWaysTestBase {

  @BeforeEach
  void tasksOfTheBoardAreMadeAgain() throws Exception {
    goLive(demoDocument().replace("if-gone: part", "if-gone: make-again"));
  }

  @AfterEach
  void asTheDemoSays() throws Exception {
    goLive(demoDocument());
  }

  private static List<String> called(String title) throws Exception {
    return StreamSupport.stream(
            board("GET", "/api/boards/works/tasks", "").path("items").spliterator(), false)
        .filter(task -> task.path("title").asText().equals(title))
        .map(task -> task.path("id").asText())
        .toList();
  }

  private static String only(String title) throws Exception {
    assertThat(called(title)).hasSize(1);
    return called(title).getFirst();
  }

  private static void remove(String task) throws Exception {
    board("DELETE", "/api/tasks/" + task, "");
    quiet();
  }

  @Test
  void taskThatWasMadeHereFirstComesBackAsOftenAsItIsRemoved() throws Exception {
    String first =
        makeTask("{\"title\":\"Guard the beds\",\"lane\":\"doing\",\"labels\":[\"board\"]}")
            .path("id")
            .asText();
    quiet();
    String job = jobOf(first).orElseThrow().path("id").asText();
    remove(first);
    String second = only("Guard the beds");
    assertThat(second).isNotEqualTo(first);
    assertThat(task(second).path("lane").asText()).isEqualTo("doing");
    remove(second);
    String third = only("Guard the beds");
    assertThat(third).isNotIn(first, second);

    // It is the same pair, and goes on both ways.
    changeJob(job, "{\"status\":\"done\"}");
    changeTask(third, "{\"title\":\"Guard the seed beds\"}");
    quiet();
    assertThat(task(third).path("lane").asText()).isEqualTo("finished");
    assertThat(job(job).path("title").asText()).isEqualTo("Guard the seed beds");
    assertThat(job(job).path("link").asText()).endsWith("#" + third);
  }

  @Test
  void taskThatWasMadeOfAJobComesBackWithWhatTheJobSaysNow() throws Exception {
    String job =
        makeJob("{\"title\":\"Wind the clock\",\"labels\":[\"board\"]}").path("id").asText();
    quiet();
    remove(only("Wind the clock"));
    String again = only("Wind the clock");
    changeJob(job, "{\"title\":\"Wind the tower clock\"}");
    quiet();
    assertThat(task(again).path("title").asText()).isEqualTo("Wind the tower clock");
    JsonNode pair = api("/kept-pairs?id=" + again).path(0);
    assertThat(pair.path("right").path("record").asText()).isEqualTo(job);
    assertThat(pair.path("parted").asText()).isEmpty();
  }

  @Test
  void pairThatAPersonPartedIsNotMadeAgain() throws Exception {
    String task =
        makeTask("{\"title\":\"Rest the lawn\",\"lane\":\"wanted\",\"labels\":[\"board\"]}")
            .path("id")
            .asText();
    quiet();
    JsonNode pair = api("/kept-pairs?id=" + task).path(0);
    send(
        "POST",
        app("/api/kept-pairs/%s/%s/part".formatted(BRIDGE, pair.path("key").asText())),
        "",
        java.util.Map.of());
    remove(task);
    assertThat(called("Rest the lawn")).isEmpty();
  }
}
