package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Verdict;

/** What is still to be done about traces, in the database. Only {@link TraceQueue} changes it. */
@Mapper
interface TraceWorkMapper {

  /**
   * A trace that has not ended.
   *
   * @param verdict what it comes to if all its deliveries are made
   * @param failed whether one of its deliveries failed
   */
  record WorkRow(
      long traceSeq,
      String queueId,
      String orderKey,
      TraceState state,
      @Nullable Verdict verdict,
      boolean failed,
      int tries,
      int breaks,
      @Nullable String claim) {}

  String COLUMNS = "trace_seq, queue_id, order_key, state, verdict, failed, tries, breaks, claim";

  @Insert(
      """
      <script>
      INSERT INTO trace_work (trace_seq, queue_id, order_key, state, tries, breaks) VALUES
      <foreach item="w" collection="rows" separator=",">
        (#{w.traceSeq}, #{w.queueId}, #{w.orderKey}, #{w.state}, #{w.tries}, #{w.breaks})
      </foreach>
      </script>
      """)
  void add(@Param("rows") List<WorkRow> rows);

  /** Whether any trace of a record has not ended: 1 if so, 0 if not. */
  @Select(
      """
      SELECT COUNT(*) FROM (SELECT 1 FROM trace_work
        WHERE queue_id = #{queue} AND order_key = #{orderKey} LIMIT 1)
      """)
  int unfinished(@Param("queue") String queue, @Param("orderKey") String orderKey);

  /** A trace that can be decided, and where it stands. */
  record ReadyRow(long traceSeq, int tries, int breaks) {}

  @Select(
      """
      SELECT trace_seq, tries, breaks FROM trace_work
      WHERE queue_id = #{queue} AND state = 'READY'
      ORDER BY queue_id, state, trace_seq LIMIT #{limit}
      """)
  List<ReadyRow> ready(@Param("queue") String queue, @Param("limit") int limit);

  @Select("SELECT " + COLUMNS + " FROM trace_work WHERE trace_seq = #{seq}")
  @Nullable WorkRow find(@Param("seq") long seq);

  /** Claims traces; the name of each claim ends with the number of its trace. */
  @Update(
      """
      <script>UPDATE trace_work SET state = 'DECIDING', claim = #{claim} || trace_seq,
        claimed_until = #{until}
      WHERE state = 'READY' AND trace_seq IN
      <foreach item="s" collection="seqs" open="(" separator="," close=")">#{s}</foreach></script>
      """)
  int claim(
      @Param("seqs") List<Long> seqs, @Param("claim") String claim, @Param("until") Instant until);

  @Update(
      """
      <script>UPDATE trace_work SET claimed_until = #{until} WHERE state = 'DECIDING' AND claim IN
      <foreach item="c" collection="claims" open="(" separator="," close=")">#{c}</foreach>
      </script>
      """)
  int renew(@Param("claims") Collection<String> claims, @Param("until") Instant until);

  /** What nobody renewed in time, or whose time was set by a clock that was far ahead. */
  @Select(
      """
      SELECT trace_seq, queue_id, order_key, state, verdict, failed, tries, breaks, claim
      FROM trace_work
      WHERE state = 'DECIDING' AND (claimed_until < #{now} OR claimed_until > #{longest})
      """)
  List<WorkRow> expired(@Param("now") Instant now, @Param("longest") Instant longest);

  @Update(
      """
      UPDATE trace_work SET state = #{to}, tries = #{tries}, breaks = #{breaks},
        not_before = #{notBefore}, paused_at = #{pausedAt}, awaits = #{awaits}, verdict = #{verdict},
        claim = NULL, claimed_until = NULL
      WHERE trace_seq = #{seq} AND state = 'DECIDING' AND claim = #{claim}
      """)
  int giveUpClaim(
      @Param("seq") long seq,
      @Param("claim") String claim,
      @Param("to") TraceState to,
      @Param("tries") int tries,
      @Param("breaks") int breaks,
      @Param("notBefore") @Nullable Instant notBefore,
      @Param("pausedAt") @Nullable Instant pausedAt,
      @Param("awaits") @Nullable String awaits,
      @Param("verdict") @Nullable Verdict verdict);

  @Update("UPDATE trace_work SET verdict = #{verdict} WHERE trace_seq = #{seq}")
  int comesTo(@Param("seq") long seq, @Param("verdict") Verdict verdict);

  /** Traces whose time has come. */
  @Select(
      """
      SELECT trace_seq FROM trace_work WHERE state = 'PAUSED' AND not_before <= #{now} LIMIT 500
      """)
  List<Long> due(@Param("now") Instant now);

  /**
   * Traces that wait because of a clock that was ahead.
   *
   * @param far the end of the longest usual wait; what ends before is not looked at
   * @param ahead what was written down after this was written by such a clock
   */
  @Select(
      """
      SELECT trace_seq FROM trace_work
      WHERE state = 'PAUSED' AND not_before > #{far}
        AND (paused_at > #{ahead} OR paused_at IS NULL) LIMIT 500
      """)
  List<Long> pausedAhead(@Param("far") Instant far, @Param("ahead") Instant ahead);

  @Update(
      """
      <script>UPDATE trace_work SET state = 'READY', not_before = NULL, paused_at = NULL
      WHERE state = 'PAUSED' AND trace_seq IN
      <foreach item="s" collection="seqs" open="(" separator="," close=")">#{s}</foreach></script>
      """)
  int wake(@Param("seqs") List<Long> seqs);

  /** Lets go what waited for a pair. */
  @Update(
      """
      UPDATE trace_work SET state = 'READY', awaits = NULL
      WHERE queue_id = #{queue} AND state = 'AWAITING_PAIR' AND awaits = #{hash}
      """)
  int pairIsFree(@Param("queue") String queue, @Param("hash") String hash);

  /** Ends a trace that somebody decides. */
  @Delete("DELETE FROM trace_work WHERE trace_seq = #{seq} AND claim = #{claim}")
  int endClaimed(@Param("seq") long seq, @Param("claim") String claim);

  /** Ends a trace that is delivered. */
  @Delete("DELETE FROM trace_work WHERE trace_seq = #{seq} AND state = 'DELIVERING'")
  int endDelivered(@Param("seq") long seq);

  /** One of its deliveries failed. */
  @Update("UPDATE trace_work SET failed = TRUE WHERE trace_seq = #{seq}")
  void deliveryFailed(@Param("seq") long seq);

  /** The earliest trace of a record that has not ended; null if all have. */
  @Select(
      """
      SELECT MIN(trace_seq) FROM trace_work
      WHERE queue_id = #{queue} AND order_key = #{orderKey}
      """)
  @Nullable Long earliest(@Param("queue") String queue, @Param("orderKey") String orderKey);

  @Update("UPDATE trace_work SET state = 'READY' WHERE trace_seq = #{seq} AND state = 'BEHIND'")
  int letGo(@Param("seq") long seq);

  @Select("SELECT DISTINCT queue_id FROM trace_work")
  List<String> queues();

  /** When a trace is tried next that is put off. */
  @Select("SELECT MIN(not_before) FROM trace_work WHERE state = 'PAUSED'")
  @Nullable Instant next();

  /** How many are in a state that ends by itself without a time to come. */
  @Select("SELECT COUNT(*) FROM trace_work WHERE queue_id = #{queue}")
  int waiting(@Param("queue") String queue);

  @Select("SELECT COUNT(*) FROM trace_work WHERE queue_id = #{queue} AND state = 'DELIVERING'")
  int delivering(@Param("queue") String queue);

  @Select("SELECT COUNT(*) FROM trace_work WHERE state = 'DECIDING'")
  int deciding();

  /** What of a queue has not ended. */
  record BacklogRow(String queueId, int traces, long oldest) {}

  @Select(
      """
      SELECT queue_id, COUNT(*) AS traces, MIN(trace_seq) AS oldest FROM trace_work
      GROUP BY queue_id
      """)
  List<BacklogRow> backlog();

  @Select("SELECT trace_seq FROM trace_work WHERE queue_id = #{queue} AND state = 'READY' LIMIT 1")
  @Nullable Long anyReady(@Param("queue") String queue);
}
