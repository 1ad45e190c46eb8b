package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Verdict;

/** Lists of traces, newest first. Each is read off an index, whatever stands before and behind. */
@Mapper
interface TraceSearchMapper {

  /**
   * What to look for; an absent part is not asked.
   *
   * @param underWay whether those that have not ended are meant
   * @param before received before, or at it with a lower number than {@code beforeSeq}
   */
  record Query(
      @Nullable String bridge,
      @Nullable Verdict verdict,
      boolean underWay,
      Instant since,
      Instant before,
      long beforeSeq,
      int limit) {}

  @Select(
      """
      <script>
      SELECT ${@org.ysthmos.app.trace.TraceMapper@COLUMNS} FROM trace t
      WHERE t.received_at &gt;= #{since} AND t.received_at &lt;= #{before}
      AND (t.received_at &lt; #{before} OR t.seq &lt; #{beforeSeq})
      <if test="bridge != null">AND t.bridge_id = #{bridge}</if>
      <if test="verdict != null">AND t.verdict = #{verdict}</if>
      <if test="underWay">AND t.verdict IS NULL</if>
      ORDER BY
      <if test="bridge != null">t.bridge_id DESC,</if>
      <if test="verdict != null or underWay">t.verdict DESC,</if>
      t.received_at DESC, t.seq DESC LIMIT #{limit}
      </script>
      """)
  List<TraceRow> page(Query query);

  /** Failures that wait for a person. */
  @Select(
      """
      <script>
      SELECT ${@org.ysthmos.app.trace.TraceMapper@COLUMNS}
      FROM attention a JOIN trace t ON t.seq = a.trace_seq
      WHERE t.received_at &gt;= #{since} AND t.received_at &lt;= #{before}
      AND (t.received_at &lt; #{before} OR t.seq &lt; #{beforeSeq})
      <if test="bridge != null">AND a.queue_id = #{bridge}</if>
      ORDER BY t.received_at DESC, t.seq DESC LIMIT #{limit}
      </script>
      """)
  List<TraceRow> needsAPerson(Query query);

  @Select("SELECT COUNT(*) FROM attention WHERE trace_seq = #{seq}")
  int needsAPersonNow(long seq);
}
