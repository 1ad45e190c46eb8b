package org.ysthmos.app.recall;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.recall.RecallWay;

/** What is taken back, in the database. */
@Mapper
interface RecallMapper {

  /**
   * One recall.
   *
   * @param bridges the ids of the bridges whose work it is, with commas
   * @param version the only version that is meant; null for all
   * @param traceId the only trace that is meant; null for all
   * @param incidentId the incident that it was asked for from; null if from none
   */
  record RecallRow(
      long id,
      RecallState state,
      String bridges,
      @Nullable Integer version,
      @Nullable String traceId,
      @Nullable Long incidentId,
      Instant fromAt,
      Instant untilAt,
      String askedBy,
      Instant listedAt,
      @Nullable Instant begunAt,
      @Nullable Instant endedAt,
      @Nullable String problem) {

    List<String> of() {
      return List.of(bridges.split(","));
    }
  }

  /** One that is listed; its number is written into {@code id}. */
  final class NewRecall {
    long id;
    final RecallScope scope;
    final String bridges;
    final String by;
    final Instant now;

    NewRecall(RecallScope scope, String by, Instant now) {
      this.scope = scope;
      this.bridges = String.join(",", scope.bridges());
      this.by = by;
      this.now = now;
    }
  }

  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  @Insert(
      """
      INSERT INTO recall (state, bridges, version, trace_id, incident_id, from_at, until_at,
                          asked_by, listed_at)
      VALUES ('LISTING', #{bridges}, #{scope.version}, #{scope.trace}, #{scope.incident},
              #{scope.from}, #{scope.until}, #{by}, #{now})
      """)
  void add(NewRecall recall);

  @Select("SELECT * FROM recall WHERE id = #{id}")
  @Nullable RecallRow find(@Param("id") long id);

  @Select("SELECT * FROM recall WHERE state IN ('RUNNING', 'MAKING_AGAIN') ORDER BY id")
  List<RecallRow> running();

  @Select("SELECT * FROM recall WHERE state = 'LISTED' ORDER BY id")
  List<RecallRow> listed();

  /** Those under way, and those that broke off since a moment. */
  @Select(
      """
      SELECT * FROM recall WHERE state IN ('RUNNING', 'MAKING_AGAIN')
        OR (state = 'STOPPED' AND problem IS NOT NULL AND ended_at >= #{since})
      ORDER BY id
      """)
  List<RecallRow> current(@Param("since") Instant since);

  /** Those with which nobody began, also those that a stop kept from being listed whole. */
  @Select("SELECT * FROM recall WHERE state IN ('LISTING', 'LISTED') ORDER BY id")
  List<RecallRow> unbegun();

  @Update("UPDATE recall SET state = 'LISTED' WHERE id = #{id} AND state = 'LISTING'")
  int listedWhole(@Param("id") long id);

  @Select(
      """
      SELECT * FROM recall WHERE state NOT IN ('LISTING', 'LISTED') ORDER BY id DESC LIMIT 20
      """)
  List<RecallRow> newest();

  /** What was taken back of an incident, or is. */
  @Select(
      """
      SELECT * FROM recall WHERE state NOT IN ('LISTING', 'LISTED') AND incident_id = #{incident}
      ORDER BY id DESC LIMIT 5
      """)
  List<RecallRow> ofIncident(@Param("incident") long incident);

  @Update(
      """
      UPDATE recall SET state = #{to}, begun_at = COALESCE(begun_at, #{now}), ended_at = NULL,
        problem = NULL
      WHERE id = #{id} AND state = #{from}
      """)
  int begin(
      @Param("id") long id,
      @Param("from") RecallState from,
      @Param("to") RecallState to,
      @Param("now") Instant now);

  @Update(
      """
      UPDATE recall SET state = #{to}, ended_at = #{now}, problem = #{problem}
      WHERE id = #{id} AND state IN ('RUNNING', 'MAKING_AGAIN')
      """)
  int end(
      @Param("id") long id,
      @Param("to") RecallState to,
      @Param("problem") @Nullable String problem,
      @Param("now") Instant now);

  @Delete("DELETE FROM recall WHERE id = #{id} AND state IN ('LISTING', 'LISTED')")
  int forget(@Param("id") long id);

  @Delete("DELETE FROM recall_item WHERE recall_id = #{id}")
  void forgetItems(@Param("id") long id);

  /**
   * An effect that a bridge made.
   *
   * @param effectName null for a task
   * @param parentField null where it stands under no other
   * @param there whether its pair still has this record and it was not taken back
   * @param fields what it wrote, where it is a change; null otherwise
   * @param heldBefore what these held before; null if that was not noted
   */
  record MadeRow(
      long seq,
      long traceSeq,
      String traceId,
      @Nullable String title,
      String bridgeId,
      String matchHash,
      String systemId,
      String collectionId,
      String recordId,
      String idempotencyKey,
      EffectKind kind,
      @Nullable String effectName,
      @Nullable String parentField,
      Instant madeAt,
      boolean there,
      byte @Nullable [] fields,
      byte @Nullable [] heldBefore) {}

  String MADE =
      """
      d.seq, d.trace_seq, t.id AS trace_id, t.title, d.bridge_id, d.match_hash, d.system_id,
      d.collection_id, d.record_id, d.idempotency_key, d.kind, d.effect_name, d.parent_field,
      d.made_at,
      COALESCE(p.target_record = d.record_id AND NOT p.left_so, FALSE) AS there,
      CASE WHEN d.kind = 'CHANGE' THEN d.fields END AS fields, d.held_before
      FROM trace t JOIN delivery d ON d.trace_seq = t.seq
        LEFT JOIN pair p ON p.bridge_id = d.bridge_id AND p.match_hash = d.match_hash
      """;

  /**
   * What a bridge made in a span, the last first.
   *
   * @param ended a trace that ended before this made nothing in the span; some time before the
   *     span, as a clock may have been ahead while something was made
   */
  @Select(
      "<script>SELECT "
          + MADE
          + """
          WHERE t.bridge_id = #{bridge} AND t.received_at &lt;= #{until} AND NOT t.is_try
            AND (t.finished_at IS NULL OR t.finished_at &gt;= #{ended})
            AND d.result = 'MADE' AND d.record_id IS NOT NULL AND d.kind != 'REMOVE'
            AND NOT EXISTS (SELECT 1 FROM recall_item i WHERE i.removal = d.seq)
            AND d.made_at &gt;= #{from} AND d.made_at &lt;= #{until}
          <if test="version != null">AND t.bridge_version = #{version}</if>
          ORDER BY d.seq DESC LIMIT #{limit}</script>
          """)
  List<MadeRow> made(
      @Param("bridge") String bridge,
      @Param("version") @Nullable Integer version,
      @Param("from") Instant from,
      @Param("until") Instant until,
      @Param("ended") Instant ended,
      @Param("limit") int limit);

  /** What a trace made. */
  @Select(
      "SELECT "
          + MADE
          + """
          WHERE t.id = #{trace} AND d.result = 'MADE' AND d.record_id IS NOT NULL
            AND d.kind <> 'REMOVE'
            AND NOT EXISTS (SELECT 1 FROM recall_item i WHERE i.removal = d.seq)
          ORDER BY d.seq DESC
          """)
  List<MadeRow> madeBy(@Param("trace") String trace);

  /**
   * A record of a recall.
   *
   * @param deliverySeq the delivery that made it
   * @param looked what a look at it came to; null while nobody looked
   * @param chosen whether it goes
   * @param evenIfChanged whether it goes even if somebody changed it
   * @param words why it is as it is; may be empty
   * @param removal the delivery that takes it back; null while there is none
   * @param joins the record that its pair has from then on; null if it has none
   * @param puts what its fields are to hold again; null if it was not there before
   */
  record ItemRow(
      long recallId,
      long deliverySeq,
      long traceSeq,
      String traceId,
      String title,
      String bridgeId,
      String matchHash,
      String systemId,
      String collectionId,
      String recordId,
      String idempotencyKey,
      EffectKind kind,
      boolean under,
      Instant madeAt,
      int changes,
      RecallWay way,
      ItemState state,
      @Nullable Looked looked,
      boolean chosen,
      boolean evenIfChanged,
      String words,
      @Nullable Long removal,
      @Nullable String joins,
      byte @Nullable [] puts) {}

  @Insert(
      """
      INSERT INTO recall_item VALUES
        (#{recallId}, #{deliverySeq}, #{traceSeq}, #{traceId}, #{title}, #{bridgeId}, #{matchHash},
         #{systemId}, #{collectionId}, #{recordId}, #{idempotencyKey}, #{kind}, #{under},
         #{madeAt}, #{changes}, #{way}, #{state}, #{looked}, #{chosen}, #{evenIfChanged}, #{words},
         #{removal}, #{joins}, #{puts})
      """)
  void addItem(ItemRow item);

  /** The records of a recall that were made before a delivery, the last first. */
  @Select(
      """
      SELECT * FROM recall_item WHERE recall_id = #{id} AND delivery_seq < #{before}
      ORDER BY recall_id DESC, delivery_seq DESC LIMIT #{limit}
      """)
  List<ItemRow> items(
      @Param("id") long id, @Param("before") long before, @Param("limit") int limit);

  @Select("SELECT * FROM recall_item WHERE recall_id = #{id} AND delivery_seq = #{delivery}")
  @Nullable ItemRow item(@Param("id") long id, @Param("delivery") long delivery);

  @Select("SELECT * FROM recall_item WHERE removal = #{removal}")
  @Nullable ItemRow ofRemoval(@Param("removal") long removal);

  /** Those in a state that were made before a delivery, the last first. */
  @Select(
      """
      SELECT * FROM recall_item
      WHERE recall_id = #{id} AND state = #{state} AND delivery_seq < #{before}
      ORDER BY recall_id DESC, state DESC, delivery_seq DESC LIMIT #{limit}
      """)
  List<ItemRow> inState(
      @Param("id") long id,
      @Param("state") ItemState state,
      @Param("before") long before,
      @Param("limit") int limit);

  /** Those of a trace that were made after a delivery. */
  @Select(
      """
      SELECT * FROM recall_item
      WHERE recall_id = #{id} AND trace_seq = #{trace} AND delivery_seq > #{after}
      """)
  List<ItemRow> later(@Param("id") long id, @Param("trace") long trace, @Param("after") long after);

  /** Those of a trace. */
  @Select("SELECT * FROM recall_item WHERE recall_id = #{id} AND trace_seq = #{trace}")
  List<ItemRow> ofTrace(@Param("id") long id, @Param("trace") long trace);

  /** Those that nobody looked at, the last made first. */
  @Select(
      """
      SELECT * FROM recall_item
      WHERE recall_id = #{id} AND state = 'WAITING' AND looked IS NULL
      ORDER BY recall_id DESC, state DESC, delivery_seq DESC LIMIT #{limit}
      """)
  List<ItemRow> unlooked(@Param("id") long id, @Param("limit") int limit);

  /** What a look came to; a look that ends once somebody began changes nothing of what goes. */
  @Update(
      """
      UPDATE recall_item SET looked = #{looked}, words = #{words}, chosen = chosen AND #{goes}
      WHERE recall_id = #{id} AND delivery_seq = #{delivery} AND state = 'WAITING'
        AND EXISTS (SELECT 1 FROM recall WHERE recall.id = #{id} AND recall.state = 'LISTED')
      """)
  int looked(
      @Param("id") long id,
      @Param("delivery") long delivery,
      @Param("looked") Looked looked,
      @Param("words") String words,
      @Param("goes") boolean goes);

  /** A person says whether it goes, whatever somebody changed of it. */
  @Update(
      """
      UPDATE recall_item SET chosen = #{chosen}, even_if_changed = #{evenIfChanged}
      WHERE recall_id = #{id} AND delivery_seq = #{delivery} AND state = 'WAITING'
      """)
  int choose(
      @Param("id") long id,
      @Param("delivery") long delivery,
      @Param("chosen") boolean chosen,
      @Param("evenIfChanged") boolean evenIfChanged);

  /** From a list only one record goes, and its pair joins another. */
  @Update(
      """
      UPDATE recall_item SET chosen = delivery_seq = #{delivery},
        joins = CASE WHEN delivery_seq = #{delivery} THEN #{record} END
      WHERE recall_id = #{id}
      """)
  void joins(
      @Param("id") long id, @Param("delivery") long delivery, @Param("record") String record);

  @Update(
      """
      UPDATE recall_item SET even_if_changed = TRUE
      WHERE recall_id = #{id} AND state = 'WAITING' AND chosen
      """)
  void allEvenIfChanged(@Param("id") long id);

  @Update(
      """
      UPDATE recall_item SET state = #{state}, removal = #{removal}, words = #{words}
      WHERE recall_id = #{id} AND delivery_seq = #{delivery}
      """)
  void put(
      @Param("id") long id,
      @Param("delivery") long delivery,
      @Param("state") ItemState state,
      @Param("removal") @Nullable Long removal,
      @Param("words") String words);

  /** What was given up may be tried once more. */
  @Update(
      """
      UPDATE recall_item SET state = 'WAITING', words = '', removal = NULL
      WHERE recall_id = #{id} AND state IN ('FAILED', 'STAYS') AND chosen
        AND (state = 'FAILED' OR looked IS NULL OR looked <> 'CHANGED' OR even_if_changed)
      """)
  int onceMore(@Param("id") long id);

  /** The newest trace that ended of the record that a trace is of, and was not sent again. */
  @Select(
      """
      SELECT n.id FROM trace t
        JOIN event e ON e.seq = t.event_seq
        JOIN event o ON o.system_id = e.system_id AND o.collection_id = e.collection_id
          AND o.record_id = e.record_id
        JOIN trace n ON n.event_seq = o.seq AND n.bridge_id = t.bridge_id
      WHERE t.seq = #{trace} AND NOT n.is_try AND n.verdict IS NOT NULL AND n.resent_as IS NULL
      ORDER BY o.seq DESC, n.seq DESC LIMIT 1
      """)
  @Nullable String newestOf(@Param("trace") long trace);

  /** How many stand how. */
  record CountRow(
      ItemState state,
      RecallWay way,
      @Nullable Looked looked,
      boolean chosen,
      boolean evenIfChanged,
      String systemId,
      int items) {}

  @Select(
      """
      SELECT state, way, looked, chosen, even_if_changed, system_id, COUNT(*) AS items
      FROM recall_item WHERE recall_id = #{id}
      GROUP BY state, way, looked, chosen, even_if_changed, system_id
      """)
  List<CountRow> counts(@Param("id") long id);
}
