package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What a draft that goes both ways would do to the tasks that are there. */
class PairSheetIT extends BothWaysTestBase {

  private static final String DRAFT = "/desk/drafts/" + BRIDGE;

  private static ObjectNode document() throws Exception {
    return (ObjectNode) JSON.readTree(api(DRAFT).path("document").asText());
  }

  /** Each task is read anew. */
  private static JsonNode sheet(JsonNode document) throws Exception {
    String typed =
        JSON.createObjectNode().put("document", document.toString()).put("revision", 0).toString();
    var answer =
        send(
            "POST",
            app("/api" + DRAFT + "/proof?again=true"),
            typed,
            Map.of("Content-Type", "application/json"));
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  private static JsonNode row(JsonNode sheet, String title) {
    for (JsonNode row : sheet.path("rows")) {
      if (row.path("title").asText().equals(title)) {
        return row;
      }
    }
    throw new AssertionError(title + " is not in " + sheet);
  }

  private static JsonNode cell(JsonNode sheet, JsonNode row, String field) {
    for (int i = 0; i < sheet.path("columns").size(); i++) {
      if (sheet.path("columns").path(i).path("key").asText().equals(field)) {
        return row.path("cells").path(i);
      }
    }
    throw new AssertionError(field + " is not in " + sheet.path("columns"));
  }

  @Test
  void pairsOfWhichNothingChangedAgreeAndStandOnce() throws Exception {
    pairedTask("Coil the hoses");
    JsonNode sheet = sheet(document());
    assertThat(sheet.path("sides").toString()).isEqualTo("[\"Grounds Board\",\"Works Ledger\"]");
    JsonNode row = row(sheet, "Coil the hoses");
    assertThat(row.path("verdict").asText()).isEqualTo("unchanged");
    assertThat(row.path("liveVerdict").isNull()).isTrue();
    assertThat(cell(sheet, row, "title").path("odd").asText()).isEqualTo("NO");
    assertThat(sheet.path("rows").findValuesAsText("title"))
        .filteredOn("Coil the hoses"::equals)
        .hasSize(1);
  }

  @Test
  void whatADraftWouldWriteStandsBesideWhatTheLiveVersionWould() throws Exception {
    String task = pairedTask("Oil the gate");
    String job = jobIdOf(task);
    held("PUT", "{\"because\":\"Looking at it first\"}");
    try {
      changeTask(task, "{\"title\":\"Oil the lychgate\",\"lane\":\"finished\"}");
      JsonNode sheet = sheet(document());
      JsonNode row = row(sheet, "Oil the lychgate");
      assertThat(row.path("verdict").asText()).isEqualTo("update");
      assertThat(cell(sheet, row, "title").path("odd").asText()).isEqualTo("TO_RIGHT");
      assertThat(cell(sheet, row, "title").path("text").asText())
          .isEqualTo("Oil the gate → Oil the lychgate");
      assertThat(cell(sheet, row, "status").path("text").asText()).isEqualTo("In work → Done");

      ObjectNode document = document();
      ((ObjectNode) document.at("/fields/title")).put("direction", "to-left").remove("to-right");
      sheet = sheet(document);
      JsonNode title = cell(sheet, row(sheet, "Oil the lychgate"), "title");
      assertThat(title.path("odd").asText()).isEqualTo("STAYS");
      assertThat(title.path("live").asText())
          .isEqualTo("written to Works Ledger: Oil the gate → Oil the lychgate");
      assertThat(job(job).path("title").asText()).as("only a sheet").isEqualTo("Oil the gate");
    } finally {
      held("DELETE", "");
    }
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Oil the lychgate");
  }

  @Test
  void rowIsPinnedWithBothTasksAsTheyAreAndHeldAgainstADraft() throws Exception {
    pairedTask("Hang the bunting");
    JsonNode row = row(sheet(document()), "Hang the bunting");
    String wish =
        JSON.createObjectNode()
            .put("document", document().toString())
            .put("sample", row.path("id").asText())
            .put("name", "bunting")
            .toString();
    assertThat(sent(DRAFT + "/examples", wish).statusCode()).isEqualTo(204);
    assertThat(checked(document(), "bunting")).isEmpty();

    ObjectNode document = document();
    ((ObjectNode) document.at("/fields")).remove("labels");
    assertThat(checked(document, "bunting").toString()).contains("labels");

    for (JsonNode example : examples(document())) {
      send(
          "DELETE", app("/api" + DRAFT + "/examples/" + example.path("id").asText()), "", Map.of());
    }
  }

  /** To go live is reckoned without a call: what it would read is what it will read. */
  @Test
  void whatItAsksOfBothSystemsIsReckonedFromTheEventsOfBothSides() throws Exception {
    String task = pairedTask("Grease the winch");
    changeJob(jobIdOf(task), "{\"description\":\"With the blue tin\"}");
    quiet();
    JsonNode going = going(document());
    assertThat(going.path("loads").findValuesAsText("system"))
        .containsExactlyInAnyOrder("Grounds Board", "Works Ledger");
    assertThat(going.path("events").asInt()).isGreaterThan(2);
    assertThat(going.path("asked").path("system").asText()).isEqualTo("Works Ledger");
    assertThat(going.path("changes")).isEmpty();
    for (JsonNode limit : going.at("/ceiling/limits")) {
      boolean message = limit.path("kind").asText().equals("MESSAGE");
      assertThat(limit.path("times").asInt()).as(limit.toString()).matches(n -> message || n > 0);
    }

    ObjectNode document = document();
    ((ObjectNode) document.at("/fields/due")).put("both-changed", "right-wins");
    ((ObjectNode) document.at("/between/left")).put("if-gone", "delete");
    JsonNode changes = going(document).path("changes");
    assertThat(changes.findValuesAsText("part")).containsExactly("Left", "due");
    assertThat(changes.toString())
        .contains(
            "once one is gone, the other is deleted",
            "where both changed it, Works Ledger is right");
  }

  private static java.net.http.HttpResponse<String> sent(String path, String body)
      throws Exception {
    return send("POST", app("/api" + path), body, Map.of("Content-Type", "application/json"));
  }

  private static JsonNode examples(JsonNode document) throws Exception {
    return going(document).path("examples");
  }

  private static JsonNode going(JsonNode document) throws Exception {
    String typed =
        JSON.createObjectNode().put("document", document.toString()).put("revision", 0).toString();
    var answer = sent(DRAFT + "/going", typed);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  /** In what an example is not as expected. */
  private static JsonNode checked(JsonNode document, String name) throws Exception {
    for (JsonNode example : examples(document)) {
      if (example.path("name").asText().equals(name)) {
        return example.path("differences");
      }
    }
    throw new AssertionError(name + " is not pinned");
  }

  private static void held(String how, String body) throws Exception {
    var answer =
        send(
            how,
            app("/api/bridges/" + BRIDGE + "/hold"),
            body,
            Map.of("Content-Type", "application/json"));
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  @Test
  void taskThatIsNotAcrossYetStandsWithWhatItWouldBecome() throws Exception {
    String job =
        makeJob("{\"title\":\"Clean the cistern\",\"labels\":[\"later\"]}").path("id").asText();
    quiet();
    JsonNode sheet = sheet(document());
    assertThat(row(sheet, "Clean the cistern").path("verdict").asText()).isEqualTo("passed by");

    ObjectNode document = document();
    ((ObjectNode) document.at("/between/right")).remove("when");
    sheet = sheet(document);
    JsonNode row = row(sheet, "Clean the cistern");
    assertThat(row.path("verdict").asText()).isEqualTo("create");
    assertThat(row.path("liveVerdict").asText()).isEqualTo("passed by");
    assertThat(cell(sheet, row, "title").path("text").asText()).isEqualTo("Clean the cistern");
    assertThat(job(job).has("link")).isFalse();
  }
}
