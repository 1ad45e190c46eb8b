package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
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

  /**
   * Those of a bridge that came from one of its places.
   *
   * @param place the id of the collection
   * @param waiting whether only those are meant that wait for a person
   */
  @Select(
      """
      <script>
      SELECT ${@org.ysthmos.app.trace.TraceMapper@COLUMNS}
      FROM trace_place p USE INDEX (trace_place_of) JOIN trace t ON t.seq = p.trace_seq
      WHERE p.bridge_id = #{query.bridge} AND p.collection_id = #{place}
      AND p.received_at &gt;= #{query.since} AND p.received_at &lt;= #{query.before}
      AND (p.received_at &lt; #{query.before} OR p.trace_seq &lt; #{query.beforeSeq})
      <if test="query.verdict != null">AND t.verdict = #{query.verdict}</if>
      <if test="query.underWay">AND t.verdict IS NULL</if>
      <if test="waiting">
      AND EXISTS (SELECT 1 FROM attention a WHERE a.trace_seq = p.trace_seq)
      </if>
      ORDER BY p.bridge_id DESC, p.collection_id DESC, p.received_at DESC, p.trace_seq DESC
      LIMIT #{query.limit}
      </script>
      """)
  List<TraceRow> ofPlace(
      @Param("query") Query query, @Param("place") String place, @Param("waiting") boolean waiting);

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
