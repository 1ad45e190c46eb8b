package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What became of a pair, field by field and trace by trace. */
class PairHistoryIT extends BothWaysTestBase {

  private static JsonNode pairOf(String task) {
    return api("/kept-pairs?id=" + task).path(0);
  }

  private static JsonNode steps(String task, String query) {
    JsonNode pair = pairOf(task);
    return api("/kept-pairs/%s/%s/steps%s".formatted(BRIDGE, pair.path("key").asText(), query));
  }

  /** Each step in a line for each of its fields, the oldest first. */
  private static List<String> told(String task) {
    List<String> told = new ArrayList<>();
    for (JsonNode step : steps(task, "").path("steps")) {
      List<String> lines = new ArrayList<>();
      for (JsonNode field : step.path("fields")) {
        lines.add(
            "%s %s %s [%s > %s] [%s > %s]"
                .formatted(
                    field.path("field").asText(),
                    field.path("kind").asText(),
                    field.path("on").asText(),
                    field.path("left").path("before").asText(),
                    field.path("left").path("after").asText(),
                    field.path("right").path("before").asText(),
                    field.path("right").path("after").asText()));
      }
      told.addAll(0, lines);
    }
    return told;
  }

  private static String made(String title) throws Exception {
    String task =
        makeTask("{\"title\":\"%s\",\"lane\":\"wanted\",\"labels\":[\"board\"]}".formatted(title))
            .path("id")
            .asText();
    quiet();
    return task;
  }

  @Test
  void eachChangeStandsWithItsSideItsValuesAndItsTrace() throws Exception {
    String task = made("Turn the compost");
    String job = jobOf(task).orElseThrow().path("id").asText();
    changeTask(task, "{\"title\":\"Turn the old compost\",\"lane\":\"doing\"}");
    quiet();
    changeJob(job, "{\"status\":\"waiting\"}");
    quiet();
    changeTask(task, "{\"lane\":\"finished\"}");
    changeJob(job, "{\"status\":\"dropped\"}");
    quiet();
    assertThat(told(task))
        .startsWith(
            " MADE right [ > ] [ > ]",
            "Title CARRIED left [Turn the compost > Turn the old compost]"
                + " [Turn the compost > Turn the old compost]",
            "Lane CARRIED left [Wanted > Doing] [Open > In work]",
            // The board cannot say that it waits; both stand for each other as they are.
            "Lane AGREED  [Doing > Doing] [In work > Waiting]");
    JsonNode newest = steps(task, "").path("steps").path(0);
    JsonNode trace = api("/traces/" + newest.path("trace").asText());
    assertThat(trace.toString()).contains("\"" + BRIDGE + "\"");
    assertThat(newest.path("askedBy").asText()).isEmpty();
    assertThat(steps(task, "").path("before").isNull()).isTrue();

    JsonNode older = steps(task, "?before=" + newest.path("id").asText()).path("steps");
    assertThat(older.size()).isEqualTo(steps(task, "").path("steps").size() - 1);
  }

  /** What waits for a person stands once, and the answer with who gave it. */
  @Test
  void whatIsAskedStandsOnceAndItsAnswerAfterIt() throws Exception {
    String task = made("Net the pond");
    String job = jobOf(task).orElseThrow().path("id").asText();
    changeTask(task, "{\"title\":\"Net the upper pond\"}");
    changeJob(job, "{\"title\":\"Net the lower pond\"}");
    quiet();
    JsonNode pair = pairOf(task);
    String look = "/api/kept-pairs/%s/%s/look".formatted(BRIDGE, pair.path("key").asText());
    send("POST", app(look), "", java.util.Map.of());
    changeTask(task, "{\"lane\":\"doing\"}");
    quiet();
    assertThat(told(task))
        .filteredOn(line -> line.contains(" ASKED "))
        .containsExactly(
            "Title ASKED  [Net the pond > Net the upper pond]"
                + " [Net the pond > Net the lower pond]");
    answer(disagreements().getFirst(), "RIGHT", "");
    quiet();
    assertThat(told(task))
        .last()
        .isEqualTo(
            "Title CARRIED right [Net the pond > Net the lower pond]"
                + " [Net the pond > Net the lower pond]");
    assertThat(steps(task, "").path("steps").path(0).path("askedBy").asText()).isNotEmpty();
  }
}
