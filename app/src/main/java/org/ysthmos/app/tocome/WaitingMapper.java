package org.ysthmos.app.tocome;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Events that wait for a stated time, and tasks that came of events, in the database. */
@Mapper
interface WaitingMapper {

  /**
   * An event that waits.
   *
   * @param title of its task, as it was decided last; null if it was not so far
   * @param reason why it waits; null if nothing was taken down
   * @param at when it goes on
   */
  record WaitingRow(
      String traceId,
      String bridgeId,
      @Nullable String title,
      @Nullable String reason,
      Instant at) {}

  /** Those that are decided once more, or sent once more, in a span; the earliest first. */
  @Select(
      """
      SELECT t.id, t.bridge_id, t.title, t.reason, w.not_before FROM (
        SELECT trace_seq, not_before FROM (
          SELECT trace_seq, not_before FROM trace_work
           WHERE state = 'PAUSED' AND not_before > #{from} AND not_before <= #{until}
           ORDER BY state, not_before LIMIT #{limit})
        UNION
        SELECT trace_seq, not_before FROM (
          SELECT trace_seq, not_before FROM delivery_work
           WHERE state = 'PAUSED' AND not_before > #{from} AND not_before <= #{until}
           ORDER BY state, not_before LIMIT #{limit})
      ) w JOIN trace t ON t.seq = w.trace_seq
       WHERE NOT t.is_try
       ORDER BY w.not_before LIMIT #{limit}
      """)
  List<WaitingRow> between(
      @Param("from") Instant from, @Param("until") Instant until, @Param("limit") int limit);

  /** What a task was to hold that came of a trace. */
  record TaskRow(String traceId, byte[] fields) {}

  /** The tasks of some traces, without what comes after them; the first of a trace first. */
  @Select(
      """
      <script>SELECT t.id, d.fields FROM trace t JOIN delivery d ON d.trace_seq = t.seq
       WHERE t.id IN
      <foreach item="one" collection="traces" open="(" separator="," close=")">#{one}</foreach>
         AND d.effect_name IS NULL ORDER BY d.seq</script>
      """)
  List<TaskRow> tasks(@Param("traces") Collection<String> traces);
}
