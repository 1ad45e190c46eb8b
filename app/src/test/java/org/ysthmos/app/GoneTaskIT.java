package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Tasks that others removed at the target, and events that want them changed. */
class GoneTaskIT extends AppTestBase {

  private static String bridge(String ifGone) throws Exception {
    String document = Files.readString(SETUP.resolve("bridges").resolve("hazard-to-grounds.yaml"));
    String to = "to: { system: grounds-board, collection: paths-and-trees";
    assertThat(document).contains(to + " }");
    return document.replace(to + " }", to + ", if-gone: " + ifGone + " }");
  }

  /** A report whose task somebody removed at the board; gives its number. */
  private static String removedThere() throws Exception {
    String number = report(Map.of());
    String task = settled(number, 1).path("target").asText();
    board("DELETE", "/api/tasks/" + task, "");
    assertThat(tasksOf(number)).isEmpty();
    return number;
  }

  private static void edit(String number, String danger) throws Exception {
    desk("PATCH", "/api/submissions/" + number, "{\"danger\":\"%s\"}".formatted(danger));
  }

  private static JsonNode say(JsonNode trace, String what) throws Exception {
    String path = "/api/traces/" + trace.path("id").asText() + "/" + what;
    var answer = send("POST", app(path), "", Map.of());
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
    return JSON.readTree(answer.body().isEmpty() ? "{}" : answer.body());
  }

  /** What is made anew is a new task, and counts as one. */
  @Test
  void isNotMadeAnewBeyondTheCeiling() throws Exception {
    putBridge(bridge("make-anew"));
    String number = removedThere();
    putBridge(bridge("make-anew").replace("creates: 9999", "creates: 1"));
    edit(number, "4");
    await()
        .atMost(Duration.ofSeconds(20))
        .until(
            () -> api("/bridges/hazard-to-grounds").at("/bridge/heldBecause").asText(),
            because -> because.contains("ceiling is 1 new task"));
    assertThat(tasksOf(number)).isEmpty();
    putBridge(bridge("make-anew"));
    send("DELETE", app("/api/bridges/hazard-to-grounds/hold"), "", Map.of());
    assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void isMadeAnewWithAllThatItHeldAndTheChange() throws Exception {
    assertThat(putBridge(bridge("make-anew")).statusCode()).isBetween(200, 204);
    String number = removedThere();
    edit(number, "4");
    JsonNode trace = settled(number, 2);
    assertThat(trace.path("verdict").asText()).isEqualTo("CREATE");
    List<JsonNode> tasks = tasksOf(number);
    assertThat(tasks).hasSize(1);
    assertThat(tasks.getFirst().path("priority").asInt()).isEqualTo(6);
    assertThat(tasks.getFirst().path("title").asText()).startsWith("Fern gully");
    assertThat(tasks.getFirst().path("checklist")).hasSize(3);
    assertThat(trace.path("target")).isEqualTo(tasks.getFirst().path("id"));
    assertThat(story(trace).toString()).contains("it is made anew");
    // Once is enough: the next event changes what was made.
    edit(number, "9");
    assertThat(settled(number, 3).path("verdict").asText()).isEqualTo("UPDATE");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void isMadeAnewAgainUnderAKeyOfItsOwn() throws Exception {
    putBridge(bridge("make-anew"));
    String number = removedThere();
    edit(number, "4");
    String second = settled(number, 2).path("target").asText();
    board("DELETE", "/api/tasks/" + second, "");
    edit(number, "5");
    JsonNode third = settled(number, 3);
    assertThat(third.path("verdict").asText()).isEqualTo("CREATE");
    assertThat(third.path("target").asText()).isNotEqualTo(second);
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void isLeftForGoodWhereTheBridgeSaysSo() throws Exception {
    putBridge(bridge("leave"));
    String number = removedThere();
    edit(number, "4");
    JsonNode left = settled(number, 2);
    assertThat(left.path("verdict").asText()).isEqualTo("UNCHANGED");
    assertThat(story(left).toString()).contains("it is left so");
    edit(number, "9");
    JsonNode later = settled(number, 3);
    assertThat(later.path("verdict").asText()).isEqualTo("UNCHANGED");
    assertThat(story(later).toString()).contains("is left so; make it anew");
    assertThat(tasksOf(number)).isEmpty();
  }

  @Test
  void isAPersonsToSayOtherwiseAndTheNewestEventMakesIt() throws Exception {
    String number = removedThere();
    edit(number, "6");
    JsonNode asked = settled(number, 2);
    assertThat(asked.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(asked.path("reason").asText())
        .contains("others removed it")
        .contains("Make it anew, or leave it so");
    assertThat(story(asked).path("lines").findValuesAsText("text"))
        .contains(
            "Grounds Board, changing the task: the task is not there",
            "Looked for the task by its key at Grounds Board")
        .doesNotContain("Changed the task at Grounds Board");
    edit(number, "2");
    assertThat(settled(number, 3).path("verdict").asText()).isEqualTo("FAILED");

    String fresh = say(asked, "make-anew").path("trace").asText();
    JsonNode made = settled(number, 4);
    assertThat(made.path("id").asText()).isEqualTo(fresh);
    assertThat(made.path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(1);
    assertThat(tasksOf(number).getFirst().path("priority").asInt()).isEqualTo(6);
    assertThat(api("/traces?verdict=needs-you").path("traces").findValuesAsText("failureKind"))
        .doesNotContain("not found");
  }

  /** Of two tasks one is gone, and the other only could not be changed just then. */
  @Test
  void isMadeAnewAloneWhereAnotherOfTheSameEventFailedForSomethingElse() throws Exception {
    putBridge(
        """
        bridge: hazard-to-grounds
        name: Hazard at each place
        purpose: A task for each place
        from: { system: visitor-desk, collection: hazard-reports, event: [created, changed] }
        to: { system: grounds-board, collection: paths-and-trees }
        lookups:
          report: { in: visitor-desk/hazard-reports, by: { id: /submission } }
        match: [/submission]
        for-each: { list: { value: report/answers/place, steps: [split: "+"] } }
        fields:
          title: { text: "{item/value}: {report/answers/danger}" }
          lane: { always: reported }
          notes: { text: "Report {/submission}, " }
        ceiling: { creates: 100, per: PT1H }
        """);
    String number = report(Map.of("place", "North+South"));
    settled(number, 1);
    String north = idOf(number, "North");
    String south = idOf(number, "South");
    board("DELETE", "/api/tasks/" + north, "");
    fault(BOARD.port(), "forbidden", "PATCH", "/api/tasks/" + south, 1);
    edit(number, "4");
    JsonNode failed = settled(number, 2);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    say(failed, "make-anew");
    assertThat(settled(number, 3).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number))
        .extracting(task -> task.path("title").asText())
        .containsExactlyInAnyOrder("North: 4", "South: 4");
    assertThat(idOf(number, "South")).isEqualTo(south);
    assertThat(idOf(number, "North")).isNotEqualTo(north);
    // It is dealt with, and pressing once more changes nothing.
    String path = "/api/traces/" + failed.path("id").asText() + "/make-anew";
    assertThat(send("POST", app(path), "", Map.of()).body())
        .contains("Nothing of this trace waits for a person any more");
    assertThat(tasksOf(number)).hasSize(2);
  }

  private static String idOf(String number, String place) {
    return tasksOf(number).stream()
        .filter(task -> task.path("title").asText().startsWith(place))
        .findFirst()
        .orElseThrow()
        .path("id")
        .asText();
  }

  @Test
  void isLeftWhereAPersonSaysSoAndNothingWaitsForOneAnyMore() throws Exception {
    String number = removedThere();
    edit(number, "4");
    say(settled(number, 2), "leave-removed");
    edit(number, "9");
    assertThat(settled(number, 3).path("verdict").asText()).isEqualTo("UNCHANGED");
    assertThat(tasksOf(number)).isEmpty();
  }

  @Test
  void boardThatFindsNothingAtAllProvesNothing() throws Exception {
    putBridge(bridge("make-anew"));
    String number = report(Map.of());
    settled(number, 1);
    fault(BOARD.port(), "not-found", "", "/api", 100);
    edit(number, "4");
    JsonNode failed = settled(number, 2);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    send("DELETE", "http://127.0.0.1:" + BOARD.port() + "/control/faults", "", Map.of());
    resend(failed);
    assertThat(settled(number, 3).path("verdict").asText()).isEqualTo("UPDATE");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void traceThatDidNotFailForItIsRefused() throws Exception {
    JsonNode trace = settled(report(Map.of()), 1);
    for (String what : List.of("make-anew", "leave-removed")) {
      String path = "/api/traces/" + trace.path("id").asText() + "/" + what;
      assertThat(send("POST", app(path), "", Map.of()).statusCode()).isEqualTo(409);
      assertThat(send("POST", app("/api/traces/none/" + what), "", Map.of()).statusCode())
          .isEqualTo(404);
    }
  }
}
