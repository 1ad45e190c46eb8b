package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.rhythm.Rhythms;
import org.ysthmos.app.trace.TraceEnds;

/** A source from which far fewer events come than usual is an incident until one comes. */
class RhythmIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(30);
  private static final String ID = "rhythmic";

  /** Two that hear the same and make nothing of it. */
  private static final String ONE = "rhythmic-one";

  private static final String TWO = "rhythmic-two";

  @Autowired private Bridges bridges;
  @Autowired private JdbcTemplate jdbc;
  @Autowired private Rhythms rhythms;

  @AfterEach
  void noMoreOfIt() {
    jdbc.update("DELETE FROM trace_count WHERE bridge_id IN (?, ?, ?)", ID, ONE, TWO);
    rhythms.forget();
    await().atMost(LONG).until(() -> incidents("of Visitor Desk", "“Rhythmic").isEmpty());
  }

  /** Eight weeks in which six events came in each half hour, up to a day ago. */
  private void aPast(String bridge) {
    long last = TraceEnds.slot(Instant.now());
    for (long slot = last - 8 * 336 - 2; slot <= last - 48; slot++) {
      jdbc.update(
          "INSERT INTO trace_count VALUES (?, ?, 'CREATE', ?, 10)", bridge, slot, 5 + slot % 3);
    }
    rhythms.forget();
  }

  /** Open ones whose headline has any of these words. */
  private static List<JsonNode> incidents(String... words) {
    return StreamSupport.stream(api("/incidents").path("open").spliterator(), false)
        .filter(one -> Stream.of(words).anyMatch(one.path("headline").asText()::contains))
        .toList();
  }

  private static Optional<JsonNode> incident() {
    return incidents("“Rhythmic”").stream().findFirst();
  }

  private static JsonNode watchedBars() {
    return StreamSupport.stream(api("/watch").path("bridges").spliterator(), false)
        .filter(one -> one.path("id").asText().equals(ID))
        .findFirst()
        .orElseThrow()
        .path("bars");
  }

  private static void goesLive(String id, String name, String of) throws Exception {
    var put =
        putBridge(
            id,
            """
            bridge: %s
            name: %s
            purpose: To be missed
            from: { system: visitor-desk, collection: hazard-reports, event: [created] }
            to: { system: works-ledger, collection: jobs }
            lookups:
              report: { in: visitor-desk/hazard-reports, by: { id: /submission }, none: fail }
            when: { value: report/answers/problem, starts-with: "%s" }
            match: [/submission]
            fields: { title: { text: "rhythmic {/submission}" }, status: { always: planned } }
            """
                .formatted(id, name, of));
    assertThat(put.statusCode()).as(put.body()).isBetween(200, 204);
  }

  private static int heard(String bridge, String number) {
    return api("/traces?bridge=" + bridge + "&text=" + number).path("traces").size();
  }

  /** Yesterday's event was the last that came. */
  private void silentSinceYesterday(String bridge) {
    jdbc.update(
        "UPDATE trace SET received_at = DATEADD('HOUR', -23, received_at) WHERE bridge_id = ?",
        bridge);
    jdbc.update(
        "DELETE FROM trace_count WHERE bridge_id = ? AND slot > ?",
        bridge,
        TraceEnds.slot(Instant.now()) - 44);
  }

  @Test
  void sourceThatSeveralBridgesHearIsOneIncident() throws Exception {
    aPast(ONE);
    aPast(TWO);
    goesLive(ONE, "Rhythmic one", "said by nobody");
    goesLive(TWO, "Rhythmic two", "said by nobody");
    String number = report(Map.of("problem", "for two"));
    await().atMost(LONG).until(() -> heard(ONE, number) == 1 && heard(TWO, number) == 1);

    silentSinceYesterday(ONE);
    silentSinceYesterday(TWO);
    rhythms.forget();
    String headline = "Nothing comes from “Hazard reports” of Visitor Desk any more";
    await().atMost(LONG).until(() -> incidents(headline).size() == 1);
    assertThat(incidents("“Rhythmic")).isEmpty();
    JsonNode story = api("/incidents/" + incidents(headline).getFirst().path("id").asText());
    assertThat(story.at("/incident/bridges").findValuesAsText("id")).containsExactly(ONE, TWO);
  }

  @Test
  void silenceIsAnIncidentUntilAnEventComes() throws Exception {
    aPast(ID);
    goesLive(ID, "Rhythmic", "rhythmic ");
    // Nothing is told while nothing ever came since it is live: there is no last event.
    assertThat(watchedBars().get(0).path("usualTo").asInt()).isBetween(6, 14);
    String number = report(Map.of("problem", "rhythmic one"));
    await().atMost(LONG).until(() -> heard(ID, number) == 1);
    assertThat(incident()).isEmpty();

    silentSinceYesterday(ID);
    rhythms.forget();
    await().atMost(LONG).until(() -> incident().isPresent());
    JsonNode story = api("/incidents/" + incident().orElseThrow().path("id").asText());
    assertThat(story.at("/findings/0/headline").asText())
        .isEqualTo("Nothing comes from the source of “Rhythmic” any more");
    assertThat(story.at("/findings/0/speaksFor/0").asText()).startsWith("Nothing came since then");
    assertThat(story.at("/incident/waiting").asInt()).isZero();

    report(Map.of("problem", "rhythmic two"));
    await().atMost(LONG).until(() -> api("/traces?bridge=" + ID).path("traces").size() >= 2);
    rhythms.forget();
    await().atMost(LONG).until(() -> incident().isEmpty());
  }
}
