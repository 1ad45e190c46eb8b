package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.who.By;
import org.ysthmos.app.work.WorkSignals;

/** People are told of incidents, once, by the first way that works. */
class AlarmIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(30);
  private static final String PLAN =
      """
      quiet: PT0S
      ways:
        - in: garden-chat/messages
          fields: { channel: works, text: "{headline} / {text}" }
        - in: post-room/letters
          fields: { to: "works@tidewrack.example", subject: "{headline}", text: "{text}" }
      """;

  @Autowired private Bridges bridges;
  @Autowired private JdbcTemplate jdbc;
  @Autowired private WorkSignals signals;

  @BeforeEach
  void nothingToTell() {
    jdbc.update("DELETE FROM incident");
    jdbc.update("DELETE FROM attention");
  }

  @AfterEach
  void nobodyIsTold() throws Exception {
    jdbc.update("DELETE FROM incident WHERE cause = 'AWAY/ledger'");
    plan("");
  }

  private static HttpResponse<String> plan(String document) throws Exception {
    return send(
        "PUT",
        app("/api/alarms"),
        JSON.createObjectNode().put("document", document).toString(),
        Map.of("Content-Type", "application/json"));
  }

  /** A bridge that holds itself, for so long that it is told of. */
  private long heldFor(String id) throws Exception {
    putBridge(
        id,
        """
        bridge: %s
        name: Bridge %s
        purpose: To be told of
        from: { system: visitor-desk, collection: hazard-reports, event: [created] }
        to: { system: works-ledger, collection: jobs }
        match: [/submission]
        fields: { title: { text: "Told {/submission}" }, status: { always: planned } }
        """
            .formatted(id, id));
    bridges.hold(id, "It would have come to 61 new tasks; its ceiling is 60", By.ENGINE);
    await().atMost(LONG).until(() -> incident(id) > 0);
    jdbc.update("UPDATE incident SET opened_at = DATEADD(MINUTE, -2, opened_at)");
    return incident(id);
  }

  private static long incident(String bridge) {
    for (JsonNode one : api("/incidents").path("open")) {
      if (one.path("heldBridge").asText().equals(bridge)) {
        return one.path("id").asLong();
      }
    }
    return 0;
  }

  private static String lines(long incident) {
    return api("/incidents/" + incident).path("lines").toString();
  }

  private static long chats(String words) {
    Path file = DATA.resolve("standins/garden-chat.ndjson");
    try {
      return Files.exists(file)
          ? Files.readAllLines(file).stream().filter(line -> line.contains(words)).count()
          : 0;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Once a day what is open is told again, and what closed since the last one. */
  @Test
  void digestTellsOnceWhatIsOpenAndWhatClosed() throws Exception {
    assertThat(plan(PLAN).statusCode()).isEqualTo(200);
    long first = heldFor("told-of");
    await().atMost(LONG).until(() -> lines(first).contains("Told by a message in Garden Chat"));
    jdbc.update(
        """
        INSERT INTO incident (cause, state, opened_at, came_back, headline, waiting, bridges, found,
                              closed_at, told, closing)
        VALUES ('AWAY/ledger', 'CLOSED', CURRENT_TIMESTAMP, 0, 'The ledger was away a while', 0, '',
                '{}', CURRENT_TIMESTAMP, 1, NEXT VALUE FOR closing_order)
        """);
    // Its time was a minute ago, and the document stands since yesterday.
    String now =
        LocalTime.now(ZoneOffset.UTC).minusMinutes(1).withSecond(0).toString().substring(0, 5);
    assertThat(plan("digest: { at: \"%s\", zone: UTC }\n".formatted(now) + PLAN).statusCode())
        .isEqualTo(200);
    assertThat(chats("closed since the last digest")).isZero();
    jdbc.update("UPDATE alarm_plan SET changed_at = DATEADD(DAY, -1, changed_at)");
    signals.toWatch().raise();
    await().atMost(LONG).until(() -> chats("One incident is open, 1 closed since the last") == 1);
    assertThat(chats("The ledger was away a while")).isEqualTo(1);
    signals.toWatch().raise();
    bridges.hold("told-too", "not there", By.ENGINE);
    assertThat(chats("closed since the last digest")).isEqualTo(1);
  }

  @Test
  void isToldOnceByTheFirstWayThatWorks() throws Exception {
    assertThat(plan(PLAN).statusCode()).isEqualTo(200);
    long first = heldFor("told-of");
    await().atMost(LONG).until(() -> lines(first).contains("Told by a message in Garden Chat"));
    assertThat(chats("/incidents/" + first)).isEqualTo(1);
    assertThat(chats("its ceiling is 60")).isEqualTo(1);

    fault(CHAT.port(), "forbidden", "POST", "/api/messages", 1);
    long second = heldFor("told-too");
    await().atMost(LONG).until(() -> lines(second).contains("Told by a message in Post Room"));
    assertThat(chats("/incidents/" + first)).isEqualTo(1);
    assertThat(chats("/incidents/" + second)).isZero();
    assertThat(api("/watch").path("tellingProblem").asText()).isEmpty();
  }

  @Test
  void standsOnWatchIfNobodyCanBeTold() throws Exception {
    String chatOnly = PLAN.substring(0, PLAN.indexOf("  - in: post-room"));
    assertThat(plan(chatOnly).statusCode()).isEqualTo(200);
    fault(CHAT.port(), "forbidden", "POST", "/api/messages", 1);
    long incident = heldFor("told-of");
    await()
        .atMost(LONG)
        .until(() -> api("/watch").path("tellingProblem").asText().contains("Garden Chat"));
    assertThat(lines(incident)).doesNotContain("Told by");

    bridges.release("told-of", By.PERSON);
    await().atMost(LONG).until(() -> api("/watch").path("tellingProblem").asText().isEmpty());
  }

  @Test
  void documentIsCheckedAndTried() throws Exception {
    HttpResponse<String> refused = plan(PLAN.replace("channel", "chanel"));
    assertThat(refused.statusCode()).isEqualTo(422);
    assertThat(refused.body()).contains("did you mean “channel”?").contains("line 4");
    assertThat(api("/alarms").path("document").asText()).isEmpty();

    assertThat(plan(PLAN).statusCode()).isEqualTo(200);
    assertThat(api("/alarms").path("document").asText()).isEqualTo(PLAN);
    fault(CHAT.port(), "forbidden", "POST", "/api/messages", 1);
    JsonNode tried = JSON.readTree(send("POST", app("/api/alarms/try"), "", Map.of()).body());
    assertThat(tried.get(0).path("way").asText()).isEqualTo("Garden Chat, Messages");
    assertThat(tried.get(0).path("problem").asText()).contains("403");
    assertThat(tried.get(1).path("problem").asText()).isEmpty();
    assertThat(plan("x".repeat(20_001)).statusCode()).isEqualTo(400);
  }
}
