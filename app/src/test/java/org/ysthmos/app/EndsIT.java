package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.keep.Purger;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.who.By;
import org.ysthmos.core.failure.BackOff;

/** Whatever goes wrong, every accepted event reaches an end that a person sees. */
class EndsIT extends AppTestBase {

  @Autowired private JdbcTemplate jdbc;
  @Autowired private Systems systems;
  @Autowired private Bridges bridges;
  @Autowired private Purger purger;

  private static JsonNode outage() {
    for (JsonNode one : api("/incidents").path("open")) {
      if (one.path("headline").asText().startsWith("Grounds Board")
          && !one.path("nextProbe").isNull()) {
        return one;
      }
    }
    return api("/watch").path("no outage");
  }

  private static String demo(String path) throws Exception {
    return Files.readString(SETUP.resolve(path));
  }

  /** How many tasks of a title the board has, whatever else it knows of them. */
  private static long made(String title) throws Exception {
    return Files.readAllLines(DATA.resolve("standins").resolve("grounds-board.ndjson")).stream()
        .filter(line -> line.contains(title))
        .map(line -> line.replaceAll(".*\"id\":\"([^\"]+)\".*", "$1"))
        .distinct()
        .count();
  }

  private void connect(String document) {
    systems.put(document);
    bridges.refresh();
  }

  @Test
  void systemThatDoesNotWorkCostsNobodyAnythingAndItsDeliveriesGoOnByThemselves() throws Exception {
    fault(BOARD.port(), "down", "", "/api", 100_000);
    List<String> numbers = new ArrayList<>();
    for (int i = 0; i < 12; i++) {
      numbers.add(report(Map.of("problem", "Outage " + i)));
    }
    await().atMost(Duration.ofSeconds(20)).until(() -> outage().path("waiting").asInt() >= 12);
    assertThat(outage().path("because").asText()).isNotBlank();
    assertThat(outage().path("goesOn").asBoolean()).isTrue();
    // Far more time passes than four tries take, and nothing is given up.
    await().pollDelay(Duration.ofMillis(1500)).until(() -> outage().path("waiting").asInt() >= 12);

    send("DELETE", "http://127.0.0.1:" + BOARD.port() + "/control/faults", "", Map.of());
    for (String number : numbers) {
      assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("CREATE");
      assertThat(tasksOf(number)).hasSize(1);
    }
    await().until(() -> outage().isMissingNode());
  }

  @Test
  void whereNothingCanBeLookedForALostAnswerIsDecidedByAPersonAlone() throws Exception {
    String document = demo("systems/grounds-board.yaml");
    try {
      connect(document.replaceAll("(?m)^ *find-by-key:.*\\R( {6,}(items|id|call):.*\\R)*", ""));
      assertThat(systems.collection("grounds-board", "paths-and-trees").orElseThrow().findsByKey())
          .isFalse();
      fault(BOARD.port(), "answer-lost", "POST", "/api", 1);
      String problem = "Lost answer " + UUID.randomUUID();
      String number = report(Map.of("problem", problem));
      JsonNode failed = settled(number, 1);
      assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
      assertThat(failed.path("failureKind").asText()).isEqualTo("answer unknown");
      assertThat(failed.path("reason").asText()).contains("Look there whether it was made");
      assertThat(made(problem)).isEqualTo(1);

      // A later event of the same record repeats nothing blindly either.
      desk("PATCH", "/api/submissions/" + number, "{\"danger\":\"4\"}");
      assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("FAILED");
      assertThat(made(problem)).isEqualTo(1);

      // The person who sends it again has looked.
      resend(tracesOf(number).getFirst());
      assertThat(settled(number, 3).path("verdict").asText()).isEqualTo("CREATE");
      assertThat(made(problem)).isEqualTo(2);
    } finally {
      connect(document);
    }
  }

  @Test
  void bridgeThatCannotBeUsedAnyMoreStandsOnWatchAndItsEventsWait() throws Exception {
    String document = demo("systems/visitor-desk.yaml");
    String number;
    try {
      connect(document.replace("/answers/seenOn", "/answers/seenAt"));
      number = report(Map.of());
      await()
          .untilAsserted(
              () -> {
                JsonNode broken = api("/watch").path("broken");
                assertThat(broken.toString()).contains("hazard-to-grounds").contains("seenOn");
                assertThat(broken.get(0).path("waiting").asInt()).isEqualTo(1);
              });
      JsonNode rows = api("/register").path("rows");
      JsonNode row = rows.path(rows.findValuesAsText("id").indexOf("hazard-to-grounds"));
      assertThat(row.path("condition").asText()).isEqualTo("BROKEN");
      assertThat(row.path("measured").asText()).isEqualTo("NOT_WORKING");
      assertThat(row.path("because").asText()).contains("seenOn");
      assertThat(row.path("waiting").asInt()).isEqualTo(1);
    } finally {
      connect(document);
    }
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("CREATE");
  }

  @Test
  void whatBreaksHereAgainAndAgainEndsAsAFailedTrace() throws Exception {
    bridges.hold("hazard-to-grounds", "for the test", By.ENGINE);
    String number = report(Map.of());
    await().until(() -> tracesOf(number).size() == 1);
    byte[] body =
        jdbc.queryForObject("SELECT body FROM event WHERE record_id = ?", byte[].class, number);
    // Nothing of ours writes such a body; a disk may.
    jdbc.update(
        "UPDATE event SET body = ? WHERE record_id = ?",
        "no JSON".getBytes(StandardCharsets.UTF_8),
        number);
    bridges.release("hazard-to-grounds", By.ENGINE);
    JsonNode failed = settled(number, 1);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(failed.path("failureKind").asText()).isEqualTo("broke here");
    await()
        .untilAsserted(
            () ->
                assertThat(api("/incidents").path("open").toString())
                    .contains("A fault of this application"));
    assertThat(api("/traces/" + failed.path("id").asText()).path("failures").get(0).toString())
        .contains("Deciding it broke here 6 times");
    jdbc.update("UPDATE event SET body = ? WHERE record_id = ?", body, number);
    resend(failed);
    assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("CREATE");
  }

  @Test
  void waitsThatAClockWroteDownWhichWasAheadAreOver() throws Exception {
    fault(BOARD.port(), "too-many", "POST", "/api", 1);
    String number = report(Map.of());
    // Exactly as far as a wait may rightly last that another system asks for.
    OffsetDateTime ahead = Instant.now().plus(BackOff.LONGEST_ASKED).atOffset(ZoneOffset.UTC);
    await()
        .pollInterval(Duration.ofMillis(5))
        .until(
            () ->
                jdbc.update(
                        "UPDATE delivery_work SET not_before = ?, paused_at = ? WHERE state = 'PAUSED'",
                        ahead.plusNanos(1),
                        ahead)
                    > 0);
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(1);
  }

  /** A node that stopped: its claim is of a name that nobody renews. */
  @Test
  void pieceOfANodeThatStoppedComesBackByTime() throws Exception {
    bridges.hold("hazard-to-grounds", "for the test", By.ENGINE);
    String number = report(Map.of());
    await().until(() -> tracesOf(number).size() == 1);
    OffsetDateTime soon = Instant.now().plusMillis(700).atOffset(ZoneOffset.UTC);
    jdbc.update(
        "UPDATE trace_work SET state = 'DECIDING', claim = 'another-1', claimed_until = ? WHERE order_key LIKE ?",
        soon,
        "%/" + number);
    bridges.release("hazard-to-grounds", By.ENGINE);
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(Instant.now()).isAfter(soon.toInstant());
  }

  /** Also while others are polled, whose claims are renewed. */
  @Test
  void pollOfANodeThatStoppedComesBackByTime() {
    OffsetDateTime soon = Instant.now().plusMillis(500).atOffset(ZoneOffset.UTC);
    await()
        .until(
            () ->
                jdbc.update(
                        "UPDATE poll SET state = 'READING', claim = 'another-2', claimed_until = ? WHERE collection_id = 'pledges' AND state = 'IDLE'",
                        soon)
                    == 1);
    await()
        .atMost(Duration.ofSeconds(10))
        .until(
            () ->
                jdbc.queryForObject(
                        "SELECT COUNT(*) FROM poll WHERE claim = 'another-2'", Integer.class)
                    == 0);
  }

  @Test
  void sendingAnOlderEventAgainWritesNothingOverALaterOne() throws Exception {
    String number = report(Map.of());
    JsonNode first = settled(number, 1);
    desk("PATCH", "/api/submissions/" + number, "{\"danger\":\"4\"}");
    settled(number, 2);
    resend(first);
    JsonNode again = settled(number, 3);
    assertThat(again.path("verdict").asText()).isEqualTo("UNCHANGED");
    assertThat(tasksOf(number).getFirst().path("priority").asInt()).isEqualTo(6);
  }

  @Test
  void whatWasKeptLongEnoughIsRemovedAndStillCounted() throws Exception {
    String number = report(Map.of());
    JsonNode trace = settled(number, 1);
    int made = watched().at("/counts/made").asInt();
    OffsetDateTime longAgo = Instant.now().minus(Duration.ofDays(500)).atOffset(ZoneOffset.UTC);
    jdbc.update(
        "UPDATE trace SET received_at = ? WHERE id = ?", longAgo, trace.path("id").asText());
    jdbc.update("UPDATE event SET received_at = ? WHERE record_id = ?", longAgo, number);
    jdbc.update(
        """
        INSERT INTO incident (cause, state, opened_at, came_back, headline, waiting, bridges, found,
                              closed_at)
        VALUES ('ALIKE/long-ago', 'CLOSED', ?, 0, 'Long ago', 0, '', '{}', ?)
        """,
        longAgo,
        longAgo);
    jdbc.update(
        """
        INSERT INTO recall (state, bridges, from_at, until_at, asked_by, listed_at, ended_at)
        VALUES ('ENDED', 'long-ago', ?, ?, 'person', ?, ?)
        """,
        longAgo,
        longAgo,
        longAgo,
        longAgo);
    for (boolean waits : new boolean[] {false, true}) {
      jdbc.update(
          """
          INSERT INTO possible_duplicate (state, bridge_id, match_hash, trace_seq, system_id,
            collection_id, title, other_title, score, reasons, found_at, waits)
          VALUES ('OPEN', 'long-ago', 'h', 0, 's', 'c', 't', 't', 1, '', ?, ?)
          """,
          longAgo,
          waits);
    }
    purger.purge();
    // A bridge waits for what a person says of the other.
    assertThat(jdbc.update("DELETE FROM possible_duplicate WHERE bridge_id = 'long-ago'"))
        .isEqualTo(1);
    assertThat(
            jdbc.queryForObject(
                """
                SELECT (SELECT COUNT(*) FROM incident WHERE cause = 'ALIKE/long-ago')
                  + (SELECT COUNT(*) FROM recall WHERE bridges = 'long-ago')
                """,
                Integer.class))
        .isZero();
    assertThat(
            send("GET", app("/api/traces/" + trace.path("id").asText()), "", Map.of()).statusCode())
        .isEqualTo(404);
    assertThat(
            jdbc.queryForObject(
                "SELECT COUNT(*) FROM event WHERE record_id = ?", Integer.class, number))
        .isZero();
    assertThat(watched().at("/counts/made").asInt()).isEqualTo(made);
    // Its pair stays, so that the same report again makes no second task.
    desk("PATCH", "/api/submissions/" + number, "{\"danger\":\"4\"}");
    await().until(() -> tracesOf(number).size() == 1);
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("UPDATE");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void nearlyFullDiskLetsEverythingStandUntilThereIsRoomAgain() throws Exception {
    try {
      FREE.set(40L << 20);
      await().until(() -> !api("/watch").path("noRoom").isNull());
      assertThat(api("/watch").path("noRoom").path("text").asText())
          .contains(DATA.toString())
          .contains("40 MB free");
      HttpResponse<String> refused = hook("no-room", "{}", Instant.now(), SECRET);
      assertThat(refused.statusCode()).isEqualTo(503);
      assertThat(refused.headers().firstValue("Retry-After")).hasValue("60");
      // People may still change something, as long as it can be written.
      assertThat(put("/api/bridges/hazard-to-grounds/hold", "{\"because\":\"No room\"}"))
          .isEqualTo(200);
      FREE.set(1_000_000);
      await()
          .until(() -> put("/api/bridges/hazard-to-grounds/hold", "{\"because\":\"None\"}") == 507);
      assertThat(watched().path("heldBecause").asText()).isEqualTo("No room");
    } finally {
      FREE.set(Long.MAX_VALUE);
    }
    await().until(() -> api("/watch").path("noRoom").isNull());
    send("DELETE", app("/api/bridges/hazard-to-grounds/hold"), "", Map.of());
    String number = report(Map.of("problem", "After there was room"));
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("CREATE");
  }

  private static int put(String path, String body) throws Exception {
    return send("PUT", app(path), body, Map.of("Content-Type", "application/json")).statusCode();
  }
}
