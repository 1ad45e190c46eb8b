package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;

/** Reference tables and received events, asked by a live bridge. */
class TablesIT extends AppTestBase {

  private static final String OLD = "  assignees: { always: [bu-11] }\n";

  private static String demoBridge() throws Exception {
    return Files.readString(SETUP.resolve("bridges").resolve("hazard-to-grounds.yaml"));
  }

  private static void use(String document) throws Exception {
    var answer = putBridge(document);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
  }

  private static String assignees(String number) {
    return tasksOf(number).getFirst().path("assignees").toString();
  }

  @Test
  void ruleLooksUpATableAndItsUnknownKeysAreCollectedAndForgottenOnceAdded() throws Exception {
    use(
        demoBridge()
            .replace(
                OLD,
                """
                  assignees:
                    value: report/answers/place
                    steps: [part: { before: ",", missing: whole }, by-table: crews, in-list]
                """));
    String known = report(Map.of("place", "FERN gully, upper boardwalk"));
    settled(known, 1);
    assertThat(assignees(known)).isEqualTo("[\"bu-12\"]");
    String place = "Boat shed " + UUID.randomUUID();
    for (int i = 0; i < 2; i++) {
      String unknown = report(Map.of("place", place));
      settled(unknown, 1);
      assertThat(assignees(unknown)).isEqualTo("[\"bu-11\"]");
    }
    assertThat(unknownTimes(place)).isEqualTo(2);

    String csv = send("GET", app("/api/tables/crews/rows"), "", Map.of()).body();
    assertThat(csv).startsWith("place,crew\r\n").contains("fern gully,bu-12");
    var refused = putRows(csv + "fern gully,bu-14\r\n");
    assertThat(refused.statusCode()).isEqualTo(422);
    assertThat(refused.body()).contains("stands in line").contains("already");
    assertThat(putRows(csv + place + ",bu-14\r\n").statusCode()).isEqualTo(200);
    assertThat(unknownTimes(place)).isZero();
    String added = report(Map.of("place", place));
    settled(added, 1);
    assertThat(assignees(added)).isEqualTo("[\"bu-14\"]");
  }

  private static HttpResponse<String> putRows(String csv) throws Exception {
    return send("PUT", app("/api/tables/crews/rows"), csv, Map.of("Content-Type", "text/csv"));
  }

  private static int unknownTimes(String place) {
    for (JsonNode asked : api("/tables/crews").path("unknown")) {
      if (asked.path("keys").path(0).asText().equals(place)) {
        return asked.path("times").asInt();
      }
    }
    return 0;
  }

  @Test
  void lookupAmongReceivedEventsFindsTheEventItself() throws Exception {
    use(
        demoBridge()
            .replace(
                "when:\n",
                """
                  earlier:
                    in: visitor-desk/hazard-reports
                    from: events
                    by: { /submission: /submission }
                    several: { first-by: /type }
                when:
                """)
            .replace("  lane: { always: reported }", "  lane: { always: reported }")
            .replace("Report {/submission}", "Report {earlier/submission}"));
    String number = report(Map.of());
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void conditionOnAChangeKnowsTheEventBefore() throws Exception {
    use(
        demoBridge()
            .replace(
                "when:\n  all:\n",
                "when:\n  all:\n    - { value: /type, changed: { to: submission.changed } }\n"));
    String number = report(Map.of());
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("PASSED_BY");
    desk("PATCH", "/api/submissions/" + number, "{\"danger\":\"9\"}");
    assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("CREATE");
    desk("PATCH", "/api/submissions/" + number, "{\"danger\":\"7\"}");
    JsonNode third = settled(number, 3);
    assertThat(third.path("verdict").asText()).isEqualTo("PASSED_BY");
    assertThat(third.path("reason").asText()).contains("it stayed “submission.changed”");
  }
}
