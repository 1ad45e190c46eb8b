package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/**
 * How many calls a change costs that goes from one side to the other: each task is read once and
 * written once, and what comes back of our own writing costs none.
 */
class CallsForAChangeIT extends BothWaysTestBase {

  /** The calls of all traces that came after one, the first first. */
  private static List<String> callsSince(Set<String> before) {
    List<String> calls = new ArrayList<>();
    for (JsonNode trace : tracesSince(before).reversed()) {
      for (JsonNode line : story(trace).path("lines")) {
        JsonNode call = line.path("call");
        if (!call.isNull() && !call.isMissingNode()) {
          String request = call.path("request").path(0).asText();
          calls.add(request.split(" ")[0] + " " + at(request));
        }
      }
    }
    return calls;
  }

  private static String at(String request) {
    boolean board = request.contains(":" + BOARD.port());
    return (board ? "board" : "ledger") + (request.endsWith("/details") ? " details" : "");
  }

  @Test
  void eachSideIsReadOnceAndWrittenOnce() throws Exception {
    Set<String> before = tracesSoFar();
    String task =
        makeTask("{\"title\":\"Sand the rail\",\"lane\":\"wanted\",\"labels\":[\"board\"]}")
            .path("id")
            .asText();
    quiet();
    assertThat(callsSince(before)).as("made").containsExactly("GET board", "POST ledger");
    String job = jobOf(task).orElseThrow().path("id").asText();

    before = tracesSoFar();
    changeTask(task, "{\"title\":\"Sand the long rail\",\"lane\":\"doing\"}");
    quiet();
    assertThat(callsSince(before))
        .as("two fields of the board")
        .containsExactly("GET board", "GET ledger", "PATCH ledger");

    before = tracesSoFar();
    changeJob(job, "{\"title\":\"Sand the whole rail\"}");
    quiet();
    assertThat(callsSince(before))
        .as("a field of the ledger")
        .containsExactly("GET ledger", "GET board", "PATCH board");

    before = tracesSoFar();
    changeJob(job, "{\"description\":\"With the fine paper\"}");
    quiet();
    assertThat(callsSince(before))
        .as("one that the board takes by a second call alone")
        .containsExactly("GET ledger", "GET board", "PUT board details");

    before = tracesSoFar();
    ledger("PATCH", "/api/jobs/" + job, "{\"askedBy\":\"x@y.example\"}", Map.of("If-Match", "*"));
    quiet();
    assertThat(callsSince(before))
        .as("what is not kept alike is only looked at")
        .containsExactly("GET ledger", "GET board");
  }
}
