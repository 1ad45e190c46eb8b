package org.ysthmos.app;

import static java.util.Objects.requireNonNull;
import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.StreamSupport;
import org.apache.ibatis.session.SqlSession;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.who.By;

/** What fails of one cause is one incident, whichever bridges it is of and whatever it says. */
class IncidentIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(30);
  private static final List<String> OWN = List.of("incident-one", "incident-two");

  @Autowired private Bridges bridges;
  @Autowired private JdbcTemplate jdbc;
  @Autowired private SqlSession session;
  @Autowired private TransactionTemplate transaction;

  @BeforeEach
  void bridgesOfItsOwn() throws Exception {
    noneLeftBy("REFUSED/works-ledger");
    for (String id : OWN) {
      put(id, "{ always: planned }");
    }
  }

  private static void put(String id, String status) throws Exception {
    HttpResponse<String> answer =
        putBridge(
            id,
            """
            bridge: %s
            name: Bridge %s
            purpose: To fail
            from: { system: visitor-desk, collection: hazard-reports, event: [created] }
            to: { system: works-ledger, collection: jobs }
            match: [/submission]
            fields: { title: { text: "Of %s {/submission}" }, status: %s }
            """
                .formatted(id, id, id, status));
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  /** What other tests left of a cause is none of this one's. */
  private void noneLeftBy(String cause) {
    jdbc.update("DELETE FROM attention WHERE cause = ?", cause);
    jdbc.update("DELETE FROM failure_count WHERE cause = ?", cause);
    jdbc.update("DELETE FROM incident WHERE cause = ?", cause);
  }

  private static List<JsonNode> open() {
    return StreamSupport.stream(api("/incidents").path("open").spliterator(), false).toList();
  }

  private static Optional<JsonNode> of(String bridge) {
    return open().stream()
        .filter(one -> one.path("bridges").toString().contains("\"" + bridge + "\""))
        .findFirst();
  }

  private static JsonNode waiting(String bridge, int many) {
    await()
        .atMost(LONG)
        .until(() -> of(bridge).map(one -> one.path("waiting").asInt()).orElse(0) == many);
    return of(bridge).orElseThrow();
  }

  private static HttpResponse<String> ask(String method, String path, String body)
      throws Exception {
    return send(method, app("/api" + path), body, Map.of("Content-Type", "application/json"));
  }

  private static JsonNode page(JsonNode line) {
    return api("/incidents/" + line.path("id").asText());
  }

  @Test
  void oneForAllBridgesUntilAllWasSentAgainAndAgainTheSameIfItComesBack() throws Exception {
    fault(LEDGER.port(), "forbidden", "POST", "/api/jobs", 6);
    String first = report(Map.of());
    report(Map.of());
    report(Map.of());
    JsonNode line = waiting("incident-one", 6);
    await()
        .untilAsserted(
            () -> {
              JsonNode seen = of("incident-one").orElseThrow();
              assertThat(seen.path("headline").asText())
                  .isEqualTo("Our account may not do this at Works Ledger");
              assertThat(seen.path("bridges")).hasSize(2);
            });
    assertThat(open().stream().filter(one -> one.toString().contains("\"incident-two\"")))
        .hasSize(1);
    JsonNode page = page(line);
    assertThat(page.path("shares"))
        .extracting(share -> share.path("name").asText() + share.path("failed").asInt())
        .containsExactly("Bridge incident-one3", "Bridge incident-two3");
    assertThat(page.path("groups").get(0).path("effect").asText()).isEqualTo("CREATE");
    assertThat(page.path("groups").get(0).path("kind").asText()).isEqualTo("not allowed");
    assertThat(page.path("findings").get(0).path("speaksFor").toString())
        .contains("It said “not allowed” to 6 events.");

    String failed =
        api("/traces?verdict=needs-you&bridge=incident-one")
            .path("traces")
            .get(0)
            .path("id")
            .asText();
    assertThat(api("/traces/" + failed).path("incident")).isEqualTo(line.path("id"));

    String id = "/incidents/" + line.path("id").asText();
    assertThat(ask("PUT", id + "/mending", "{\"text\":\"Asking Rui\"}").statusCode())
        .isEqualTo(200);
    HttpResponse<String> second = ask("PUT", id + "/mending", "{}");
    assertThat(second.statusCode()).isEqualTo(409);
    assertThat(second.body()).contains("Somebody is at it");
    assertThat(ask("POST", id + "/notes", "{\"text\":\" \"}").statusCode()).isEqualTo(400);
    assertThat(ask("POST", id + "/notes", "{\"text\":\"Rui gave it back\"}").statusCode())
        .isEqualTo(200);

    // What each would become is seen first, and nothing comes of looking.
    JsonNode foreseen = api("/foreseen?incident=" + line.path("id").asText());
    assertThat(foreseen.path("inAll").asInt()).isEqualTo(6);
    assertThat(foreseen.path("foreseen"))
        .hasSize(6)
        .allSatisfy(one -> assertThat(one.path("verdict").asText()).isEqualTo("CREATE"))
        .allSatisfy(one -> assertThat(one.path("reason").asText()).contains("may not do that"))
        .allSatisfy(
            one -> assertThat(one.at("/fields/0/value").asText()).startsWith("Of incident-"));
    assertThat(of("incident-one").orElseThrow().path("waiting").asInt()).isEqualTo(6);

    // What was sent again and is still under way is still of it.
    bridges.hold("incident-one", "To look at it", By.PERSON);
    ask("POST", "/resends", "{\"incident\":%s,\"traces\":6}".formatted(line.path("id").asText()));
    JsonNode sent = waiting("incident-one", 3);
    assertThat(sent.path("headline")).isEqualTo(line.path("headline"));
    assertThat(sent.path("sendable").asInt()).isZero();
    ask("DELETE", "/bridges/incident-one/hold", "");
    await().atMost(LONG).until(() -> of("incident-one").isEmpty());
    JsonNode closed = page(line);
    assertThat(closed.path("incident").path("state").asText()).isEqualTo("CLOSED");
    assertThat(closed.path("lines"))
        .extracting(one -> one.path("text").asText())
        .contains(
            "Being mended: Asking Rui",
            "Rui gave it back",
            "Sending 6 again",
            "Closed by itself: nothing of it waits any more");
    // Who asks about one of its events is still told of it.
    assertThat(
            api("/where/record?system=visitor-desk&collection=hazard-reports&record=" + first)
                .path("incidents")
                .valueStream())
        .filteredOn(one -> one.path("id").equals(line.path("id")))
        .singleElement()
        .satisfies(one -> assertThat(one.path("closedAt").isTextual()).isTrue());
    assertThat(ask("PUT", id + "/mending", "{}").body()).contains("Closed by now");

    fault(LEDGER.port(), "forbidden", "POST", "/api/jobs", 2);
    report(Map.of());
    JsonNode again = waiting("incident-one", 2);
    assertThat(again.path("id")).isEqualTo(line.path("id"));
    assertThat(again.path("cameBack").asInt()).isEqualTo(1);
    assertThat(api("/incidents").path("open").toString()).contains("\"cameBack\":1");
  }

  @Test
  void bridgeThatWasRetiredIsStillCalledByItsName() throws Exception {
    fault(LEDGER.port(), "forbidden", "POST", "/api/jobs", 2);
    report(Map.of());
    JsonNode line = waiting("incident-one", 2);
    for (String id : OWN) {
      bridges.hold(id, "They are to be silent", By.PERSON);
      bridges.retire(id, "They are to be silent", By.PERSON);
    }
    assertThat(page(line).path("shares"))
        .extracting(share -> share.path("name").asText())
        .containsExactly("Bridge incident-one", "Bridge incident-two");
  }

  @Test
  void whatIsNotThereIsSaid() throws Exception {
    HttpResponse<String> answer = ask("GET", "/incidents/9223372036854775807", "");
    assertThat(answer.statusCode()).isEqualTo(404);
    assertThat(answer.body()).contains("There is no incident");
    assertThat(ask("GET", "/incidents/first", "").statusCode()).isEqualTo(400);
  }

  @Test
  void bridgeThatHeldItselfIsOneUntilItIsReleased() throws Exception {
    bridges.hold("incident-one", "It would have come to 61 new tasks", By.ENGINE);
    await().atMost(LONG).until(() -> of("incident-one").isPresent());
    JsonNode line = of("incident-one").orElseThrow();
    assertThat(line.path("heldBridge").asText()).isEqualTo("incident-one");
    report(Map.of());
    JsonNode held = waiting("incident-one", 1);
    assertThat(held.path("goesOn").asBoolean()).isTrue();
    assertThat(held.path("sendable").asInt()).isZero();

    JsonNode foreseen = api("/foreseen?bridge=incident-one").path("foreseen");
    assertThat(foreseen).hasSize(1);
    assertThat(foreseen.at("/0/verdict").asText()).isEqualTo("CREATE");
    assertThat(ask("GET", "/foreseen", "").statusCode()).isEqualTo(400);
    assertThat(ask("GET", "/foreseen?bridge=none", "").statusCode()).isEqualTo(404);

    ask("DELETE", "/bridges/incident-one/hold", "");
    await().atMost(LONG).until(() -> of("incident-one").isEmpty());

    // A hold by a person is no incident: they know of it.
    bridges.hold("incident-one", "To look at it", By.PERSON);
    await().during(Duration.ofMillis(300)).until(() -> of("incident-one").isEmpty());
  }

  private long opened(String headline) {
    jdbc.update(
        """
        INSERT INTO incident (cause, state, opened_at, came_back, headline, waiting, bridges, found)
        VALUES (?, 'OPEN', CURRENT_TIMESTAMP, 0, ?, 0, '', '{}')
        """,
        "ALIKE/" + headline,
        headline);
    return requireNonNull(
        jdbc.queryForObject("SELECT id FROM incident WHERE headline = ?", Long.class, headline));
  }

  private void close(long id) {
    int closed =
        session.update(
            "org.ysthmos.app.incident.IncidentMapper.close",
            Map.of("id", id, "now", Instant.now()));
    assertThat(closed).isEqualTo(1);
  }

  private List<Long> closedBefore(long place) {
    List<IncidentRow> rows =
        session.selectList(
            "org.ysthmos.app.incident.IncidentMapper.closed", Map.of("before", place, "limit", 9));
    return rows.stream().map(IncidentRow::id).toList();
  }

  /** One that came long ago and closed just now is news. */
  @Test
  void lastThatClosedStandsFirstWhicheverCameFirst() {
    transaction.executeWithoutResult(
        status -> {
          long first = opened("Came first");
          long second = opened("Came second");
          close(second);
          close(first);
          assertThat(closedBefore(Long.MAX_VALUE)).containsSubsequence(first, second);
          Long place =
              jdbc.queryForObject("SELECT closing FROM incident WHERE id = ?", Long.class, first);
          assertThat(closedBefore(requireNonNull(place))).contains(second).doesNotContain(first);
          status.setRollbackOnly();
        });
  }
}
