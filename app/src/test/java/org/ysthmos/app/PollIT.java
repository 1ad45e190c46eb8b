package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.time.AppClock;

/** A register that tells nobody of anything is asked what changed. */
class PollIT extends AppTestBase {

  @Autowired private AppClock time;

  private static final String ASK = "/api/systems/friends-register/collections/pledges/ask";

  private static JsonNode friends(String method, String path, String body) throws Exception {
    String address = "http://127.0.0.1:" + FRIENDS.port() + path;
    var answer = send(method, address, body, Map.of("Authorization", "Bearer friends"));
    assertThat(answer.statusCode()).as(answer.body()).isLessThan(300);
    return JSON.readTree(answer.body());
  }

  private static String pledge(String what, String steward) throws Exception {
    String body = "{\"what\":\"%s\",\"stewardMail\":\"%s\",\"mail\":\"a@mail.example\"}";
    return friends("POST", "/api/pledges", body.formatted(what, steward)).path("id").asText();
  }

  private static void ask() throws Exception {
    assertThat(send("POST", app(ASK), "", Map.of()).statusCode()).isEqualTo(202);
  }

  private static JsonNode poll() {
    for (JsonNode poll : api("/polls")) {
      if (poll.path("system").asText().equals("friends-register")) {
        return poll;
      }
    }
    return JSON.createObjectNode();
  }

  private static JsonNode task(String pledge) throws Exception {
    JsonNode trace = tracesOf(pledge).getLast();
    return board("GET", "/api/tasks/" + trace.path("target").asText(), "");
  }

  /** The register counts from when it is first asked. */
  private static void asked() {
    await()
        .atMost(Duration.ofSeconds(20))
        .until(() -> !poll().path("askedAt").isNull() && !poll().path("askedAt").isMissingNode());
  }

  @Test
  void pledgeBecomesATaskOfItsStewardAndOfTheSecretaryWhereNobodyKnowsThem() throws Exception {
    asked();
    String known = pledge("A bench", " W.Oakes@tidewrack.example");
    String unknown = pledge("Labels", "nobody@mail.example");
    ask();
    JsonNode trace = settled(known, 1);
    settled(unknown, 1);
    assertThat(trace.path("verdict").asText()).isEqualTo("CREATE");
    assertThat(task(known).path("assignees").path(0).asText()).isEqualTo("bu-23");
    assertThat(task(unknown).path("assignees").path(0).asText()).isEqualTo("bu-21");
    assertThat(task(known).path("board").asText()).isEqualTo("society");
    assertThat(story(trace).at("/lines/0/text").asText())
        .isEqualTo("Asked Friends Register what changed, stored");
  }

  @Test
  void changeChangesTheTaskAndWhatIsReadAgainMakesNoEvent() throws Exception {
    asked();
    String number = pledge("A bench", "t.abara@tidewrack.example");
    ask();
    settled(number, 1);
    friends("PATCH", "/api/pledges/" + number, "{\"what\":\"Two benches\"}");
    ask();
    settled(number, 2);
    assertThat(task(number).path("title").asText()).endsWith("Two benches");
    // The overlap reads both again; a full round later there is still nothing new of them.
    String later = pledge("Something else", "");
    ask();
    settled(later, 1);
    assertThat(tracesOf(number)).hasSize(2);
    assertThat(tracesOf(number).getFirst().path("verdict").asText()).isEqualTo("UPDATE");
  }

  @Test
  void everyPledgeOfManyPagesIsTaken() throws Exception {
    asked();
    List<String> numbers = new ArrayList<>();
    for (int i = 0; i < 130; i++) {
      // Nothing is pledged, so that no task is made of it.
      numbers.add(pledge("", ""));
    }
    ask();
    for (String number : numbers) {
      assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("PASSED_BY");
    }
  }

  @Test
  void registerThatFailsIsAskedAgainAndNothingIsLost() throws Exception {
    asked();
    String number = pledge("A kiln", "");
    fault(FRIENDS.port(), "error", "GET", "/api/pledges", 2);
    ask();
    await()
        .atMost(Duration.ofSeconds(20))
        .until(() -> !poll().path("problem").asText().isEmpty() || !tracesOf(number).isEmpty());
    settled(number, 1);
    assertThat(poll().path("problem").asText()).isEmpty();
  }

  @Test
  void tokenThatIsRefusedIsNamedWithItsRemedy() throws Exception {
    asked();
    fault(FRIENDS.port(), "token-expired", "GET", "/api/pledges", 1);
    ask();
    await()
        .atMost(Duration.ofSeconds(20))
        .untilAsserted(
            () ->
                assertThat(poll().path("problem").asText())
                    .contains("Give the connection to Friends Register a valid token"));
    ask();
    await().atMost(Duration.ofSeconds(20)).until(() -> poll().path("problem").asText().isEmpty());
  }

  /** Who wants it asked more often need not wait until it would have been asked before. */
  @Test
  void shorterIntervalCountsFromTheLastTime() throws Exception {
    asked();
    String document = Files.readString(SETUP.resolve("bridges/pledge-follow-up.yaml"));
    String seldom = document.replace("every: PT1M", "every: PT3H");
    assertThat(seldom).isNotEqualTo(document);
    try {
      assertThat(putBridge("pledge-follow-up", seldom).statusCode()).isBetween(200, 204);
      String first = pledge("A wheelbarrow", "");
      ask();
      settled(first, 1);
      String second = pledge("Another wheelbarrow", "");
      assertThat(putBridge("pledge-follow-up", document).statusCode()).isBetween(200, 204);
      time.set(Instant.now().plus(Duration.ofMinutes(2)));
      settled(second, 1);
    } finally {
      time.release();
      putBridge("pledge-follow-up", document);
    }
  }

  @Test
  void whatIsNotAskedCannotBeAskedAtOnce() throws Exception {
    String path = "/api/systems/visitor-desk/collections/hazard-reports/ask";
    assertThat(send("POST", app(path), "", Map.of()).statusCode()).isEqualTo(404);
  }
}
