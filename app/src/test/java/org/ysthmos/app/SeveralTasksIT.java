package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Several tasks of one event, through the whole application and onto the board. */
class SeveralTasksIT extends AppTestBase {

  private static final String SET =
      """
      bridge: hazard-to-grounds
      name: Hazard in three steps
      purpose: A hazard is fenced off, repaired and looked at again
      from: { system: visitor-desk, collection: hazard-reports, event: [created, changed] }
      to: { system: grounds-board, collection: paths-and-trees }
      lookups:
        report: { in: visitor-desk/hazard-reports, by: { id: /submission } }
      when: { value: report/answers/place, contains: rehearsal of sets }
      match: [/submission]
      set:
        anchor: { value: report/answers/seenOn, steps: [read-day: d MMMM uuuu] }
        tasks:
          fence: { offset: P0D, fields: { title: { text: "Fence off {report/answers/place}" } } }
          repair: { offset: P7D, fields: { title: { text: "Repair {report/answers/place}" } } }
          look: { offset: P1M, fields: { title: { text: "Look at {report/answers/place} again" } } }
      fields:
        lane: { always: reported }
        due: { value: set/day, steps: [at: { time: "17:00", zone: Europe/Lisbon }] }
        notes: { text: "Report {/submission}, seen on {report/answers/seenOn}" }
      ceiling: { creates: 100, per: PT1H }
      """;

  private static final String PLACE = "Gate (rehearsal of sets)";

  private static List<String> due(String number) {
    return tasksOf(number).stream()
        .map(task -> task.path("title").asText() + " " + task.path("due").asText())
        .sorted()
        .toList();
  }

  private static void somebodyBeginsTheRepair(String number) throws Exception {
    String repair =
        tasksOf(number).stream()
            .filter(task -> task.path("title").asText().startsWith("Repair"))
            .findFirst()
            .orElseThrow()
            .path("id")
            .asText();
    board("PATCH", "/api/tasks/" + repair, "{\"lane\":\"under-way\"}");
  }

  @Test
  void setIsMadeOnceAndAChangedAnchorMovesWhatNobodyTouched() throws Exception {
    useTheSet();
    String number = report(Map.of("place", PLACE, "danger", "1"));
    settled(number, 1);
    assertThat(due(number))
        .containsExactly(
            "Fence off " + PLACE + " 2026-11-23T17:00:00Z",
            "Look at " + PLACE + " again 2026-12-23T17:00:00Z",
            "Repair " + PLACE + " 2026-11-30T17:00:00Z");

    // Three deliveries end at about the same time, and each goes on telling the one story.
    assertThat(story(tracesOf(number).getFirst()).path("lines"))
        .filteredOn(line -> line.path("text").asText().startsWith("Pair kept"))
        .hasSize(3);

    somebodyBeginsTheRepair(number);
    desk("PATCH", "/api/submissions/" + number, "{\"seenOn\":\"24 November 2026\"}");
    JsonNode trace = settled(number, 2);
    assertThat(due(number))
        .containsExactly(
            "Fence off " + PLACE + " 2026-11-24T17:00:00Z",
            "Look at " + PLACE + " again 2026-12-24T17:00:00Z",
            "Repair " + PLACE + " 2026-11-30T17:00:00Z");
    assertThat(story(trace).toString()).contains("of 3 tasks 2 to update, 1 to leave");
  }

  private static JsonNode moved(String number, String day) {
    return api(
        "/bridges/hazard-to-grounds/sets/moved?record="
            + number
            + (day.isEmpty() ? "" : "&day=" + day));
  }

  private static String becomes(JsonNode moved) {
    return moved.path("tasks").toString();
  }

  @Test
  void whatWouldMoveIsSeenBeforeItMovesAndAnAnchorThatIsTakenAwayTakesThemAway() throws Exception {
    String place = PLACE + " 3";
    useTheSet();
    String number = report(Map.of("place", place, "danger", "1"));
    settled(number, 1);
    assertThat(moved(number, "").path("detail").asText()).contains("no-anchor");
    putBridge(SET.replace("set:\n", "set:\n  no-anchor: remove\n"));
    assertThat(api("/bridges/hazard-to-grounds/sets").path("sets").toString()).contains(number);
    somebodyBeginsTheRepair(number);
    List<String> before = due(number);
    JsonNode later = moved(number, "2026-12-01");
    assertThat(later.path("tasks")).hasSize(3);
    assertThat(becomes(later))
        .contains("Tue 1 Dec 2026, 17:00")
        .contains("someone has worked on it since")
        .contains("Mon 23 Nov 2026, 17:00");
    assertThat(becomes(moved(number, ""))).contains("\"removed\":true");
    assertThat(due(number)).as("nothing was written").isEqualTo(before);

    desk("PATCH", "/api/submissions/" + number, "{\"seenOn\":\"\"}");
    settled(number, 2);
    assertThat(due(number)).hasSize(1).first().asString().startsWith("Repair");
    // The day is there again: what was taken away is made anew, and what was kept is left.
    desk("PATCH", "/api/submissions/" + number, "{\"seenOn\":\"1 December 2026\"}");
    settled(number, 3);
    assertThat(due(number)).hasSize(3).contains("Fence off " + place + " 2026-12-01T17:00:00Z");
  }

  private static void useTheSet() throws Exception {
    var answer = putBridge(SET);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
  }

  @Test
  void taskOfASetThatFailedIsMadeWhenItIsSentAgainAndTheOthersAreLeft() throws Exception {
    useTheSet();
    fault(BOARD.port(), "forbidden", "POST", "/api", 1);
    String number = report(Map.of("place", PLACE + " 2", "danger", "1"));
    JsonNode failed = settled(number, 1);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(tasksOf(number)).hasSize(2);
    resend(failed);
    assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(3);
  }
}
