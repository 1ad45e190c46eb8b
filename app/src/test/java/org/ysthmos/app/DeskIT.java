package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;

/** The desk over its API: drafts, trials on real events, the proof sheet and going live. */
class DeskIT extends AppTestBase {

  private static final Map<String, String> JSON_BODY = Map.of("Content-Type", "application/json");

  /** The demo's pinned examples do not hold for rules that were changed on purpose. */
  static final String LIVE_WITH_NEW_RESULTS = "/drafts/hazard-to-grounds/live?acceptExamples=true";

  static HttpResponse<String> call(String method, String path, Object body) throws Exception {
    return send(method, app("/api/desk" + path), JSON.writeValueAsString(body), JSON_BODY);
  }

  static JsonNode ok(HttpResponse<String> answer) throws Exception {
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return answer.body().isEmpty() ? JSON.createObjectNode() : JSON.readTree(answer.body());
  }

  static Map<String, Object> typed(ObjectNode document, int revision) {
    return Map.of("document", document.toString(), "revision", revision);
  }

  static ObjectNode documentOf(JsonNode draft) throws Exception {
    return (ObjectNode) JSON.readTree(draft.path("document").asText());
  }

  private static JsonNode field(JsonNode trial, String key) {
    for (JsonNode field : trial.path("leaving")) {
      if (field.path("key").asText().equals(key)) {
        return field;
      }
    }
    throw new AssertionError("no field " + key);
  }

  private static JsonNode trial(ObjectNode document) throws Exception {
    return ok(call("POST", "/drafts/hazard-to-grounds/trial", typed(document, 0)));
  }

  static ObjectNode live() throws Exception {
    return documentOf(api("/desk/drafts/hazard-to-grounds"));
  }

  @Test
  void draftStartsAsTheLiveVersionAndShowsWhatItMakesOfRealEvents() throws Exception {
    String number = report(Map.of("place", "Desk of the desk", "seenOn", "23 November 2026"));
    settled(number, 1);
    JsonNode trial = trial(live());
    assertThat(trial.path("problems")).isEmpty();
    assertThat(trial.at("/samples/0/record").asText()).isEqualTo(number);
    assertThat(trial.path("verdict").asText()).isEqualTo("create");
    JsonNode due = field(trial, "due");
    assertThat(due.path("value").asText()).isEqualTo("2026-11-30T17:00:00Z");
    assertThat(due.path("steps"))
        .extracting(step -> step.path("value").asText())
        .containsExactly("2026-11-23", "2026-11-30", "2026-11-30T17:00:00Z");
    assertThat(field(trial, "lane").path("shown").asText()).isEqualTo("Reported");
    assertThat(trial.path("arriving").toString()).contains("Desk of the desk");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void ruleThatIsWrongIsNamedAtItsPlaceAndTheOthersStillShowTheirValues() throws Exception {
    settled(report(Map.of()), 1);
    ObjectNode draft = live();
    ((ArrayNode) draft.at("/fields/due/steps")).remove(2);
    JsonNode trial = trial(draft);
    JsonNode due = field(trial, "due");
    assertThat(due.path("problem").asText()).contains("say the time and the zone");
    assertThat(due.at("/steps/1/value").asText()).isEqualTo("2026-11-30");
    assertThat(field(trial, "title").path("value").asText()).isNotBlank();

    ((ArrayNode) draft.at("/fields/due/steps")).insert(0, "read-number");
    JsonNode cut = field(trial(draft), "due");
    assertThat(cut.path("problem").asText()).contains("read as a day");
    assertThat(field(trial(draft), "priority").path("value").asText()).isEqualTo("1");
    var refused = call("POST", "/drafts/hazard-to-grounds/live", typed(draft, 0));
    assertThat(refused.statusCode()).isEqualTo(422);
    call("DELETE", "/drafts/hazard-to-grounds", Map.of());
  }

  @Test
  void whatIsTypedIsKeptAndTwoPeopleGetAClearConflict() throws Exception {
    ObjectNode mine = live();
    mine.put("name", "Mine");
    JsonNode kept = ok(call("PUT", "/drafts/hazard-to-grounds", typed(mine, 0)));
    assertThat(kept.path("revision").asInt()).isEqualTo(1);
    ObjectNode theirs = mine.deepCopy();
    theirs.put("name", "Theirs");
    var conflict = call("PUT", "/drafts/hazard-to-grounds", typed(theirs, 0));
    assertThat(conflict.statusCode()).isEqualTo(409);
    assertThat(conflict.body()).contains("Someone else changed this draft");
    assertThat(live().path("name").asText()).isEqualTo("Mine");
    assertThat(send("DELETE", app("/api/desk/drafts/hazard-to-grounds"), "", Map.of()).statusCode())
        .isEqualTo(204);
    assertThat(live().path("name").asText()).isEqualTo("Hazard report");
  }

  @Test
  void proofSheetComparesWithTheLiveVersionAndGoingLiveMakesTheNextOne() throws Exception {
    settled(report(Map.of("danger", "8")), 1);
    ObjectNode draft = live();
    ((ObjectNode) draft.at("/fields/priority/steps/1/bands")).put("8..10", "2");
    JsonNode sheet = ok(call("POST", "/drafts/hazard-to-grounds/proof", typed(draft, 0)));
    int priority = -1;
    for (int i = 0; i < sheet.path("columns").size(); i++) {
      if (sheet.at("/columns/" + i + "/key").asText().equals("priority")) {
        priority = i;
      }
    }
    JsonNode cell = sheet.at("/rows/0/cells/" + priority);
    assertThat(cell.path("text").asText()).isEqualTo("2");
    assertThat(cell.path("live").asText()).isEqualTo("1");

    int version = api("/desk/drafts/hazard-to-grounds").path("liveVersion").asInt();
    ok(call("POST", LIVE_WITH_NEW_RESULTS, typed(draft, 0)));
    JsonNode after = api("/desk/drafts/hazard-to-grounds");
    assertThat(after.path("liveVersion").asInt()).isEqualTo(version + 1);
    assertThat(after.path("revision").asInt()).isZero();
    String next = report(Map.of("danger", "8"));
    settled(next, 1);
    assertThat(tasksOf(next).getFirst().path("priority").asInt()).isEqualTo(2);
  }

  @Test
  void newBridgeHasWhatIsRequiredAndItsLookupAlready() throws Exception {
    settled(report(Map.of()), 1);
    Map<String, Object> wish = wish("second-look", "");
    ObjectNode draft = documentOf(ok(call("POST", "/drafts", wish)));
    assertThat(draft.path("fields").fieldNames()).toIterable().containsExactly("title", "lane");
    assertThat(draft.at("/lookups/report/by/id").asText()).isEqualTo("/submission");
    JsonNode trial = trial(draft);
    assertThat(trial.path("samples").size()).isPositive();
    assertThat(field(trial, "title").path("problem").asText()).contains("required");
    assertThat(call("POST", "/drafts", wish).statusCode()).isEqualTo(409);
    call("DELETE", "/drafts/second-look", Map.of());
  }

  @Test
  void newBridgeMayChangeTheRecordItself() throws Exception {
    Map<String, Object> wish = new HashMap<>(wish("numbers", ""));
    wish.putAll(
        Map.of(
            "sourceSystem", "climate-desk",
            "sourceCollection", "tickets",
            "targetSystem", "",
            "targetCollection", ""));
    ObjectNode draft = documentOf(ok(call("POST", "/drafts", wish)));
    assertThat(draft.path("to").asText()).isEqualTo("record");
    draft.putObject("fields").put("job", "/ticket/id");
    JsonNode trial = ok(call("POST", "/drafts/numbers/trial", typed(draft, 0)));
    assertThat(trial.path("problems")).as(trial.path("problems").toString()).isEmpty();
    var answer = call("POST", "/drafts/numbers/tries?sample=any", typed(draft, 0));
    assertThat(answer.statusCode()).isEqualTo(409);
    assertThat(answer.body()).contains("a record that is there");
    call("DELETE", "/drafts/numbers", Map.of());
  }

  private static Map<String, Object> wish(String id, String starter) {
    return Map.of(
        "id", id,
        "name", "Second look",
        "sourceSystem", "visitor-desk",
        "sourceCollection", "hazard-reports",
        "kinds", List.of(),
        "targetSystem", "grounds-board",
        "targetCollection", "paths-and-trees",
        "starter", starter);
  }

  private static final String PLACES =
      "sourceSystem=visitor-desk&sourceCollection=hazard-reports"
          + "&targetSystem=grounds-board&targetCollection=paths-and-trees";

  /** Each starter that suits two places makes a draft that can go live as it is. */
  @TestFactory
  Stream<DynamicTest> startersThatSuitCanGoLiveAsTheyAre() {
    return StreamSupport.stream(api("/desk/starters?" + PLACES).spliterator(), false)
        .filter(starter -> starter.path("hindrance").asText().isEmpty())
        .map(starter -> starter.path("id").asText())
        .map(starter -> DynamicTest.dynamicTest(starter, () -> canGoLive(starter)));
  }

  private static void canGoLive(String starter) throws Exception {
    settled(report(Map.of()), 1);
    ObjectNode draft = documentOf(ok(call("POST", "/drafts", wish("from-starter", starter))));
    JsonNode trial = ok(call("POST", "/drafts/from-starter/trial", typed(draft, 0)));
    assertThat(trial.path("problems")).isEmpty();
    assertThat(trial.path("verdict").asText())
        .as(trial.path("because").toString())
        .isEqualTo("create");
    assertThat(trial.path("tasks").asInt()).isEqualTo(starter.equals("set") ? 3 : 1);
    call("DELETE", "/drafts/from-starter", Map.of());
  }

  @Test
  void starterThatDoesNotSuitSaysWhy() {
    String backwards =
        "sourceSystem=visitor-desk&sourceCollection=hazard-reports"
            + "&targetSystem=visitor-desk&targetCollection=hazard-reports";
    assertThat(api("/desk/starters?" + backwards).toString())
        .contains("The target keeps no person.", "The target keeps no checklist.");
  }

  @Test
  void copyIsADraftOfItsOwnUnderAnotherIdAndName() throws Exception {
    Map<String, String> wish =
        Map.of("id", "hazard-twin", "name", "Twin", "document", live().toString());
    ObjectNode twin = documentOf(ok(call("POST", "/copies", wish)));
    assertThat(twin.path("bridge").asText()).isEqualTo("hazard-twin");
    assertThat(twin.path("name").asText()).isEqualTo("Twin");
    assertThat(twin.path("fields")).isEqualTo(live().path("fields"));
    assertThat(call("POST", "/copies", wish).statusCode()).isEqualTo(409);
    assertThat(
            call("POST", "/copies", Map.of("id", "No id", "name", "", "document", "a: 1"))
                .statusCode())
        .isEqualTo(422);
    call("DELETE", "/drafts/hazard-twin", Map.of());
  }

  @Test
  void draftIsComparedWithAnEarlierVersion() throws Exception {
    ObjectNode draft = live();
    draft.put("purpose", "Something else");
    ((ObjectNode) draft.path("fields")).remove("checklist");
    int version = api("/desk/drafts/hazard-to-grounds").path("liveVersion").asInt();
    JsonNode differences =
        ok(
            call(
                "POST",
                "/versions/hazard-to-grounds/" + version + "/differences",
                typed(draft, 0)));
    assertThat(differences)
        .extracting(one -> one.path("part").asText())
        .containsExactly("Purpose", "Checklist");
    assertThat(differences.at("/1/after").asText()).isEmpty();
    assertThat(differences.at("/1/before").asText()).contains("Make the place safe");
  }

  @Test
  void draftIsReadAndWrittenAsYamlAndEarlierVersionsAreThere() throws Exception {
    ObjectNode draft = live();
    String yaml = ok(call("POST", "/document", typed(draft, 0))).path("yaml").asText();
    assertThat(yaml).startsWith("bridge: hazard-to-grounds\n").contains("- read-day: d MMMM uuuu");
    JsonNode back = ok(call("POST", "/imported", Map.of("yaml", yaml)));
    String again = ok(call("POST", "/document", typed(documentOf(back), 0))).path("yaml").asText();
    assertThat(again).isEqualTo(yaml);
    var refused = call("POST", "/imported", Map.of("yaml", "bridge: [a"));
    assertThat(refused.statusCode()).isEqualTo(422);
    JsonNode versions = api("/desk/versions/hazard-to-grounds");
    assertThat(versions.at("/0/live").asBoolean()).isTrue();
    assertThat(versions.at("/0/yaml").asText()).contains("hazard-to-grounds");
  }
}
