package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.who.By;

/** What failed of one cause is sent again together once that is mended. */
class ResendIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(30);
  private static final String BRIDGE = "sent-again";

  @Autowired private Bridges bridges;
  @Autowired private JdbcTemplate jdbc;

  @BeforeEach
  void bridgeOfItsOwn() throws Exception {
    putBridge(
        BRIDGE,
        """
        bridge: sent-again
        name: Sent again
        purpose: To fail and to be sent again
        from: { system: visitor-desk, collection: hazard-reports, event: [created] }
        to: { system: works-ledger, collection: jobs }
        match: [/submission]
        fields: { title: { text: "Again {/submission}" }, status: { always: planned } }
        """);
  }

  @AfterEach
  void noMoreOfIt() {
    bridges.hold(BRIDGE, "The test is over", By.PERSON);
    bridges.retire(BRIDGE, "The test is over", By.PERSON);
  }

  private static List<String> failed(int many) throws Exception {
    fault(LEDGER.port(), "forbidden", "POST", "/api/jobs", many);
    List<String> numbers = new ArrayList<>();
    for (int i = 0; i < many; i++) {
      numbers.add(report(Map.of()));
    }
    await().atMost(LONG).until(() -> waiting() == many);
    return numbers;
  }

  private static int waiting() {
    return StreamSupport.stream(api("/watch").path("needsYou").spliterator(), false)
        .filter(one -> one.path("bridge").asText().equals(BRIDGE))
        .mapToInt(one -> one.path("traces").asInt())
        .sum();
  }

  private static HttpResponse<String> again(String failure, int traces) throws Exception {
    return send(
        "POST",
        app("/api/resends"),
        "{\"bridge\":\"%s\",\"failure\":\"%s\",\"traces\":%d}".formatted(BRIDGE, failure, traces),
        Map.of("Content-Type", "application/json"));
  }

  private static JsonNode newest() {
    return api("/resends").path(0);
  }

  private static JsonNode ended() {
    await()
        .atMost(LONG)
        .until(
            () ->
                !newest().path("state").asText().equals("RUNNING")
                    && newest().path("underWay").asInt() == 0);
    return newest();
  }

  private static List<JsonNode> traces(String number) {
    return tracesOf(number).stream()
        .filter(trace -> trace.path("bridge").asText().equals(BRIDGE))
        .toList();
  }

  @Test
  void eachIsMadeOnceAndWhatFailsAgainWaitsAgain() throws Exception {
    List<String> numbers = failed(7);
    HttpResponse<String> seenOthers = again("NOT_ALLOWED", 5);
    assertThat(seenOthers.statusCode()).isEqualTo(409);
    assertThat(seenOthers.body()).contains("7 wait by now, not 5");

    fault(LEDGER.port(), "forbidden", "POST", "/api/jobs", 1);
    assertThat(again("NOT_ALLOWED", 7).statusCode()).isEqualTo(202);
    JsonNode ended = ended();
    assertThat(ended.path("state").asText()).isEqualTo("SENT");
    assertThat(ended.path("sent").asInt()).isEqualTo(7);
    assertThat(ended.path("failed").asInt()).isEqualTo(1);
    assertThat(ended.path("bridgeName").asText()).isEqualTo("Sent again");
    assertThat(waiting()).isEqualTo(1);

    assertThat(again("NOT_ALLOWED", 1).statusCode()).isEqualTo(202);
    assertThat(ended().path("failed").asInt()).isZero();
    assertThat(waiting()).isZero();
    for (String number : numbers) {
      assertThat(traces(number))
          .filteredOn(trace -> trace.path("verdict").asText().equals("CREATE"))
          .hasSize(1);
    }
    assertThat(story(traces(numbers.getFirst()).getFirst()).toString())
        .contains("Sent again with all that failed of this kind, by a person");
  }

  /** As a process that was killed leaves it: begun, and one of them sent. */
  @Test
  void whatAnotherProcessBeganGoesOn() throws Exception {
    failed(3);
    jdbc.update(
        "INSERT INTO resend (bridge_id, kind, until_seq, done_seq, total, sent, state, asked_by, begun_at) SELECT ?, 'NOT_ALLOWED', MAX(trace_seq), MIN(trace_seq), 3, 1, 'RUNNING', 'person', CURRENT_TIMESTAMP FROM attention WHERE queue_id = ?",
        BRIDGE,
        BRIDGE);
    JsonNode ended = ended();
    assertThat(ended.path("state").asText()).isEqualTo("SENT");
    assertThat(ended.path("sent").asInt()).isEqualTo(3);
    assertThat(waiting()).isEqualTo(1);
  }

  /** Nobody knows whether these were made: each is looked for by a person. */
  @Test
  void whatMayHaveBeenMadeIsNotSentTogether() throws Exception {
    HttpResponse<String> refused = again("ANSWER_UNKNOWN", 3);
    assertThat(refused.statusCode()).isEqualTo(409);
    assertThat(refused.body()).contains("Nobody knows whether these were made");
    assertThat(again("NOT_ALLOWED", 0).statusCode()).isEqualTo(409);
    assertThat(again("NO_SUCH", 1).statusCode()).isEqualTo(400);
  }

  @Test
  void whatIsStoppedWaitsAsBefore() throws Exception {
    failed(3);
    // No event of the bridge is decided meanwhile, so that the wish can be stopped in any case.
    bridges.hold(BRIDGE, "for the test", By.PERSON);
    assertThat(again("NOT_ALLOWED", 3).statusCode()).isEqualTo(202);
    assertThat(again("NOT_ALLOWED", 3).statusCode()).isEqualTo(409);
    String id = newest().path("id").asText();
    int stopped = send("DELETE", app("/api/resends/" + id), "", Map.of()).statusCode();
    JsonNode resend = newest();
    assertThat(stopped).isIn(204, 409);
    assertThat(resend.path("sent").asInt() + waiting()).isEqualTo(3);
    bridges.release(BRIDGE, By.PERSON);
    assertThat(ended().path("failed").asInt()).isZero();
    if (waiting() > 0) {
      assertThat(again("NOT_ALLOWED", waiting()).statusCode()).isEqualTo(202);
      ended();
    }
    await().atMost(LONG).until(() -> waiting() == 0);
  }
}
