package org.ysthmos.app.watch;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.trace.TraceMapper;

@Mapper
interface WatchMapper {

  /** How many traces of a bridge came to a verdict in a half hour, counted from {@code since}. */
  record SlotRow(String bridgeId, int slot, String verdict, int traces) {}

  /** What of a bridge is not finished. */
  record BacklogRow(String bridgeId, int traces, Instant oldest) {}

  /** The last event of a bridge, and its slowest crossing. */
  record LastRow(String bridgeId, Instant lastEvent, @Nullable Long worstMillis) {}

  /** Failures that nobody has dealt with yet, of one bridge and kind. */
  record FailedRow(
      String bridgeId,
      String failureKind,
      int traces,
      Instant oldest,
      String reason,
      int reasons) {}

  @Select(
      """
      SELECT bridge_id, slot, verdict, COUNT(*) AS traces FROM (
        SELECT bridge_id, verdict,
          CAST(FLOOR(TIMESTAMPDIFF(SECOND, #{since}, received_at) / #{slotSeconds}) AS INT) AS slot
        FROM trace
        WHERE received_at >= #{since} AND state = 'done' AND try_document IS NULL)
      GROUP BY bridge_id, slot, verdict
      """)
  List<SlotRow> slots(@Param("since") Instant since, @Param("slotSeconds") long slotSeconds);

  @Select(
      """
      SELECT bridge_id, COUNT(*) AS traces, MIN(received_at) AS oldest
      FROM trace
      WHERE state IN ('waiting', 'deciding', 'delivering') AND try_document IS NULL
      GROUP BY bridge_id
      """)
  List<BacklogRow> backlog();

  @Select(
      """
      SELECT bridge_id, MAX(received_at) AS last_event,
        MAX(CASE WHEN verdict IN ('create', 'update')
            THEN TIMESTAMPDIFF(MILLISECOND, received_at, finished_at) END) AS worst_millis
      FROM trace
      WHERE received_at >= #{since} AND try_document IS NULL GROUP BY bridge_id
      """)
  List<LastRow> last(@Param("since") Instant since);

  @Select(
      """
      SELECT bridge_id, failure_kind, COUNT(*) AS traces, MIN(received_at) AS oldest,
        MAX(reason) AS reason, COUNT(DISTINCT reason) AS reasons
      FROM trace t WHERE received_at >= #{since} AND
      """
          + TraceMapper.NEEDS_A_PERSON
          + """
      GROUP BY bridge_id, failure_kind ORDER BY COUNT(*) DESC, bridge_id, failure_kind
      """)
  List<FailedRow> failed(@Param("since") Instant since);
}
