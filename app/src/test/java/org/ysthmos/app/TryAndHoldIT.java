package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.ysthmos.app.DeskIT.call;
import static org.ysthmos.app.DeskIT.live;
import static org.ysthmos.app.DeskIT.ok;
import static org.ysthmos.app.DeskIT.typed;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** One real try with its task taken back; holding a bridge and releasing it. */
class TryAndHoldIT extends AppTestBase {

  private static final String BRIDGE = "/api/bridges/hazard-to-grounds";

  private static JsonNode finished(String trace) {
    await()
        .atMost(Duration.ofSeconds(20))
        .pollInterval(Duration.ofMillis(40))
        .until(() -> !verdict(trace).equals("WAITING"));
    return api("/traces/" + trace);
  }

  private static String verdict(String trace) {
    return api("/traces/" + trace).at("/trace/verdict").asText();
  }

  private static HttpResponse<String> takeBack(String trace, boolean evenIfTouched)
      throws Exception {
    return send(
        "POST",
        app("/api/traces/" + trace + "/take-back?evenIfTouched=" + evenIfTouched),
        "",
        Map.of());
  }

  /** Tries the newest event with another lane; gives the trace. */
  private static String tryIt(String number) throws Exception {
    ObjectNode draft = live();
    ((ObjectNode) draft.path("fields")).putObject("lane").put("always", "under-way");
    JsonNode trial = ok(call("POST", "/drafts/hazard-to-grounds/trial", typed(draft, 0)));
    assertThat(trial.at("/samples/0/record").asText()).isEqualTo(number);
    String sample = trial.at("/samples/0/id").asText();
    return ok(call("POST", "/drafts/hazard-to-grounds/tries?sample=" + sample, typed(draft, 0)))
        .path("trace")
        .asText();
  }

  @Test
  void tryMakesATaskOfItsOwnAndTakesItBack() throws Exception {
    String number = report(Map.of());
    settled(number, 1);
    JsonNode kept = tasksOf(number).getFirst();
    String trace = tryIt(number);
    JsonNode tried = finished(trace);
    assertThat(tried.at("/trace/verdict").asText()).isEqualTo("CREATE");
    assertThat(tried.at("/trace/trial").asBoolean()).isTrue();
    assertThat(tried.at("/story/lines/0/text").asText()).isEqualTo("Tried from the desk, for real");
    // The bridge's own task is left alone; the try made another.
    assertThat(tasksOf(number)).hasSize(2);
    assertThat(tasksOf(number).getLast().path("lane").asText()).isEqualTo("under-way");

    assertThat(takeBack(trace, false).statusCode()).isEqualTo(204);
    assertThat(tasksOf(number)).containsExactly(kept);
    assertThat(api("/traces/" + trace).at("/trace/takenBackAt").asText()).isNotBlank();
    assertThat(api("/traces/" + trace).at("/story/lines").toString())
        .contains("Took the task away");
    assertThat(takeBack(trace, false).statusCode()).isEqualTo(204);
    // A later change still reaches the bridge's own task and no other.
    desk("PATCH", "/api/submissions/" + number, "{\"problem\":\"Two planks\"}");
    settled(number, 3);
    assertThat(tasksOf(number)).hasSize(1);
    assertThat(tasksOf(number).getFirst().path("title").asText()).endsWith("Two planks");
  }

  @Test
  void taskOfATryThatSomeoneWorkedOnGoesOnlyWhenTold() throws Exception {
    String number = report(Map.of());
    settled(number, 1);
    String trace = tryIt(number);
    String task = finished(trace).at("/trace/target").asText();
    board("PATCH", "/api/tasks/" + task, "{\"title\":\"Someone works on it\"}");
    HttpResponse<String> refused = takeBack(trace, false);
    assertThat(refused.statusCode()).isEqualTo(409);
    assertThat(refused.body()).contains("Someone changed task " + task);
    assertThat(tasksOf(number)).hasSize(2);
    assertThat(takeBack(trace, true).statusCode()).isEqualTo(204);
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void takingBackThatIsNotAnsweredIsTriedAgainByItself() throws Exception {
    String number = report(Map.of());
    settled(number, 1);
    String trace = tryIt(number);
    finished(trace);
    fault(BOARD.port(), "answer-lost", "DELETE", "/api/tasks", 1);
    // It was done over there, and doing it again finds it gone.
    assertThat(takeBack(trace, false).statusCode()).isEqualTo(204);
    assertThat(api("/traces/" + trace).at("/story/lines").toString())
        .contains("taking the task away: answer unknown");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void tryIsNeitherCountedOnWatchNorSentAgain() throws Exception {
    String number = report(Map.of());
    settled(number, 1);
    int before = watched().at("/counts/made").asInt();
    String trace = tryIt(number);
    finished(trace);
    assertThat(watched().at("/counts/made").asInt()).isEqualTo(before);
    var again = send("POST", app("/api/traces/" + trace + "/resend"), "", Map.of());
    assertThat(again.statusCode()).isEqualTo(409);
    takeBack(trace, true);
    var real = takeBack(tracesOf(number).getLast().path("id").asText(), true);
    assertThat(real.statusCode()).isEqualTo(409);
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void heldBridgeReceivesAndDeliversNothingUntilItIsReleased() throws Exception {
    var held =
        send(
            "PUT",
            app(BRIDGE + "/hold"),
            "{\"because\":\"The board is being moved\"}",
            Map.of("Content-Type", "application/json"));
    assertThat(held.statusCode()).as(held.body()).isEqualTo(200);
    String number = report(Map.of());
    await().atMost(Duration.ofSeconds(20)).until(() -> tracesOf(number).size() == 1);
    JsonNode line = watched();
    assertThat(line.path("heldBecause").asText()).isEqualTo("The board is being moved");
    // Another way through the engine is a full round: whatever was to come has come by then.
    String trace = tryIt(number);
    finished(trace);
    takeBack(trace, true);
    assertThat(tracesOf(number).getLast().path("verdict").asText()).isEqualTo("WAITING");
    assertThat(tasksOf(number)).isEmpty();

    assertThat(send("DELETE", app(BRIDGE + "/hold"), "", Map.of()).statusCode()).isEqualTo(200);
    settled(number, 2);
    assertThat(tasksOf(number)).hasSize(1);
    assertThat(send("DELETE", app(BRIDGE + "/hold"), "", Map.of()).statusCode()).isEqualTo(409);
  }

  @Test
  void holdSaysWhy() throws Exception {
    var unexplained =
        send(
            "PUT",
            app(BRIDGE + "/hold"),
            "{\"because\":\" \"}",
            Map.of("Content-Type", "application/json"));
    assertThat(unexplained.statusCode()).isEqualTo(422);
    assertThat(api("/bridges/hazard-to-grounds").at("/bridge/heldSince").isNull()).isTrue();
  }
}
