package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A copy of a bridge is offered what is changed in its original, and keeps what is its own. */
class CopiesIT extends AppTestBase {

  private static final String ORIGINAL = "hazard-to-grounds";
  private static final String COPY = "hazard-second";
  private static final String TITLE = "{report/answers/place}: {report/answers/problem}";

  private String before = "";

  @BeforeEach
  void copy() throws Exception {
    before = document(ORIGINAL);
    assertThat(before).contains(TITLE, "at-least: 2");
    put(
        COPY,
        before
            .replace("bridge: hazard-to-grounds", "bridge: " + COPY)
            .replace("name: Hazard report", "name: Grave hazards")
            .replace("at-least: 2", "at-least: 10"));
    assertThat(call("PUT", COPY + "/original", JSON.createObjectNode().put("original", ORIGINAL)))
        .isEqualTo(204);
  }

  @AfterEach
  void asBefore() throws Exception {
    put(ORIGINAL, before);
    int unused = call("DELETE", COPY + "/original", JSON.createObjectNode());
    unused = send("DELETE", app("/api/desk/drafts/" + COPY), "", Map.of()).statusCode();
    unused =
        call("PUT", COPY + "/hold", JSON.createObjectNode().put("because", "The test is over"));
    ObjectNode retire =
        JSON.createObjectNode().put("because", "The test is over").put("events", 99);
    assertThat(call("POST", COPY + "/retirement", retire)).isEqualTo(204);
  }

  private static String document(String bridge) {
    return api("/bridges/" + bridge).path("document").asText();
  }

  private static void put(String bridge, String document) throws Exception {
    HttpResponse<String> answer =
        send(
            "PUT",
            app("/api/bridges/" + bridge + "/document"),
            document,
            Map.of("Content-Type", "application/yaml"));
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
  }

  private static HttpResponse<String> answer(String method, String path, ObjectNode body)
      throws Exception {
    return send(
        method,
        app("/api/bridges/" + path),
        body.toString(),
        Map.of("Content-Type", "application/json"));
  }

  private static int call(String method, String path, ObjectNode body) throws Exception {
    return answer(method, path, body).statusCode();
  }

  private static JsonNode standing() {
    return api("/bridges/" + ORIGINAL + "/copies").at("/copies/0");
  }

  /** What came of letting it follow; empty if it did. */
  private static String follow(String seen, String... take) throws Exception {
    ObjectNode one = JSON.createObjectNode().put("copy", COPY).put("seen", seen);
    for (String path : take) {
      one.withArray("take").add(path);
    }
    one.withArray("take");
    ObjectNode wish = JSON.createObjectNode();
    wish.putArray("copies").add(one);
    HttpResponse<String> answer = answer("POST", ORIGINAL + "/copies/follow", wish);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body()).at("/0/problem").asText();
  }

  @Test
  void whatWasChangedInTheOriginalIsOfferedWithItsResultsAndItsOwnStays() throws Exception {
    assertThat(standing().path("follows").asBoolean()).isFalse();
    assertThat(standing().path("own").toString()).contains("when");
    String number = report(Map.of("place", "Fern gully", "danger", "10"));
    JsonNode unused = settled(number, 2);

    put(ORIGINAL, before.replace(TITLE, "Look at " + TITLE).replace("at-least: 2", "at-least: 3"));
    JsonNode offered = standing();
    assertThat(offered.path("follows").asBoolean()).isTrue();
    assertThat(offered.path("differences").toString()).contains("Title", "Look at");
    assertThat(offered.path("both").toString()).isEqualTo("[\"when\"]");
    assertThat(offered.path("ifTaken").toString()).contains("at least 3");
    assertThat(offered.path("hindrance").asText()).isEmpty();
    JsonNode results = api("/bridges/" + ORIGINAL + "/copies/" + COPY + "/results");
    assertThat(results.path("differing").asInt()).isPositive();
    assertThat(results.path("differences").toString()).contains("title otherwise in");

    assertThat(follow(offered.path("seen").asText())).isEmpty();
    assertThat(document(COPY))
        .contains("Look at " + TITLE, "name: Grave hazards")
        .containsPattern("at-least: .?10\\b");
    assertThat(standing().path("follows").asBoolean()).isFalse();
    assertThat(standing().path("both")).isEmpty();
    // What was looked at is not so any more.
    assertThat(follow(offered.path("seen").asText())).contains("Look again");
  }

  @Test
  void whatBothChangedIsTakenIfThatIsWanted() throws Exception {
    put(ORIGINAL, before.replace("at-least: 2", "at-least: 3"));
    assertThat(standing().path("follows").asBoolean()).isFalse();
    assertThat(follow(standing().path("seen").asText(), "when")).isEmpty();
    assertThat(document(COPY)).containsPattern("at-least: .?3\\b");
  }

  @Test
  void itDoesNotFollowOverADraft() throws Exception {
    put(ORIGINAL, before.replace(TITLE, "Look at " + TITLE));
    JsonNode draft = api("/desk/drafts/" + COPY);
    ObjectNode typed = JSON.createObjectNode().put("revision", 0);
    typed.put("document", draft.path("document").asText());
    HttpResponse<String> kept =
        send(
            "PUT",
            app("/api/desk/drafts/" + COPY),
            typed.toString(),
            Map.of("Content-Type", "application/json"));
    assertThat(kept.statusCode()).as(kept.body()).isEqualTo(200);
    assertThat(standing().path("hindrance").asText()).contains("draft");
    assertThat(follow(standing().path("seen").asText())).contains("draft");
    assertThat(document(COPY)).doesNotContain("Look at");
  }

  @Test
  void oneThatStandsForItselfIsOfferedNothing() throws Exception {
    put(ORIGINAL, before.replace(TITLE, "Look at " + TITLE));
    assertThat(call("DELETE", COPY + "/original", JSON.createObjectNode())).isEqualTo(204);
    assertThat(api("/bridges/" + ORIGINAL + "/copies").path("copies")).isEmpty();
    assertThat(call("DELETE", COPY + "/original", JSON.createObjectNode())).isEqualTo(404);
    assertThat(call("PUT", COPY + "/original", JSON.createObjectNode().put("original", COPY)))
        .isEqualTo(422);
  }
}
