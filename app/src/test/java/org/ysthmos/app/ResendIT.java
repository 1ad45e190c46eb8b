package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
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
  private static final String CAUSE = "REFUSED/works-ledger";

  @Autowired private Bridges bridges;
  @Autowired private JdbcTemplate jdbc;

  @BeforeEach
  void bridgeOfItsOwn() throws Exception {
    // What other tests left at the same system is of the same incident.
    jdbc.update("DELETE FROM attention WHERE cause = ?", CAUSE);
    putBridge(BRIDGE, document("Again"));
  }

  private static String document(String title) {
    return """
        bridge: sent-again
        name: Sent again
        purpose: To fail and to be sent again
        from: { system: visitor-desk, collection: hazard-reports, event: [created] }
        to: { system: works-ledger, collection: jobs }
        match: [/submission]
        fields: { title: { text: "%s {/submission}" }, status: { always: planned } }
        """
        .formatted(title);
  }

  private List<String> failed(int many) throws Exception {
    fault(LEDGER.port(), "forbidden", "POST", "/api/jobs", many);
    List<String> numbers = new ArrayList<>();
    for (int i = 0; i < many; i++) {
      numbers.add(report(Map.of()));
    }
    await().atMost(LONG).until(() -> waiting() == many);
    return numbers;
  }

  private int waiting() {
    Integer waiting =
        jdbc.queryForObject(
            "SELECT COUNT(*) FROM attention WHERE queue_id = ?", Integer.class, BRIDGE);
    return waiting == null ? 0 : waiting;
  }

  private static long incident() {
    return StreamSupport.stream(api("/incidents").path("open").spliterator(), false)
        .filter(one -> one.path("bridges").toString().contains("\"" + BRIDGE + "\""))
        .mapToLong(one -> one.path("id").asLong())
        .findFirst()
        .orElse(0);
  }

  private static HttpResponse<String> again(int traces) throws Exception {
    await().atMost(LONG).until(() -> incident() > 0);
    return again(incident(), traces);
  }

  private static HttpResponse<String> again(long incident, int traces) throws Exception {
    return send(
        "POST",
        app("/api/resends"),
        "{\"incident\":%d,\"traces\":%d}".formatted(incident, traces),
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
    HttpResponse<String> seenOthers = again(5);
    assertThat(seenOthers.statusCode()).isEqualTo(409);
    assertThat(seenOthers.body()).contains("7 wait by now, not 5");

    fault(LEDGER.port(), "forbidden", "POST", "/api/jobs", 1);
    assertThat(again(7).statusCode()).isEqualTo(202);
    JsonNode ended = ended();
    assertThat(ended.path("state").asText()).isEqualTo("SENT");
    assertThat(ended.path("sent").asInt()).isEqualTo(7);
    assertThat(ended.path("failed").asInt()).isEqualTo(1);
    assertThat(ended.path("title").asText()).contains("Works Ledger");
    assertThat(waiting()).isEqualTo(1);

    assertThat(again(1).statusCode()).isEqualTo(202);
    assertThat(ended().path("failed").asInt()).isZero();
    assertThat(waiting()).isZero();
    for (String number : numbers) {
      assertThat(traces(number))
          .filteredOn(trace -> trace.path("verdict").asText().equals("CREATE"))
          .hasSize(1);
    }
    assertThat(story(traces(numbers.getFirst()).getFirst()).toString())
        .contains("Sent again with all that failed of this cause, by a person");
  }

  /** As a process that was killed leaves it: begun, and one of them sent. */
  @Test
  void whatAnotherProcessBeganGoesOn() throws Exception {
    failed(3);
    jdbc.update(
        "INSERT INTO resend (incident_id, cause, until_seq, done_seq, total, sent, state, asked_by, begun_at) SELECT 0, ?, MAX(trace_seq), MIN(trace_seq), 3, 1, 'RUNNING', 'person', CURRENT_TIMESTAMP FROM attention WHERE queue_id = ?",
        CAUSE,
        BRIDGE);
    JsonNode ended = ended();
    assertThat(ended.path("state").asText()).isEqualTo("SENT");
    assertThat(ended.path("sent").asInt()).isEqualTo(3);
    assertThat(waiting()).isEqualTo(1);
  }

  @Test
  void thereMustBeSomethingToSend() throws Exception {
    assertThat(again(Long.MAX_VALUE, 1).statusCode()).isEqualTo(404);
    failed(1);
    assertThat(again(0).statusCode()).isEqualTo(409);
    assertThat(again(1).statusCode()).isEqualTo(202);
    ended();
  }

  /** Nobody knows whether these were made: each is looked for by a person. */
  @Test
  void whatMayHaveBeenMadeIsNotSentTogether() throws Exception {
    failed(2);
    long incident = incident();
    jdbc.update(
        "UPDATE attention SET kind = 'ANSWER_UNKNOWN' WHERE trace_seq IN (SELECT MAX(trace_seq) FROM attention WHERE queue_id = ?)",
        BRIDGE);
    assertThat(again(incident, 2).statusCode()).isEqualTo(409);
    assertThat(again(incident, 1).statusCode()).isEqualTo(202);
    assertThat(ended().path("sent").asInt()).isEqualTo(1);
    assertThat(waiting()).isEqualTo(1);
  }

  @Test
  void whatIsStoppedWaitsAsBefore() throws Exception {
    failed(3);
    // No event of the bridge is decided meanwhile, so that the wish can be stopped in any case.
    bridges.hold(BRIDGE, "for the test", By.PERSON);
    await().atMost(LONG).until(() -> incident() > 0);
    long incident = incident();
    assertThat(again(incident, 3).statusCode()).isEqualTo(202);
    assertThat(again(incident, 3).statusCode()).isEqualTo(409);
    String id = newest().path("id").asText();
    int stopped = send("DELETE", app("/api/resends/" + id), "", Map.of()).statusCode();
    JsonNode resend = newest();
    assertThat(stopped).isIn(204, 409);
    assertThat(resend.path("sent").asInt() + waiting()).isEqualTo(3);
    bridges.release(BRIDGE, By.PERSON);
    assertThat(ended().path("failed").asInt()).isZero();
    if (waiting() > 0) {
      assertThat(again(waiting()).statusCode()).isEqualTo(202);
      ended();
    }
    await().atMost(LONG).until(() -> waiting() == 0);
  }

  private static JsonNode asked(String path, ObjectNode wish) throws Exception {
    return JSON.readTree(sent(path, wish).body());
  }

  private static HttpResponse<String> sent(String path, ObjectNode wish) throws Exception {
    return send(
        "POST", app("/api" + path), wish.toString(), Map.of("Content-Type", "application/json"));
  }

  /** What a person chose crosses by the version that it had, or by the one that is live. */
  @Test
  void whatWasChosenCrossesByTheRulesOfThenOrOfNow() throws Exception {
    List<String> numbers = failed(3);
    List<String> ids =
        numbers.stream().map(number -> traces(number).getFirst().path("id").asText()).toList();
    putBridge(BRIDGE, document("Renamed"));
    ObjectNode wish = JSON.createObjectNode();
    ids.subList(0, 2).forEach(wish.putArray("chosen")::add);
    wish.put("rules", "AS_BEFORE");

    JsonNode foreseen = asked("/foreseen", wish);
    assertThat(foreseen.path("sendable").asInt()).isEqualTo(2);
    assertThat(foreseen.at("/foreseen/0/was").asText()).isEqualTo("FAILED");
    assertThat(foreseen.at("/foreseen/0/verdict").asText()).isEqualTo("CREATE");
    assertThat(foreseen.at("/foreseen/0/fields").toString())
        .contains("Again " + numbers.getFirst());
    assertThat(traces(numbers.getFirst())).hasSize(1);

    assertThat(sent("/resends", wish.deepCopy().put("traces", 3)).statusCode()).isEqualTo(409);
    assertThat(sent("/resends", wish.put("traces", 2)).statusCode()).isEqualTo(202);
    JsonNode ended = ended();
    assertThat(ended.path("sent").asInt()).isEqualTo(2);
    assertThat(ended.path("failed").asInt()).isZero();
    assertThat(ended.path("title").asText()).isEqualTo("2 that were chosen");
    JsonNode fresh = traces(numbers.getFirst()).getFirst();
    assertThat(fresh.path("title").asText()).startsWith("Again");
    assertThat(fresh.path("version").asInt())
        .isEqualTo(traces(numbers.getFirst()).getLast().path("version").asInt());
    assertThat(story(fresh).toString()).contains("with version " + fresh.path("version").asInt());
    assertThat(waiting()).isEqualTo(1);

    // The third by the rules of now; the others cannot be sent again from where they failed.
    wish = JSON.createObjectNode();
    ids.forEach(wish.putArray("chosen")::add);
    foreseen = asked("/foreseen", wish);
    assertThat(foreseen.path("sendable").asInt()).isEqualTo(1);
    assertThat(foreseen.at("/foreseen/0/left").asText()).contains("sent again already");
    assertThat(sent("/resends", wish.put("traces", 1)).statusCode()).isEqualTo(202);
    ended();
    assertThat(traces(numbers.getLast()).getFirst().path("title").asText()).startsWith("Renamed");
  }

  /** A version that fits its systems no more ends what was to cross by it, and says what to do. */
  @Test
  void versionThatCannotBeUsedAnyMoreIsNamed() throws Exception {
    List<String> numbers = failed(1);
    JsonNode trace = traces(numbers.getFirst()).getFirst();
    putBridge(BRIDGE, document("Renamed"));
    jdbc.update(
        "UPDATE bridge_version SET document = REPLACE(document, 'title:', 'headline:')"
            + " WHERE bridge_id = ? AND number = ?",
        BRIDGE,
        trace.path("version").asInt());
    var answer =
        send(
            "POST",
            app("/api/traces/" + trace.path("id").asText() + "/resend?rules=AS_BEFORE"),
            "",
            Map.of());
    assertThat(answer.statusCode()).isEqualTo(202);
    await()
        .atMost(LONG)
        .until(
            () ->
                traces(numbers.getFirst()).size() == 2
                    && traces(numbers.getFirst())
                        .getFirst()
                        .path("verdict")
                        .asText()
                        .equals("FAILED"));
    assertThat(traces(numbers.getFirst()).getFirst().path("reason").asText())
        .contains("cannot be used any more", "headline", "rules that are live");
  }
}
