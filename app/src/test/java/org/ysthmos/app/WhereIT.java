package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URLEncoder;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Why is there no task for this? Asked of reports that came, were passed by, and were lost. */
class WhereIT extends AppTestBase {

  private static final String BRIDGE = "hazard-to-grounds";

  private static JsonNode find(String text, boolean ask) {
    String wanted = URLEncoder.encode(text, StandardCharsets.UTF_8);
    return api("/where?ask=" + ask + "&text=" + wanted).path("records");
  }

  private static List<String> records(JsonNode found) {
    return found
        .valueStream()
        .filter(one -> one.path("collection").asText().equals("hazard-reports"))
        .map(one -> one.path("record").asText())
        .toList();
  }

  private static JsonNode where(String report) {
    return api("/where/record?system=visitor-desk&collection=hazard-reports&record=" + report);
  }

  private static HttpResponse<String> fetch(String report) throws Exception {
    ObjectNode wish =
        JSON.createObjectNode()
            .put("system", "visitor-desk")
            .put("collection", "hazard-reports")
            .put("record", report);
    return send(
        "POST",
        app("/api/where/fetch"),
        wish.toString(),
        Map.of("Content-Type", "application/json"));
  }

  private static JsonNode hearing(JsonNode where) {
    return where
        .path("bridges")
        .valueStream()
        .filter(bridge -> bridge.path("id").asText().equals(BRIDGE))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void ofOneThatCameBothSidesAreAskedWhicheverIsKnown() throws Exception {
    String report = report(Map.of("place", "Where the herons stand"));
    settled(report, 1);
    JsonNode where = where(report);
    assertThat(where.at("/source/state").asText()).isEqualTo("THERE");
    assertThat(where.at("/source/fields").toString()).contains("Where the herons stand");
    assertThat(where.at("/events/0/origin").asText()).isEqualTo("TOLD");
    assertThat(hearing(where).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(hearing(where).path("now").asText()).isEqualTo("CARRIES");
    JsonNode task = where.at("/tasks/0");
    assertThat(task.at("/now/state").asText()).isEqualTo("THERE");
    // Choices and people stand there by their names, not by the keys of their system.
    assertThat(task.at("/now/fields").toString())
        .contains("Where the herons stand", "Paths crew")
        .doesNotContain("bu-11");

    String id = tasksOf(report).getFirst().path("id").asText();
    assertThat(task.path("task").asText()).isEqualTo(id);
    String page = task.at("/now/page").asText();
    assertThat(page).startsWith("http://");
    for (String known : List.of(report, id, page)) {
      assertThat(records(find(known, false))).as(known).contains(report);
    }
    JsonNode found = find("Where the herons stand", false);
    assertThat(records(found)).contains(report);
    assertThat(found.findValuesAsText("title"))
        .anySatisfy(title -> assertThat(title).startsWith("Where the herons stand"));
    assertThat(fetch(report).statusCode()).isIn(200, 409);
  }

  @Test
  void ofManyThatMayBeMeantTheNewestAreToldAndThatThereAreMore() throws Exception {
    List<String> reports = new ArrayList<>();
    for (int i = 0; i < 13; i++) {
      reports.add(report(Map.of("place", "Otterslide " + i)));
      settled(reports.getLast(), 1);
    }
    JsonNode found = api("/where?text=Otterslide");
    assertThat(records(found.path("records"))).isEqualTo(reports.reversed().subList(0, 12));
    assertThat(found.path("more").asBoolean()).isTrue();
    assertThat(api("/where?text=" + reports.getFirst()).path("more").asBoolean()).isFalse();
  }

  @Test
  void ofOneThatWasPassedByItsConditionsSayWhyThenAndNow() throws Exception {
    String report = report(Map.of("danger", "1"));
    settled(report, 1);
    JsonNode where = where(report);
    assertThat(where.path("tasks")).isEmpty();
    assertThat(hearing(where).path("verdict").asText()).isEqualTo("PASSED_BY");
    assertThat(hearing(where).path("reason").asText()).contains("how dangerous");
    assertThat(hearing(where).path("now").asText()).isEqualTo("PASSES_BY");
    assertThat(hearing(where).path("because").asText()).contains("how dangerous");

    // Mended at its source, its conditions would let it pass now, whatever they said then.
    desk("PATCH", "/api/submissions/" + report, "{\"danger\":\"7\"}");
    assertThat(hearing(where(report)).path("now").asText()).isEqualTo("CARRIES");
    settled(report, 2);
  }

  @Test
  void ofOneWhoseWebhookWasLostItsSourceIsAskedAndItIsTakenInOnce() throws Exception {
    fault(DESK.port(), "hook-lost", "", "", 1);
    String report = report(Map.of("place", "Behind the boathouse"));
    assertThat(find(report, false)).isEmpty();
    JsonNode asked = find(report, true);
    assertThat(records(asked)).containsExactly(report);
    assertThat(asked.at("/0/title").asText()).as("nothing of it came").isEmpty();
    JsonNode where = where(report);
    assertThat(where.path("events")).isEmpty();
    assertThat(where.at("/source/state").asText()).isEqualTo("THERE");
    assertThat(where.path("tells").asBoolean()).isTrue();
    assertThat(hearing(where).path("trace").isNull()).isTrue();
    assertThat(hearing(where).path("now").asText()).isEqualTo("CARRIES");
    assertThat(where.path("fetchable").asBoolean()).isTrue();

    HttpResponse<String> fetched = fetch(report);
    assertThat(fetched.statusCode()).as(fetched.body()).isEqualTo(200);
    assertThat(JSON.readTree(fetched.body()).path("bridges").asInt()).isPositive();
    settled(report, 1);
    assertThat(tasksOf(report)).hasSize(1);
    assertThat(where(report).at("/tasks/0/now/state").asText()).isEqualTo("THERE");
    assertThat(fetch(report).statusCode()).isEqualTo(409);
    assertThat(tasksOf(report)).hasSize(1);
  }

  @Test
  void aSourceThatDoesNotAnswerIsNotTakenForOneThatDoesNotHaveIt() throws Exception {
    fault(DESK.port(), "error", "GET", "/api/submissions", 1);
    JsonNode found = api("/where?ask=true&text=vd-999998");
    assertThat(found.path("records")).isEmpty();
    assertThat(found.path("silent").toString()).contains("Hazard reports of Visitor Desk");
    assertThat(api("/where?ask=true&text=vd-999998").path("silent")).isEmpty();
  }

  @Test
  void whatIsNowhereIsSaidToBeNowhere() throws Exception {
    assertThat(find("vd-999999", false)).isEmpty();
    assertThat(find("vd-999999", true)).isEmpty();
    assertThat(find("two words", true)).isEmpty();
    assertThat(find("{x}<y>", true)).isEmpty();
    assertThat(find("https://elsewhere.example/1", false)).isEmpty();
    JsonNode where = where("vd-999999");
    assertThat(where.at("/source/state").asText()).isEqualTo("NOT_THERE");
    assertThat(where.path("fetchable").asBoolean()).isFalse();
    assertThat(hearing(where).path("now").asText()).isEqualTo("NOTHING");
    assertThat(fetch("vd-999999").body()).contains("Its source does not have it.");
    assertThat(
            send("GET", app("/api/where/record?system=none&collection=x&record=1"), "", Map.of())
                .statusCode())
        .isEqualTo(404);
    assertThat(fetch("x".repeat(600)).statusCode()).isEqualTo(422);
  }
}
