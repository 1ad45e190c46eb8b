package org.ysthmos.app.incident;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.FailureKind;

/** What waits for a person and what came of it, in the database, by the incident it belongs to. */
@Mapper
interface SymptomMapper {

  /**
   * How many events of a bridge wait for a cause.
   *
   * @param newest the newest trace of them
   */
  record WaitingRow(String cause, String queueId, int traces, long newest) {}

  @Select(
      """
      SELECT cause, queue_id, COUNT(*) AS traces, MAX(trace_seq) AS newest FROM attention
      GROUP BY cause, queue_id ORDER BY cause, queue_id
      """)
  List<WaitingRow> waiting();

  /** How many events of a bridge were sent again together and have not ended. */
  record AgainRow(String cause, String queueId, int traces) {}

  /**
   * What was sent again of incidents that are open. An incident that closed has none under way, so
   * that few are looked at, and of those only what is still to be done.
   */
  @Select(
      """
      SELECT r.cause, w.queue_id, COUNT(*) AS traces
      FROM incident i JOIN resend r ON r.incident_id = i.id AND r.cause = i.cause
        JOIN trace_work w ON w.trace_seq BETWEEN r.first_new AND r.last_new
        JOIN trace t ON t.seq = w.trace_seq AND t.asked_by = CONCAT('resend ', r.id)
      WHERE i.state IN ('OPEN', 'MENDING')
      GROUP BY r.cause, w.queue_id ORDER BY r.cause, w.queue_id
      """)
  List<AgainRow> sentAgain();

  @Select(
      """
      SELECT cause, queue_id, COUNT(*) AS traces, MAX(trace_seq) AS newest FROM attention
      WHERE cause = #{cause} GROUP BY cause, queue_id ORDER BY cause, queue_id
      """)
  List<WaitingRow> waitingOf(@Param("cause") String cause);

  /** How many of a cause wait that must be looked at one by one. */
  @Select("SELECT COUNT(*) FROM attention WHERE cause = #{cause} AND kind = 'ANSWER_UNKNOWN'")
  int oneByOne(@Param("cause") String cause);

  /** How many traces failed of a cause, since a half hour. */
  record FailedRow(String bridgeId, long failures) {}

  @Select(
      """
      SELECT bridge_id, SUM(failures) AS failures FROM failure_count
      WHERE cause = #{cause} AND slot >= #{since} GROUP BY bridge_id ORDER BY bridge_id
      """)
  List<FailedRow> failed(@Param("cause") String cause, @Param("since") long since);

  /** Failures that say the same; of each trace the one that it failed for. */
  record GroupRow(
      FailureKind kind,
      @Nullable EffectKind effect,
      String collectionId,
      String field,
      String code,
      String message,
      int failures,
      int records,
      Instant first,
      Instant last,
      String queues) {}

  @Select(
      """
      SELECT f.kind, f.effect, f.collection_id, f.field, f.code, MAX(f.message) AS message,
        COUNT(*) AS failures, COUNT(DISTINCT a.order_key) AS records, MIN(a.since) AS first,
        MAX(a.since) AS last, LISTAGG(DISTINCT a.queue_id, ',') AS queues
      FROM attention a JOIN failure f ON f.trace_seq = a.trace_seq AND f.place = 0
      WHERE a.cause = #{cause}
      GROUP BY f.kind, f.effect, f.collection_id, f.field, f.code
      ORDER BY COUNT(*) DESC, f.kind LIMIT 20
      """)
  List<GroupRow> groups(@Param("cause") String cause);

  /** The systems at which what waits of a cause failed; empty for what failed here. */
  @Select(
      """
      SELECT DISTINCT f.system_id FROM attention a
      JOIN failure f ON f.trace_seq = a.trace_seq AND f.place = 0 WHERE a.cause = #{cause}
      """)
  List<String> systems(@Param("cause") String cause);

  /** Events of a bridge, and of how many records. */
  record SpanRow(int events, int records) {}

  @Select(
      """
      SELECT COUNT(*) AS events, COUNT(DISTINCT order_key) AS records FROM (
        SELECT order_key FROM trace WHERE bridge_id = #{bridge} AND received_at >= #{since}
        LIMIT 20000)
      """)
  SpanRow span(@Param("bridge") String bridge, @Param("since") Instant since);
}
