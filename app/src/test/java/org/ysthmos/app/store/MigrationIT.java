package org.ysthmos.app.store;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationVersion;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.DriverManagerDataSource;

/** A data folder of before goes on: nothing in it is lost, and what was under way is so still. */
class MigrationIT {

  private static final String AT = "TIMESTAMP '2026-11-20 10:00:00+00'";

  private final DriverManagerDataSource data =
      new DriverManagerDataSource("jdbc:h2:mem:migration;DB_CLOSE_DELAY=-1", "sa", "");
  private final JdbcTemplate jdbc = new JdbcTemplate(data);

  @BeforeEach
  void asItWasBefore() {
    jdbc.execute("DROP ALL OBJECTS");
    Flyway.configure().dataSource(data).target(MigrationVersion.fromVersion("6")).load().migrate();
    jdbc.update("INSERT INTO bridge (id, live_version, state) VALUES ('b', 1, 'live')");
    jdbc.update("INSERT INTO bridge_version VALUES ('b', 1, 'bridge: b', " + AT + ")");
    event("e1", "one", "r1", false);
    event("e2", "two", "r1", false);
    event("e3", "three", "r2", false);
    event("e4", "try", "r3", true);
    trace("t1", "e1", "r1", "done", "'create'", "NULL", "NULL", "NULL");
    trace("t2", "e2", "r1", "waiting", "NULL", "NULL", "NULL", "NULL");
    trace("t3", "e2", "r1", "waiting", "NULL", "NULL", "'t1'", "NULL");
    trace("t4", "e3", "r2", "done", "'failed'", "'mapping-error'", "NULL", "NULL");
    trace("t5", "e3", "r4", "delivering", "'update'", "NULL", "NULL", "NULL");
    trace("t6", "e4", "try-t6/r3", "done", "'create'", "NULL", "NULL", "'bridge: try'");
    jdbc.update("UPDATE trace SET resent = TRUE WHERE id = 't1'");
    delivery("d1", "t1", "h1", true, "done");
    delivery("d2", "t5", "h2", false, "sending");
    delivery("d3", "t5", "h3", true, "failed");
    jdbc.update(
        "INSERT INTO poll (system_id, collection_id, begun_at, pages, fresh, state, next_at, tries) VALUES ('s', 'c', %s, 0, 0, 'reading', TIMESTAMP '9999-01-01 00:00:00+00', 0)"
            .formatted(AT));
    jdbc.update(
        "INSERT INTO pair (bridge_id, match_hash, match_text, source_system, source_collection, source_record, target_system, target_collection, agreed, revision, made_at, changed_at) VALUES ('b', 'h1', 'k', 's', 'c', 'r1', 't', 'tasks', X'7b7d', 2, %s, %s)"
            .formatted(AT, AT));
    Flyway.configure().dataSource(data).load().migrate();
  }

  private void event(String id, String source, String record, boolean madeUp) {
    jdbc.update(
        "INSERT INTO event (id, system_id, source_id, collection_id, kind, record_id, happened_at, received_at, body, made_up) VALUES (?, 's', ?, 'c', 'created', ?, %s, %s, ?, ?)"
            .formatted(AT, AT),
        id,
        source,
        record,
        "{}".getBytes(StandardCharsets.UTF_8),
        madeUp);
  }

  private void trace(
      String id,
      String event,
      String record,
      String state,
      String verdict,
      String kind,
      String resendOf,
      String document) {
    jdbc.update(
        "INSERT INTO trace (id, event_id, bridge_id, order_key, state, verdict, failure_kind, tries, not_before, received_at, finished_at, reason, resend_of, resent, search_text, story, try_document) VALUES (?, ?, 'b', ?, ?, %s, %s, 0, %s, %s, %s, 'why', %s, FALSE, ?, X'00', %s)"
            .formatted(
                verdict, kind, AT, AT, state.equals("done") ? AT : "NULL", resendOf, document),
        id,
        event,
        record.contains("/") ? record : "s/c/" + record,
        state,
        id + " words");
  }

  private void delivery(String id, String trace, String hash, boolean creates, String state) {
    jdbc.update(
        "INSERT INTO delivery (id, trace_id, bridge_id, match_hash, system_id, collection_id, idempotency_key, creates, fields, state, uncertain, tries, not_before) VALUES (?, ?, 'b', ?, 't', 'tasks', 'k', ?, X'7b7d', ?, FALSE, 1, %s)"
            .formatted(AT),
        id,
        trace,
        hash,
        creates,
        state);
  }

  private List<String> column(String query) {
    return jdbc.queryForList(query, String.class);
  }

  @Test
  void eventsKeepTheirOrderAndWhereTheyCameFrom() {
    assertThat(column("SELECT source_id || ' ' || origin FROM event ORDER BY seq"))
        .containsExactly("one TOLD", "two TOLD", "three TOLD", "try MADE_UP");
    assertThat(jdbc.queryForObject("SELECT NEXT VALUE FOR event_order", Long.class)).isEqualTo(5);
  }

  @Test
  void whatEndedIsHistoryAndCountedAndWhatFailedStillWaitsForAPerson() {
    assertThat(column("SELECT id || ' ' || COALESCE(verdict, 'under way') FROM trace ORDER BY seq"))
        .containsExactly(
            "t1 CREATE", "t2 under way", "t3 under way", "t4 FAILED", "t5 under way", "t6 CREATE");
    assertThat(column("SELECT resent_as FROM trace WHERE id = 't1'")).containsExactly("t3");
    assertThat(column("SELECT kind FROM attention")).containsExactly("MAPPING_ERROR");
    assertThat(column("SELECT verdict || ' ' || traces FROM trace_count ORDER BY verdict"))
        .containsExactly("CREATE 1", "FAILED 1");
    assertThat(column("SELECT told FROM story")).hasSize(6);
    assertThat(column("SELECT document FROM trace_try")).containsExactly("bridge: try");
  }

  @Test
  void whatWasUnderWayIsSoStillAndWhatWasSentIsInDoubt() {
    assertThat(
            column(
                "SELECT t.id || ' ' || w.state || ' ' || w.failed FROM trace_work w JOIN trace t ON t.seq = w.trace_seq ORDER BY t.seq"))
        .containsExactly("t2 READY FALSE", "t3 BEHIND FALSE", "t5 DELIVERING TRUE");
    // A trace that ends as failed must be able to say of what, whenever that was.
    assertThat(
            column(
                "SELECT t.id || ' ' || f.kind || ': ' || f.message FROM failure f JOIN trace t ON t.seq = f.trace_seq ORDER BY t.seq"))
        .containsExactly("t4 MAPPING_ERROR: why", "t5 BROKE_HERE: why");
    Map<String, Object> sending = jdbc.queryForMap("SELECT * FROM delivery_work");
    assertThat(sending).containsEntry("STATE", "READY").containsEntry("MATCH_HASH", "h2");
    assertThat(sending.get("DOUBT_SINCE")).isNotNull();
    assertThat(column("SELECT kind || ' ' || result FROM delivery ORDER BY seq"))
        .containsExactly("CREATE MADE", "CHANGE OPEN", "CREATE FAILED");
    assertThat(column("SELECT state FROM poll")).containsExactly("IDLE");
    assertThat(column("SELECT event_seq FROM pair")).containsExactly("0");
  }
}
