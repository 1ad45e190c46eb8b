package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.rhythm.Rhythms;
import org.ysthmos.app.trace.TraceEnds;

/** A bridge to which far fewer events come than usual is an incident until one comes. */
class RhythmIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(30);
  private static final String ID = "rhythmic";

  @Autowired private Bridges bridges;
  @Autowired private JdbcTemplate jdbc;
  @Autowired private Rhythms rhythms;

  @AfterEach
  void noMoreOfIt() {
    jdbc.update("DELETE FROM trace_count WHERE bridge_id = ?", ID);
  }

  /** Eight weeks in which six events came in each half hour, up to a day ago. */
  private void aPast() {
    long last = TraceEnds.slot(Instant.now());
    for (long slot = last - 8 * 336 - 2; slot <= last - 48; slot++) {
      jdbc.update("INSERT INTO trace_count VALUES (?, ?, 'CREATE', ?, 10)", ID, slot, 5 + slot % 3);
    }
  }

  private static Optional<JsonNode> incident() {
    return StreamSupport.stream(api("/incidents").path("open").spliterator(), false)
        .filter(one -> one.path("headline").asText().contains("“Rhythmic”"))
        .findFirst();
  }

  private static JsonNode watchedBars() {
    return StreamSupport.stream(api("/watch").path("bridges").spliterator(), false)
        .filter(one -> one.path("id").asText().equals(ID))
        .findFirst()
        .orElseThrow()
        .path("bars");
  }

  @Test
  void silenceIsAnIncidentUntilAnEventComes() throws Exception {
    aPast();
    var put =
        putBridge(
            ID,
            """
            bridge: rhythmic
            name: Rhythmic
            purpose: To be missed
            from: { system: visitor-desk, collection: hazard-reports, event: [created] }
            to: { system: works-ledger, collection: jobs }
            lookups:
              report: { in: visitor-desk/hazard-reports, by: { id: /submission }, none: fail }
            when: { value: report/answers/problem, starts-with: "rhythmic " }
            match: [/submission]
            fields: { title: { text: "rhythmic {/submission}" }, status: { always: planned } }
            """);
    assertThat(put.statusCode()).as(put.body()).isBetween(200, 204);
    // Nothing is told while nothing ever came since it is live: there is no last event.
    assertThat(watchedBars().get(0).path("usualTo").asInt()).isBetween(6, 14);
    String number = report(Map.of("problem", "rhythmic one"));
    await()
        .atMost(LONG)
        .until(() -> api("/traces?bridge=" + ID + "&text=" + number).path("traces").size() == 1);
    assertThat(incident()).isEmpty();

    // Yesterday's event was the last.
    jdbc.update(
        "UPDATE trace SET received_at = DATEADD('HOUR', -23, received_at) WHERE bridge_id = ?", ID);
    jdbc.update(
        "DELETE FROM trace_count WHERE bridge_id = ? AND slot > ?",
        ID,
        TraceEnds.slot(Instant.now()) - 44);
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
