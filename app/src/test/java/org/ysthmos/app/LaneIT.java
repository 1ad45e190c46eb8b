package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** All calls to a system keep to its limit together, and waiting for room is no failure. */
class LaneIT extends AppTestBase {

  private String before = "";

  private static void keep(String document) throws Exception {
    ObjectNode wish = JSON.createObjectNode().put("document", document);
    wish.putObject("secrets");
    var answer =
        send(
            "POST",
            app("/api/connect"),
            wish.toString(),
            Map.of("Content-Type", "application/json"));
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(204);
  }

  private void limit(String limit) throws Exception {
    before = api("/connect/systems/grounds-board").path("document").asText();
    keep(before.replace("{ calls: 90, per: PT1M }", limit));
  }

  @AfterEach
  void usualLimit() throws Exception {
    if (!before.isEmpty()) {
      keep(before);
    }
  }

  private static JsonNode boardNow() {
    for (JsonNode system : api("/systems")) {
      if (system.path("id").asText().equals("grounds-board")) {
        return system;
      }
    }
    throw new IllegalStateException("the board is not connected");
  }

  @Test
  void burstIsCarriedWithoutARefusalAndWithoutAFailedTry() throws Exception {
    limit("{ calls: 4, per: PT1S }");
    List<String> numbers = new ArrayList<>();
    for (int i = 0; i < 9; i++) {
      numbers.add(report(Map.of("place", "Lane " + i)));
    }
    for (String number : numbers) {
      JsonNode trace = settled(number, 1);
      assertThat(trace.path("verdict").asText()).isEqualTo("CREATE");
      // Nobody was asked in vain: no line tells of a refusal or of a try that failed.
      assertThat(story(trace).path("lines").toString())
          .doesNotContain("too many calls", "\"FAILED\"", "before the next try");
      assertThat(boardNow().path("usedCalls").asInt()).isLessThanOrEqualTo(4);
    }
  }

  @Test
  void systemThatIsFullKeepsNoOtherWaiting() throws Exception {
    limit("{ calls: 2, per: PT1H }");
    String first = report(Map.of("place", "The one that has room"));
    assertThat(settled(first, 1).path("verdict").asText()).isEqualTo("CREATE");
    String waits = report(Map.of("place", "The one that has none"));
    // The ledger's jobs go on meanwhile.
    String body =
        "requester=a%40b.example&subject=Cold&description=Fault+code%3A+HV-12+beside+a+full+board";
    String number =
        send("POST", "http://127.0.0.1:" + CLIMATE.port() + "/tickets", body, Map.of())
            .body()
            .replaceAll("(?s).*id=\"number\">([^<]*)<.*", "$1");
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tracesOf(waits).getFirst().path("verdict").asText()).isEqualTo("WAITING");
    // With room again it goes as if nothing had been.
    usualLimit();
    assertThat(settled(waits, 1).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(waits)).hasSize(1);
  }
}
