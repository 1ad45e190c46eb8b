package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.who.By;

/** Two people tell of one thing: both become tasks, and a person says that they are one. */
class DuplicateIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(30);

  @Autowired private Bridges bridges;

  @BeforeEach
  void room() {
    BOARD.forgetCalls();
  }

  private static Optional<JsonNode> possible(String title) {
    return StreamSupport.stream(api("/duplicates").path("items").spliterator(), false)
        .filter(one -> one.path("title").asText().equals(title))
        .findFirst();
  }

  private static JsonNode awaited(String title) {
    await().atMost(LONG).until(() -> possible(title).isPresent());
    return possible(title).orElseThrow();
  }

  private static HttpResponse<String> answer(JsonNode one, boolean same) throws Exception {
    return send(
        "POST",
        app("/api/duplicates/" + one.path("id").asText() + "/answer"),
        "{\"same\":%b}".formatted(same),
        Map.of("Content-Type", "application/json"));
  }

  private static String made(String place, String problem) throws Exception {
    String number = report(Map.of("place", place, "problem", problem));
    settled(number, 1);
    return number;
  }

  private static String task(String number) {
    return tasksOf(number).getFirst().path("id").asText();
  }

  @Test
  void isTakenBackAndItsRecordGoesOnWithTheOther() throws Exception {
    String first = made("Heather slope", "Rail of the lookout is loose");
    String second = made("Heather slope", "Rail of the lookout is looose");
    JsonNode one = awaited("Heather slope: Rail of the lookout is looose");
    assertThat(one.path("otherTitle").asText())
        .isEqualTo("Heather slope: Rail of the lookout is loose");
    assertThat(one.path("reasons").toString())
        .contains("One character of the title differs", "same bridge, of another record");
    String taken = task(second);

    JsonNode sides = api("/duplicates/" + one.path("id").asText() + "/sides");
    assertThat(sides.at("/ours/record").asText()).isEqualTo(taken);
    assertThat(sides.at("/other/record").asText()).isEqualTo(task(first));
    assertThat(sides.path("fields").findValuesAsText("name")).contains("Title");

    assertThat(answer(one, true).statusCode()).isEqualTo(200);
    await().atMost(LONG).until(() -> tasksOf(second).isEmpty());
    await()
        .atMost(LONG)
        .until(() -> api("/pairs?id=" + second).at("/0/task").asText().equals(task(first)));
    assertThat(possible(one.path("title").asText())).isEmpty();
    assertThat(answer(one, true).statusCode()).isEqualTo(409);

    // What changes at the second record is written to the task that both have.
    desk("PATCH", "/api/submissions/" + second, "{\"danger\":\"3\"}");
    settled(second, 2);
    assertThat(tasksOf(first).getFirst().path("priority").asInt()).isEqualTo(6);
    assertThat(tasksOf(second)).isEmpty();
  }

  @Test
  void whatSomebodyChangedMeanwhileStays() throws Exception {
    made("Alder pond", "Duckweed covers the inlet");
    String second = made("Alder pond", "Duckweed covers the inlets");
    JsonNode one = awaited("Alder pond: Duckweed covers the inlets");
    String task = task(second);
    JsonNode changed = board("PATCH", "/api/tasks/" + task, "{\"priority\":2}");
    assertThat(changed.path("priority").asInt()).as("%s", changed).isEqualTo(2);

    assertThat(answer(one, true).statusCode()).isEqualTo(200);
    await()
        .atMost(LONG)
        .untilAsserted(
            () -> {
              JsonNode recall = api("/recalls").path(0);
              assertThat(recall.path("state").asText()).as("%s", recall).isEqualTo("ENDED");
            });
    JsonNode recall = api("/recalls").path(0);
    assertThat(recall.at("/counts/stays").asInt()).as("%s", recall).isEqualTo(1);
    assertThat(task(second)).isEqualTo(task);
    assertThat(api("/pairs?id=" + task).at("/0/record").asText()).isEqualTo(second);
  }

  @Test
  void whatIsSaidToBeDifferentIsNotAskedAgainAndWhatIsDoneIsNotAsked() throws Exception {
    made("Juniper rise", "Signpost points the wrong way");
    made("Juniper rise", "Signpost point the wrong way");
    JsonNode one = awaited("Juniper rise: Signpost point the wrong way");
    assertThat(answer(one, false).statusCode()).isEqualTo(200);
    // Who still looks at both, sees them.
    assertThat(api("/duplicates/" + one.path("id").asText() + "/sides").path("fields"))
        .isNotEmpty();
    assertThat(possible(one.path("title").asText())).isEmpty();

    // Numbers tell things apart.
    made("Juniper rise", "Water tap 4 drips all day");
    made("Juniper rise", "Water tap 5 drips all day");
    // Of two of which one is done, nobody is asked.
    String done = made("Juniper rise", "Hedge hides the crossing");
    board("PATCH", "/api/tasks/" + task(done), "{\"lane\":\"finished\"}");
    made("Juniper rise", "Hedge hides the crosing");
    await().atMost(LONG).until(() -> api("/duplicates").path("unlooked").asInt() == 0);
    assertThat(titles()).noneMatch(title -> title.contains("tap") || title.contains("Hedge"));
  }

  @Test
  void bridgeThatStatesSoWaitsBeforeItMakesWhatReadsTheSame() throws Exception {
    var put =
        putBridge(
            "careful",
            """
            bridge: careful
            name: Careful
            purpose: To be stopped
            from: { system: visitor-desk, collection: hazard-reports, event: [created, changed] }
            to: { system: works-ledger, collection: jobs }
            lookups:
              report: { in: visitor-desk/hazard-reports, by: { id: /submission }, none: fail }
            when: { value: report/answers/place, starts-with: Careful court }
            match: [/submission]
            fields:
              title: { text: "{report/answers/place}, {report/answers/problem}" }
              status: { always: planned }
            duplicates: { compare: [status], wait-at: 0.9 }
            """);
    assertThat(put.statusCode()).as(put.body()).isBetween(200, 204);
    carefully("Fountain runs over at the rim");
    String second = carefully("Fountain runs over at the rimm");
    String third = carefully("Fountain runs over at thee rim");

    for (String waiting : List.of(second, third)) {
      JsonNode trace = careful(waiting).getFirst();
      assertThat(trace.path("verdict").asText()).isEqualTo("FAILED");
      assertThat(trace.path("reason").asText())
          .contains("It reads nearly like “Careful court, Fountain runs over at the rim” (");
    }
    JsonNode one = awaited("Careful court, Fountain runs over at the rimm");
    assertThat(one.path("reasons").toString()).contains("“Status” is the same");

    // The same: nothing is written over there, and the record goes on with that task.
    assertThat(answer(one, true).statusCode()).isEqualTo(200);
    await()
        .atMost(LONG)
        .until(() -> careful(second).getFirst().path("verdict").asText().equals("UNCHANGED"));
    String task = careful(second).getFirst().path("target").asText();
    // Another: it is made.
    awaited("Careful court, Fountain runs over at thee rim");
    for (JsonNode open : api("/duplicates").path("items")) {
      if (open.path("title").asText().equals("Careful court, Fountain runs over at thee rim")) {
        assertThat(answer(open, false).statusCode()).isEqualTo(200);
      }
    }
    await()
        .atMost(LONG)
        .until(() -> careful(third).getFirst().path("verdict").asText().equals("CREATE"));
    assertThat(careful(third).getFirst().path("target").asText()).isNotEqualTo(task);
    bridges.hold("careful", "The test is over", By.PERSON);
    bridges.retire("careful", "The test is over", By.PERSON);
  }

  private static String carefully(String problem) throws Exception {
    String number = report(Map.of("place", "Careful court", "problem", problem));
    await()
        .atMost(LONG)
        .until(
            () ->
                careful(number).stream()
                    .anyMatch(trace -> !trace.path("verdict").asText().equals("WAITING")));
    return number;
  }

  private static List<JsonNode> careful(String number) {
    return tracesOf(number).stream()
        .filter(trace -> trace.path("bridge").asText().equals("careful"))
        .toList();
  }

  private static List<String> titles() {
    return api("/duplicates").path("items").findValuesAsText("title");
  }
}
