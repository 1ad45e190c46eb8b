package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** A system is connected from its description, call by call, without a line of code for it. */
class ConnectIT extends AppTestBase {

  private static final Map<String, String> JSON_TYPE = Map.of("Content-Type", "application/json");

  private static JsonNode post(String path, ObjectNode body, int status) throws Exception {
    var answer = send("POST", app("/api/connect" + path), body.toString(), JSON_TYPE);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(status);
    return JSON.readTree(answer.body().isEmpty() ? "{}" : answer.body());
  }

  private static String draft() throws Exception {
    ObjectNode wish = JSON.createObjectNode();
    wish.put("address", "http://127.0.0.1:" + LEDGER.port() + "/openapi.json");
    JsonNode draft = post("/drafts", wish, 200);
    assertThat(draft.path("remarks").isArray()).isTrue();
    return draft
        .path("document")
        .asText()
        .replace("system: works-ledger", "system: second-ledger")
        .replace("works-ledger-token", "second-ledger-token");
  }

  private static JsonNode attempt(String document, String token, String call, String id)
      throws Exception {
    ObjectNode wish = JSON.createObjectNode().put("document", document);
    wish.putObject("secrets").put("second-ledger-token", token);
    wish.put("collection", "jobs").put("call", call).put("id", id);
    ObjectNode fields = wish.putObject("fields");
    if (call.equals("make") || call.equals("change")) {
      fields.put("title", "A try of the connection").put("due", "2026-12-01");
    }
    return post("/trials", wish, 200);
  }

  /** A pasted description of many megabytes with 202 collections, of which one is wanted. */
  @Test
  void ofManyCollectionsAPersonChooses() throws Exception {
    StringBuilder paths = new StringBuilder();
    for (int i = 0; i < 202; i++) {
      paths.append(
          """
          %s"/things%d":{"get":{"description":"%s","responses":{"200":{"content":{"application/json":{"schema":
            {"type":"array","items":{"type":"object","properties":{"id":{"type":"string"},"f%d":{"type":"string"}}}}}}}}}}
          """
              .formatted(i == 0 ? "" : ",", i, "x".repeat(120_000), i));
    }
    ObjectNode wish = JSON.createObjectNode();
    wish.put(
        "description",
        "{\"openapi\":\"3.0.3\",\"info\":{\"title\":\"Large\"},\"paths\":{" + paths + "}}");
    JsonNode all = post("/drafts", wish, 200);
    assertThat(all.path("document").asText()).isEmpty();
    assertThat(all.path("offered")).hasSize(202);
    assertThat(all.at("/offered/7").toString())
        .isEqualTo("{\"id\":\"things7\",\"path\":\"/things7\",\"can\":\"list\"}");
    wish.putArray("collections").add("things7");
    assertThat(post("/drafts", wish, 200).path("document").asText())
        .contains("/things7")
        .doesNotContain("/things8");
  }

  /** The document says nothing of further pages, and a full page came. */
  @Test
  void fullPageIsAskedAbout() throws Exception {
    var ledger = Map.of("Authorization", "Bearer ledger");
    String jobs = "http://127.0.0.1:" + LEDGER.port() + "/api/jobs";
    for (int i = 0; i < 20; i++) {
      String job = "{\"title\":\"Page " + i + "\",\"status\":\"open\"}";
      assertThat(send("POST", jobs, job, ledger).statusCode()).isEqualTo(201);
    }
    String document =
        draft()
            .replaceAll("(GET /api/changes)[^\"\\n]*", "$1?after=0&limit=20")
            .replaceAll(
                "(?s)      next:\\n        cursor: [^\\n]*\\n        parameter: [^\\n]*\\n", "");
    assertThat(document).contains("limit=20").doesNotContain("next:");
    JsonNode asked = attempt(document, "ledger", "changes", "");
    assertThat(asked.path("said").asText())
        .as(asked.toString())
        .contains("20 jobs came. Is that all?");
  }

  @Test
  void ledgerIsDraftedTriedCallByCallAndKept() throws Exception {
    String document = draft();
    JsonNode described =
        post("/descriptions", JSON.createObjectNode().put("document", document), 200);
    assertThat(described.at("/collections/0/calls").toString())
        .isEqualTo("[\"changes\",\"find\",\"make\",\"change\",\"remove\"]");
    assertThat(described.at("/secrets/0/kept").asBoolean()).isFalse();
    JsonNode refused = attempt(document, "wrong", "changes", "");
    assertThat(refused.path("works").asBoolean()).isFalse();
    assertThat(refused.path("said").asText()).contains("401", "valid token");
    JsonNode made = attempt(document, "ledger", "make", "");
    assertThat(made.path("works").asBoolean()).as(made.toString()).isTrue();
    String id = made.path("id").asText();
    assertThat(attempt(document, "ledger", "change", id).path("works").asBoolean()).isTrue();
    JsonNode found = attempt(document, "ledger", "find", id);
    assertThat(found.path("record").asText()).contains("A try of the connection");
    assertThat(found.path("differences")).isEmpty();
    JsonNode changes = attempt(document, "ledger", "changes", "");
    assertThat(changes.path("works").asBoolean()).isTrue();
    assertThat(changes.path("calls").toString())
        .contains("••••••••")
        .doesNotContain("Bearer ledger");
    JsonNode removed = attempt(document, "ledger", "remove", id);
    assertThat(removed.path("said").asText()).contains("is not there any more");
    ObjectNode keep = JSON.createObjectNode().put("document", document);
    keep.putObject("secrets").put("second-ledger-token", "ledger");
    post("", keep, 204);
    JsonNode look =
        JSON.readTree(send("POST", app("/api/systems/second-ledger/look"), "", Map.of()).body());
    assertThat(look.at("/collections/0/problem").asText()).isEmpty();
    assertThat(api("/connect/systems/second-ledger").path("document").asText()).isEqualTo(document);
  }

  @Test
  void fieldThatIsRenamedIsNamedWithWhatItIsCalledNow() throws Exception {
    String document = draft();
    String id = attempt(document, "ledger", "make", "").path("id").asText();
    var renamed =
        send(
            "POST",
            "http://127.0.0.1:" + LEDGER.port() + "/control/faults",
            "{\"kind\":\"field-renamed\",\"method\":\"GET\",\"below\":\"/api\",\"calls\":1,\"field\":\"status:state\"}",
            Map.of());
    assertThat(renamed.statusCode()).isEqualTo(204);
    JsonNode found = attempt(document, "ledger", "find", id);
    assertThat(found.path("differences").toString())
        .contains("No record has the field status (/status); perhaps it is called /state");
    attempt(document, "ledger", "remove", id);
  }

  @Test
  void documentThatALiveBridgeCannotWorkWithIsNotKept() throws Exception {
    String document = api("/connect/systems/visitor-desk").path("document").asText();
    ObjectNode keep =
        JSON.createObjectNode()
            .put("document", document.replace("/answers/danger:", "/answers/risk:"));
    keep.putObject("secrets");
    JsonNode problem = post("", keep, 409);
    assertThat(problem.path("detail").asText()).contains("Hazard report", "answers/danger");
    assertThat(api("/connect/systems/visitor-desk").path("document").asText()).isEqualTo(document);
  }

  @Test
  void whatCannotBeDraftedIsRefusedInWords() throws Exception {
    ObjectNode nowhere = JSON.createObjectNode().put("address", "http://127.0.0.1:1/openapi.json");
    assertThat(post("/drafts", nowhere, 422).path("detail").asText()).contains("cannot be reached");
    ObjectNode link = JSON.createObjectNode().put("address", "http://169.254.169.254/openapi.json");
    assertThat(post("/drafts", link, 422).path("detail").asText()).contains("none of a system");
    ObjectNode other = JSON.createObjectNode().put("description", "just words");
    assertThat(post("/drafts", other, 422).path("detail").asText())
        .contains("no OpenAPI description");
    ObjectNode broken = JSON.createObjectNode().put("document", "system: x\naddress: nowhere");
    assertThat(post("/descriptions", broken, 422).path("detail").asText()).contains("line 2");
  }

  private static JsonNode faults(String method, String body) throws Exception {
    var answer = send(method, app("/api/systems/works-ledger/faults"), body, JSON_TYPE);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  private static JsonNode lookAtLedger() throws Exception {
    var answer = send("POST", app("/api/systems/works-ledger/look"), "", Map.of());
    return JSON.readTree(answer.body()).at("/collections/0");
  }

  @Test
  void faultIsSwitchedOnForPracticeSeenAndSwitchedOff() throws Exception {
    assertThat(lookAtLedger().path("problem").asText()).isEmpty();
    JsonNode on = faults("POST", "{\"kind\":\"token-expired\",\"calls\":50,\"field\":\"\"}");
    assertThat(on.toString()).contains("\"kind\":\"token-expired\"").contains("\"calls\":50");
    assertThat(lookAtLedger().path("problem").asText()).contains("valid token");
    assertThat(faults("DELETE", "").toString()).doesNotContain("\"on\":true");
    assertThat(lookAtLedger().path("problem").asText()).isEmpty();
    JsonNode timed = faults("POST", "{\"kind\":\"slow\",\"minutes\":5,\"field\":\"\"}");
    assertThat(timed.findValues("until").toString()).contains("20");
    JsonNode shared = faults("POST", "{\"kind\":\"error\",\"share\":20,\"field\":\"\"}");
    assertThat(shared.findValues("share").toString()).contains("20");
    assertThat(faults("DELETE", "").toString()).doesNotContain("\"on\":true");
    var earnest = send("GET", app("/api/systems/visitor-desk/faults"), "", Map.of());
    assertThat(earnest.statusCode()).isEqualTo(404);
  }

  @Test
  void fieldThatWasThereAndIsNotAnyMoreIsNamedWithTheBridgesThatReadIt() throws Exception {
    String document = draft();
    String id = attempt(document, "ledger", "make", "").path("id").asText();
    assertThat(lookAtLedger().path("changes")).isEmpty();
    JsonNode unused =
        faults("POST", "{\"kind\":\"field-renamed\",\"calls\":1,\"field\":\"status:state\"}");
    JsonNode change = lookAtLedger().at("/changes/0");
    assertThat(change.path("text").asText()).contains("status", "perhaps it is called /state");
    assertThat(change.path("bridges").toString())
        .contains("Job done, to the channel", "Job done, to whoever asked");
    attempt(document, "ledger", "remove", id);
  }

  private static int upload(String system, String name, String text) throws Exception {
    return send(
            "PUT",
            app("/api/systems/" + system + "/files/" + name),
            text,
            Map.of("Content-Type", "text/csv"))
        .statusCode();
  }

  /** What a letter is made with is a list; a try of it could never be made before. */
  @Test
  void letterIsTriedWithAListAndARemovalNamesItsRecord() throws Exception {
    ObjectNode wish = JSON.createObjectNode();
    wish.put("document", api("/connect/systems/post-room").path("document").asText());
    wish.putObject("secrets");
    wish.put("collection", "letters").put("call", "make");
    wish.putObject("fields")
        .put("to", "[\"one@mail.example\", \"two@mail.example\"]")
        .put("cc", "three@mail.example")
        .put("subject", "A try")
        .put("text", "Only a try");
    JsonNode made = post("/trials", wish, 200);
    assertThat(made.path("works").asBoolean()).as(made.toString()).isTrue();
    wish.put("document", api("/connect/systems/works-ledger").path("document").asText());
    wish.put("collection", "jobs").put("call", "find");
    assertThat(post("/trials", wish, 400).path("detail").asText()).contains("Give the id");
  }

  @Test
  void fileThatIsUploadedIsReadByItsSystem() throws Exception {
    ObjectNode keep = JSON.createObjectNode();
    keep.put(
        "document",
        """
        system: market
        name: Market
        address: drop:market
        collections:
          orders:
            name: Orders
            record: order
            files: "*.csv"
            reads: csv
            id: /number
            fields: { /number: { name: number, type: text, required: true } }
        """);
    keep.putObject("secrets");
    post("", keep, 204);
    assertThat(upload("market", "orders.csv", "number,what\r\n7,Two ferns\r\n")).isEqualTo(204);
    ObjectNode wish = JSON.createObjectNode().put("document", keep.path("document").asText());
    wish.putObject("secrets");
    wish.put("collection", "orders").put("call", "list");
    JsonNode listed = post("/trials", wish, 200);
    assertThat(listed.path("record").asText()).contains("Two ferns");
    assertThat(upload("market", "..%2Fout.csv", "x")).isIn(400, 404);
    assertThat(upload("visitor-desk", "orders.csv", "x")).isEqualTo(404);
  }

  /** The document names the usual port, the installation another: an edit must not mix them up. */
  @Test
  void editOfADocumentKeepsWhereTheInstallationReachesTheSystem() throws Exception {
    String document = api("/connect/systems/works-ledger").path("document").asText();
    assertThat(document).contains("address: http://127.0.0.1:8477");
    ObjectNode wish = JSON.createObjectNode().put("document", document);
    wish.putObject("secrets");
    wish.put("collection", "jobs").put("call", "changes");
    assertThat(post("/trials", wish, 200).path("works").asBoolean()).isTrue();
    ObjectNode keep = JSON.createObjectNode();
    keep.put("document", document.replace("name: Jobs", "name: All jobs"));
    keep.putObject("secrets");
    post("", keep, 204);
    assertThat(lookAtLedger().path("name").asText()).isEqualTo("All jobs");
    assertThat(lookAtLedger().path("problem").asText()).isEmpty();
    keep.put("document", document.replace("127.0.0.1:8477", "127.0.0.1:1"));
    post("", keep, 204);
    assertThat(lookAtLedger().path("problem").asText()).contains("cannot be reached");
    keep.put("document", document.replace("127.0.0.1:8477", "127.0.0.1:" + LEDGER.port()));
    post("", keep, 204);
    assertThat(lookAtLedger().path("problem").asText()).isEmpty();
  }
}
