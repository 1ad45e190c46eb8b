package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.ysthmos.app.DeskIT.live;
import static org.ysthmos.app.DeskIT.ok;
import static org.ysthmos.app.DeskIT.typed;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.time.AppClock;

/** Tests that are due, by hand and by the product itself. */
class TestPlansIT extends AppTestBase {

  private static final String BRIDGE = "hazard-to-grounds";
  private static final String PATH = "/api/bridges/" + BRIDGE + "/tests";

  @Autowired private AppClock clock;

  private LocalDate today() {
    return LocalDate.ofInstant(clock.instant(), ZoneId.of(api("/watch").path("zone").asText()));
  }

  private ObjectNode wish(String how, int days, LocalDate first) {
    return JSON.createObjectNode()
        .put("what", "A mail without a date")
        .put("how", how)
        .put("owner", "Ida")
        .put("everyDays", days)
        .putNull("rule")
        .put("firstOn", first.toString())
        .put("basedOn", 0);
  }

  private static HttpResponse<String> call(String method, String path, JsonNode body)
      throws Exception {
    return send(method, app(path), body.toString(), Map.of("Content-Type", "application/json"));
  }

  private static JsonNode planned(ObjectNode wish) throws Exception {
    HttpResponse<String> answer = call("POST", PATH, wish);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    JsonNode tests = JSON.readTree(answer.body());
    return tests.path(tests.size() - 1);
  }

  private static List<JsonNode> onWatch() {
    return api("/watch").path("tests").valueStream().toList();
  }

  private static JsonNode inRegister() {
    return api("/register")
        .path("rows")
        .valueStream()
        .filter(row -> row.path("id").asText().equals(BRIDGE))
        .findFirst()
        .orElseThrow();
  }

  @AfterEach
  void endAll() throws Exception {
    for (JsonNode test : api("/bridges/" + BRIDGE + "/tests")) {
      String path = "/%s?basedOn=%d".formatted(test.path("id"), test.path("revision").asInt());
      assertThat(send("DELETE", app(PATH + path), "", Map.of()).statusCode()).isEqualTo(204);
    }
    assertThat(onWatch()).isEmpty();
    assertThat(inRegister().path("tested").asBoolean()).isFalse();
  }

  @Test
  void whatIsDueStandsOnWatchUntilSomebodySaysHowItWent() throws Exception {
    LocalDate since = today().minusDays(4);
    JsonNode test = planned(wish("BY_HAND", 30, since));
    assertThat(onWatch())
        .singleElement()
        .satisfies(
            line -> {
              assertThat(line.path("owner").asText()).isEqualTo("Ida");
              assertThat(line.path("dueOn").asText()).isEqualTo(since.toString());
              assertThat(line.path("failedOn").isNull()).isTrue();
            });
    assertThat(inRegister().path("testDue").asText()).isEqualTo(since.toString());

    String results = PATH + "/" + test.path("id") + "/results";
    ObjectNode wrong = JSON.createObjectNode().put("passed", false).put("words", "A day early");
    assertThat(call("POST", results, wrong).statusCode()).isEqualTo(200);
    assertThat(onWatch())
        .singleElement()
        .satisfies(
            line -> {
              assertThat(line.path("dueOn").isNull()).isTrue();
              assertThat(line.path("failedOn").asText()).isEqualTo(today().toString());
              assertThat(line.path("words").asText()).isEqualTo("A day early");
            });
    assertThat(inRegister().path("testsFailed").asInt()).isOne();

    ObjectNode right = JSON.createObjectNode().put("passed", true).put("words", "On the day");
    assertThat(call("POST", results, right).statusCode()).isEqualTo(200);
    assertThat(onWatch()).isEmpty();
    JsonNode done = api("/bridges/" + BRIDGE + "/tests").path(0);
    assertThat(done.path("dueOn").asText()).isEqualTo(today().plusDays(30).toString());
    assertThat(done.path("results").findValuesAsText("words"))
        .containsExactly("On the day", "A day early");
    assertThat(done.path("results").findValuesAsText("dueOn"))
        .containsExactly("null", since.toString());
    assertThat(done.at("/results/0/version").asInt()).isPositive();

    String end = PATH + "/%s?basedOn=%d".formatted(test.path("id"), done.path("revision").asInt());
    assertThat(send("DELETE", app(end), "", Map.of()).statusCode()).isEqualTo(204);
    assertThat(api("/bridges/" + BRIDGE + "/tests").valueStream())
        .noneMatch(one -> one.path("id").equals(test.path("id")));
    JsonNode ended = api("/bridges/" + BRIDGE + "/tests/ended").path(0);
    assertThat(ended.path("id")).isEqualTo(test.path("id"));
    assertThat(ended.path("results").findValuesAsText("words"))
        .containsExactly("On the day", "A day early");
  }

  @Test
  void theProductDecidesPinnedExamplesItself() throws Exception {
    JsonNode test = planned(wish("EXAMPLES", 7, today()));
    String run = PATH + "/" + test.path("id") + "/run";
    // Whatever others made of the bridge by now: as the desk says before it would go live.
    JsonNode going = ok(DeskIT.call("POST", "/drafts/" + BRIDGE + "/going", typed(live(), 0)));
    boolean allHold =
        going.path("examples").valueStream().allMatch(one -> one.path("holds").asBoolean());
    JsonNode result = JSON.readTree(call("POST", run, said()).body()).at("/0/results/0");
    assertThat(going.path("examples")).isNotEmpty();
    assertThat(result.path("passed").asBoolean()).isEqualTo(allHold);
    assertThat(result.path("words").asText())
        .contains(allHold ? "pinned examples hold." : "pinned examples give something else");
    assertThat(onWatch()).hasSize(allHold ? 0 : 1);
    assertThat(call("POST", PATH + "/" + test.path("id") + "/results", said()).statusCode())
        .isEqualTo(200);

    String other = "/api/bridges/partner-call/tests";
    JsonNode without = JSON.readTree(call("POST", other, wish("EXAMPLES", 7, today())).body());
    String path = other + "/" + without.at("/0/id");
    assertThat(call("POST", path + "/run", said()).body()).contains("no pinned examples");
    assertThat(onWatch()).singleElement().asString().contains("no pinned examples");
    assertThat(send("DELETE", app(path + "?basedOn=1"), "", Map.of()).statusCode()).isEqualTo(204);
  }

  @Test
  void aTestIsPlannedAnewOnWhatThePersonSaw() throws Exception {
    JsonNode test = planned(wish("BY_HAND", 7, today()));
    String path = PATH + "/" + test.path("id");
    assertThat(call("POST", path + "/results", said()).statusCode()).isEqualTo(200);
    ObjectNode anew = wish("BY_HAND", 9, today().plusDays(1)).put("basedOn", 1);
    assertThat(call("PUT", path, anew).statusCode()).isEqualTo(200);
    assertThat(call("PUT", path, anew).statusCode()).isEqualTo(409);
    assertThat(call("DELETE", path + "?basedOn=1", anew).statusCode()).isEqualTo(409);
    // Tested today, it is due in nine days, though it may be from tomorrow on.
    assertThat(api("/bridges/" + BRIDGE + "/tests").path(0).path("dueOn").asText())
        .isEqualTo(today().plusDays(9).toString());
  }

  private static ObjectNode said() {
    return JSON.createObjectNode().put("passed", true).put("words", "Looked at by hand, too");
  }

  @Test
  void whatCannotBePlannedIsRefusedWithItsReason() throws Exception {
    ObjectNode wish = wish("BY_HAND", 30, today());
    assertThat(call("POST", PATH, wish.deepCopy().put("everyDays", 0)).body())
        .contains("every 1 to 3,660");
    assertThat(call("POST", PATH, wish.deepCopy().put("rule", "every Monday")).body())
        .contains("every so many days, or by a rule");
    ObjectNode byRule = wish.deepCopy().putNull("everyDays");
    assertThat(call("POST", PATH, byRule.put("rule", "now and then")).body())
        .contains("says nothing that comes round");
    assertThat(call("POST", PATH, byRule.put("rule", "every Monday at 09:00")).body())
        .contains("leave out the time of day");
    assertThat(call("POST", PATH, wish.deepCopy().put("what", " ")).statusCode()).isEqualTo(422);
    assertThat(call("POST", "/api/bridges/none/tests", wish).statusCode()).isEqualTo(404);
    JsonNode test = planned(wish);
    assertThat(call("POST", PATH + "/" + test.path("id") + "/run", said()).body())
        .contains("tested by hand");
    assertThat(call("POST", PATH + "/999999/results", said()).statusCode()).isEqualTo(404);
  }
}
