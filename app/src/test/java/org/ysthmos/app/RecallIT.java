package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.apache.ibatis.session.SqlSession;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.who.By;

/** What bridges made is taken back, exactly, and nothing that somebody worked on. */
class RecallIT extends RecallTestBase {

  private static final String LOOKED = "org.ysthmos.app.recall.RecallMapper.looked";

  @Autowired private Bridges bridges;
  @Autowired private Systems systems;
  @Autowired private SqlSession sql;

  @Test
  void whatNobodyTouchedGoesAndIsNotMadeAgain() throws Exception {
    put("taking");
    String number = report(Map.of("problem", "taking and once more"));
    String first = own("taking", number, 1).path("target").asText();
    List<String> jobs = made("taking", 3);
    changeByHand(jobs.get(1));
    // What is held can be taken back: it is the usual case.
    bridges.hold("taking", "It ran away", By.ENGINE);

    String path = list("taking");
    looked(path);
    assertThat(records(path))
        .extracting(one -> one.path("record").asText() + " " + one.path("looked").asText())
        .containsExactly(
            jobs.get(2) + " SAME",
            jobs.get(1) + " CHANGED",
            jobs.get(0) + " SAME",
            first + " SAME");
    assertThat(ofJob(path, jobs.get(1)).path("chosen").asBoolean()).isFalse();
    assertThat(ofJob(path, first).path("where").asText()).isEqualTo("Jobs of Works Ledger");
    HttpResponse<String> others =
        ask("POST", path + "/start", "{\"records\":4,\"evenIfChanged\":false}");
    assertThat(others.statusCode()).isEqualTo(409);
    assertThat(others.body()).contains("3 are to go by now, not 4");
    for (String job : jobs) {
      assertThat(isThere(job)).isTrue();
    }

    begin(path, 3);
    JsonNode ended = ended(path);
    assertThat(ended.at("/counts/takenBack").asInt()).isEqualTo(3);
    assertThat(ended.at("/counts/leftOut").asInt()).isEqualTo(1);
    assertThat(isThere(first)).isFalse();
    assertThat(isThere(jobs.get(0))).isFalse();
    assertThat(isThere(jobs.get(1))).isTrue();
    assertThat(isThere(jobs.get(2))).isFalse();
    JsonNode trace = ownTraces("taking", number).getFirst();
    assertThat(trace.path("verdict").asText()).isEqualTo("CREATE");
    assertThat(story(trace).toString())
        .contains("is to be taken away", "Took the task away at Works Ledger");

    bridges.release("taking", By.PERSON);
    desk("PATCH", "/api/submissions/" + number, "{\"place\":\"Rope bridge\"}");
    JsonNode later = own("taking", number, 2);
    assertThat(later.path("verdict").asText()).isEqualTo("UNCHANGED");
    assertThat(story(later).toString())
        .contains("was taken back and is not made again unless a person says so");

    // A new list knows what is gone; what somebody changed goes if a person says so.
    String second = list("taking");
    assertThat(recall(second).at("/counts/goneBefore").asInt()).isEqualTo(3);
    looked(second);
    assertThat(ask("POST", second + "/start", "{\"records\":0}").statusCode()).isEqualTo(409);
    String delivery = ofJob(second, jobs.get(1)).path("delivery").asText();
    asked("PUT", second + "/records/" + delivery, "{\"chosen\":true}");
    begin(second, 1);
    ended(second);
    assertThat(isThere(jobs.get(1))).isFalse();

    // Made again because a person says so, of the newest that is known.
    asked("POST", path + "/make-again", "");
    await().atMost(LONG).until(() -> recall(path).path("state").asText().equals("MADE_AGAIN"));
    JsonNode again = own("taking", number, 3);
    assertThat(again.path("verdict").asText()).isEqualTo("CREATE");
    JsonNode job = ledger("GET", "/api/jobs/" + again.path("target").asText(), "");
    assertThat(job.path("description").asText()).isEqualTo("Rope bridge");
    assertThat(isThere(jobs.get(1))).isFalse();
  }

  @Test
  void whatIsRefusedIsSaidAndTriedOnceMoreAndWhatOthersRemovedIsGone() throws Exception {
    put("refusing");
    List<String> jobs = made("refusing", 2);
    String path = list("refusing");
    looked(path);
    ledger("DELETE", "/api/jobs/" + jobs.get(0), "");
    fault(LEDGER.port(), "forbidden", "DELETE", "/api/jobs", 1);
    begin(path, 2);
    JsonNode ended = ended(path);
    assertThat(ended.at("/counts/goneBefore").asInt()).isEqualTo(1);
    assertThat(ended.at("/counts/failed").asInt()).isEqualTo(1);
    assertThat(ofJob(path, jobs.get(1)).path("words").asText()).isNotBlank();
    assertThat(isThere(jobs.get(1))).isTrue();
    assertThat(ownTraces("refusing", "refusing").getFirst().path("verdict").asText())
        .isEqualTo("CREATE");

    asked("POST", path + "/go-on", "");
    await().atMost(LONG).until(() -> recall(path).at("/counts/takenBack").asInt() == 1);
    ended(path);
    assertThat(isThere(jobs.get(1))).isFalse();
    HttpResponse<String> nothing = ask("POST", path + "/go-on", "");
    assertThat(nothing.body()).contains("Nothing is left");
  }

  @Test
  void changedJustBeforeItGoesItStays() throws Exception {
    put("late");
    List<String> jobs = made("late", 1);
    String path = list("late");
    looked(path);
    changeByHand(jobs.getFirst());
    begin(path, 1);
    JsonNode ended = ended(path);
    assertThat(ended.at("/counts/stays").asInt()).isEqualTo(1);
    assertThat(ofJob(path, jobs.getFirst()).path("words").asText())
        .isEqualTo("Somebody changed it since");
    assertThat(isThere(jobs.getFirst())).isTrue();
  }

  @Test
  void lookThatEndsAfterSomebodyBeganLeavesNothingOut() throws Exception {
    put("late-look");
    made("late-look", 2);
    String path = list("late-look");
    looked(path);
    String second = records(path).getLast().path("delivery").asText();
    Map<String, Object> changed =
        Map.of(
            "id",
            Long.valueOf(path.substring(1)),
            "delivery",
            Long.valueOf(second),
            "looked",
            "CHANGED",
            "words",
            "Somebody changed it since",
            "goes",
            true);
    assertThat(sql.update(LOOKED, changed)).as("while it is a list").isEqualTo(1);

    asked("PUT", path + "/records/" + second, "{\"chosen\":false}");
    begin(path, 1);
    ended(path);
    assertThat(sql.update(LOOKED, changed)).as("once it was begun").isZero();
  }

  @Test
  void whatStandsUnderAnotherGoesBeforeItAndKeepsItIfItStays() throws Exception {
    put(
        "family",
        "works-ledger",
        """
        set:
          anchor: { value: report/answers/seenOn, steps: [read-day: d MMMM uuuu] }
          tasks:
            whole: { offset: P0D, fields: { title: { text: "family {/submission}" } } }
            one: { offset: P1D, parent: whole, fields: { title: { text: "one {/submission}" } } }
            two: { offset: P2D, parent: whole, fields: { title: { text: "two {/submission}" } } }
        fields: { due: set/day, status: { always: planned } }
        """);
    String kept = report(Map.of("problem", "family kept"));
    own("family", kept, 1);
    String path = list("family");
    looked(path);
    List<JsonNode> records = records(path);
    assertThat(records).hasSize(3);
    String whole = records.getLast().path("record").asText();
    String one = records.get(1).path("record").asText();
    changeByHand(one);
    begin(path, 3);
    JsonNode ended = ended(path);
    assertThat(ended.at("/counts/takenBack").asInt()).isEqualTo(1);
    assertThat(ofJob(path, whole).path("words").asText()).isEqualTo("What stands under it stays");
    assertThat(isThere(whole)).isTrue();
    assertThat(isThere(one)).isTrue();

    String second = list("family");
    looked(second);
    String delivery = ofJob(second, one).path("delivery").asText();
    asked("PUT", second + "/records/" + delivery, "{\"chosen\":true}");
    asked("POST", second + "/start", "{\"records\":2,\"evenIfChanged\":true}");
    ended(second);
    assertThat(isThere(whole)).isFalse();
    assertThat(isThere(one)).isFalse();
  }

  /** Where nothing can be taken away it is closed; a stop leaves what was not sent. */
  @Test
  void whereNothingCanBeTakenAwayItIsClosed() throws Exception {
    String document =
        Files.readString(SETUP.resolve("systems/works-ledger.yaml"))
            .replace("system: works-ledger", "system: closing-ledger")
            .replaceFirst("http://127.0.0.1:\\d+", "http://127.0.0.1:" + LEDGER.port())
            .replaceFirst(" *closed: .*\n", "")
            .replaceFirst("remove: .*", "closed: { status: dropped }");
    systems.put(document);
    bridges.refresh();
    put("closing", "closing-ledger", "fields: { title: { text: \"closing {/submission}\" } }");
    List<String> jobs = made("closing", 1);
    String path = list("closing");
    assertThat(records(path).getFirst().path("way").asText()).isEqualTo("CLOSE");
    looked(path);
    begin(path, 1);
    assertThat(ended(path).at("/counts/takenBack").asInt()).isEqualTo(1);
    assertThat(ledger("GET", "/api/jobs/" + jobs.getFirst(), "").path("status").asText())
        .isEqualTo("dropped");
  }

  @Test
  void stopLeavesWhatWasNotSentAndGoingOnTakesTheRest() throws Exception {
    put("stopping");
    List<String> jobs = made("stopping", 3);
    String path = list("stopping");
    looked(path);
    fault(LEDGER.port(), "down", "", "/api/jobs", 100_000);
    begin(path, 3);
    await().atMost(LONG).until(() -> recall(path).at("/counts/underWay").asInt() == 3);
    asked("POST", path + "/stop", "");
    assertThat(recall(path).path("state").asText()).isEqualTo("STOPPED");
    assertThat(ask("POST", path + "/stop", "").statusCode()).isEqualTo(409);
    send("DELETE", "http://127.0.0.1:" + LEDGER.port() + "/control/faults", "", Map.of());

    // What was being sent just then goes its way; all others wait for a person.
    await().atMost(LONG).until(() -> recall(path).at("/counts/underWay").asInt() == 0);
    int left = recall(path).at("/counts/chosen").asInt();
    long there = 0;
    for (String job : jobs) {
      there += isThere(job) ? 1 : 0;
    }
    assertThat(there).isEqualTo(left);
    if (left > 0) {
      asked("POST", path + "/go-on", "");
      ended(path);
    }
    for (String job : jobs) {
      assertThat(isThere(job)).isFalse();
    }
  }

  @Test
  void whatMakesNoSenseIsRefused() throws Exception {
    put("empty");
    Instant now = Instant.now();
    String wish = "{\"bridge\":\"%s\",\"from\":\"%s\",\"until\":\"%s\"}";
    HttpResponse<String> nothing =
        ask("POST", "", wish.formatted("empty", now.minusSeconds(9), now));
    assertThat(nothing.statusCode()).isEqualTo(409);
    assertThat(nothing.body()).contains("Nothing was made");
    assertThat(ask("POST", "", wish.formatted("nobody", now.minusSeconds(9), now)).statusCode())
        .isEqualTo(404);
    assertThat(ask("POST", "", wish.formatted("empty", now, now)).statusCode()).isEqualTo(400);
    assertThat(ask("POST", "", "{\"bridge\":\"empty\"}").statusCode()).isEqualTo(400);
    assertThat(ask("GET", "/999999999", "").statusCode()).isEqualTo(404);
    assertThat(ask("POST", "", "{\"trace\":\"none\"}").statusCode()).isEqualTo(404);
  }
}
