package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;

/** The register of all bridges: whose they are, how they do, and views by name. */
class RegisterIT extends AppTestBase {

  private static final Map<String, String> BODY = Map.of("Content-Type", "application/json");

  private static HttpResponse<String> say(String id, String owner, int basedOn) throws Exception {
    ObjectNode wish =
        JSON.createObjectNode()
            .put("owner", owner)
            .put("standIn", "")
            .put("department", "Grounds")
            .put("judged", "BEING_TESTED")
            .put("basedOn", basedOn);
    return send("PUT", app("/api/register/bridges/" + id), wish.toString(), BODY);
  }

  private static JsonNode row(String id) {
    return StreamSupport.stream(api("/register").path("rows").spliterator(), false)
        .filter(row -> row.path("id").asText().equals(id))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void bridgeStandsWithWhatItUsesAndWhoseItIs() throws Exception {
    JsonNode before = row("hazard-to-grounds");
    assertThat(before.path("systems").toString()).contains("Grounds Board", "Visitor Desk");
    assertThat(before.path("changedBy").asText()).isNotEmpty();
    int seen = before.path("revision").asInt();
    HttpResponse<String> said = say("hazard-to-grounds", " Ana Lima ", seen);
    assertThat(said.statusCode()).as(said.body()).isEqualTo(200);
    JsonNode after = row("hazard-to-grounds");
    assertThat(after.path("owner").asText()).isEqualTo("Ana Lima");
    assertThat(after.path("department").asText()).isEqualTo("Grounds");
    assertThat(after.path("judged").asText()).isEqualTo("BEING_TESTED");
    // Whoever saw it before that is told, and nothing is written over.
    assertThat(say("hazard-to-grounds", "Rui", seen).statusCode()).isEqualTo(409);
    assertThat(say("hazard-to-grounds", "Rui", seen + 1).statusCode()).isEqualTo(200);
    assertThat(say("no-such-bridge", "Rui", 0).statusCode()).isEqualTo(404);
    assertThat(say("hazard-to-grounds", "x".repeat(201), seen + 2).statusCode()).isEqualTo(422);
  }

  @Test
  void whatFailedCountsAtOnce() throws Exception {
    int failed = row("hazard-to-grounds").path("failed").asInt();
    String number = report(Map.of("seenOn", "last week"));
    settled(number, 1);
    JsonNode row = row("hazard-to-grounds");
    assertThat(row.path("failed").asInt()).isEqualTo(failed + 1);
    assertThat(row.path("measured").asText()).isIn("NEEDS_WORK", "NOT_WORKING");
    assertThat(row.path("because").asText()).contains("of the last day failed");
    assertThat(row.path("lastEvent").asText()).isNotEmpty();
  }

  @Test
  void viewIsKeptByItsNameAndReplaced() throws Exception {
    assertThat(keep("By owner", "group=owner")).isEqualTo(200);
    assertThat(keep("By owner", "group=department")).isEqualTo(200);
    assertThat(keep("Grounds/Works?", "q=works")).isEqualTo(200);
    assertThat(keep(" ", "q=works")).isEqualTo(422);
    JsonNode views = api("/register").path("views");
    assertThat(views.findValuesAsText("name"))
        .contains("Grounds/Works?")
        .containsOnlyOnce("By owner");
    assertThat(views.findValuesAsText("query")).contains("group=department");
    for (String name : List.of("By%20owner", "Grounds%2FWorks%3F")) {
      String at = app("/api/register/views?name=" + name);
      assertThat(send("DELETE", at, "", Map.of()).statusCode()).isEqualTo(200);
      assertThat(send("DELETE", at, "", Map.of()).statusCode()).isEqualTo(404);
    }
  }

  private static int keep(String name, String query) throws Exception {
    ObjectNode view = JSON.createObjectNode().put("name", name).put("query", query);
    return send("PUT", app("/api/register/views"), view.toString(), BODY).statusCode();
  }
}
