package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Tables of statuses at the desk: what they say, and what comes of changes. */
class StatusTableIT extends AppTestBase {

  private static final String DRAFT = "/desk/drafts/works-both-ways";

  private static String document() {
    return api(DRAFT).path("document").asText();
  }

  private static JsonNode grid(String document) throws Exception {
    return post("/trial", typed(document)).path("grids").path(0);
  }

  private static String typed(String document) {
    return JSON.createObjectNode().put("document", document).put("revision", 0).toString();
  }

  private static JsonNode post(String path, String body) throws Exception {
    HttpResponse<String> answer = sent(path, body);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  private static HttpResponse<String> sent(String path, String body) throws Exception {
    return send(
        "POST", app("/api" + DRAFT + path), body, Map.of("Content-Type", "application/json"));
  }

  private static ObjectNode play(String field, String... changes) {
    ObjectNode wish =
        JSON.createObjectNode()
            .put("document", document())
            .put("field", field)
            .put("left", "wanted")
            .put("right", "open");
    for (String change : changes) {
      String[] parts = change.split(" ");
      wish.withArray("changes").addObject().put("side", parts[0]).put("status", parts[1]);
    }
    return wish;
  }

  @Test
  void statusesOfBothSidesStandWithWhatMaySurprise() throws Exception {
    JsonNode grid = grid(document());
    assertThat(grid.at("/field").asText()).isEqualTo("status");
    assertThat(grid.at("/left/of").asText()).isEqualTo("Grounds Board");
    assertThat(grid.at("/left/statuses").findValuesAsText("name"))
        .containsExactly("Wanted", "Doing", "Finished");
    assertThat(grid.at("/left/across/doing").asText()).isEqualTo("in-work");
    assertThat(grid.at("/right/across/waiting").asText()).isEqualTo("doing");
    assertThat(grid.path("findings").toString())
        .contains(
            "No change in Grounds Board ever makes a task “Planned”, “Waiting” or “Dropped” in Works Ledger.",
            "A change between “Open” and “Planned” in Works Ledger is not seen in Grounds Board, where both are “Wanted”.",
            "“Planned” in Works Ledger is lost once Grounds Board goes from “Wanted” to “Doing” and back: it is “Open” then.");
  }

  @Test
  void statusThatNobodyMapsIsTold() throws Exception {
    ObjectNode document = (ObjectNode) JSON.readTree(document());
    ((ObjectNode) document.at("/fields/status/to-left/values")).remove("dropped");
    assertThat(grid(document.toString()).path("findings").toString())
        .contains(
            "Nothing is stated for “Dropped” in Works Ledger: it changes nothing in Grounds Board.");
  }

  /** The grid stays while its last line is taken away. */
  @Test
  void emptyTableIsOne() throws Exception {
    ObjectNode document = (ObjectNode) JSON.readTree(document());
    ((ObjectNode) document.at("/fields/status/to-right/values")).removeAll();
    assertThat(grid(document.toString()).path("findings").toString())
        .contains("Nothing is stated for “Wanted”, “Doing” and “Finished” in Grounds Board");
  }

  @Test
  void changesArePlayedThroughAsTheMergeWouldCarryThem() throws Exception {
    JsonNode played =
        post("/played", play("status", "RIGHT planned", "LEFT doing", "LEFT wanted").toString());
    assertThat(played.findValuesAsText("right")).containsExactly("Planned", "In work", "Open");
    assertThat(played.findValuesAsText("left")).containsExactly("Wanted", "Doing", "Wanted");
    assertThat(played.findValuesAsText("words"))
        .containsExactly(
            "Nothing is written: the two stand for each other",
            "Works Ledger is set to “In work”",
            "Works Ledger is set to “Open”");
  }

  @Test
  void whatIsNoStatusIsRefusedWithThoseThatAre() throws Exception {
    HttpResponse<String> refused = sent("/played", play("status", "RIGHT plannd").toString());
    assertThat(refused.statusCode()).isEqualTo(422);
    assertThat(refused.body()).contains("Works Ledger", "did you mean “planned”?");
    assertThat(sent("/played", play("title", "RIGHT planned").toString()).statusCode())
        .isEqualTo(404);
  }
}
