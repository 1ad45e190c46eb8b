package org.ysthmos.app.courier;

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

/** What is still to be done about deliveries. Only {@link DeliveryQueue} changes it. */
@Mapper
interface DeliveryWorkMapper {

  /** A delivery that has not ended. */
  record WorkRow(
      long deliverySeq,
      long traceSeq,
      String systemId,
      String queueId,
      String bridgeId,
      String matchHash,
      DeliveryState state,
      int tries,
      int breaks,
      @Nullable Instant notBefore,
      @Nullable Instant doubtSince,
      int looks,
      @Nullable String waitsFor,
      @Nullable String claim) {}

  String COLUMNS =
      """
      delivery_seq, trace_seq, system_id, queue_id, bridge_id, match_hash, state, tries, breaks,
      not_before, doubt_since, looks, waits_for, claim
      """;

  @Insert(
      """
      INSERT INTO delivery_work (delivery_seq, trace_seq, system_id, queue_id, bridge_id,
                                 match_hash, state, tries, breaks, doubt_since, looks, waits_for)
      VALUES (#{deliverySeq}, #{traceSeq}, #{systemId}, #{queueId}, #{bridgeId}, #{matchHash},
              #{state}, #{tries}, #{breaks}, #{doubtSince}, #{looks}, #{waitsFor})
      """)
  void add(WorkRow row);

  record QueueRow(String systemId, String queueId) {}

  @Select("SELECT DISTINCT system_id, queue_id FROM delivery_work")
  List<QueueRow> queues();

  @Select(
      """
      SELECT delivery_seq FROM delivery_work
      WHERE system_id = #{system} AND queue_id = #{queue} AND state = 'READY' LIMIT 1
      """)
  @Nullable Long anyReady(@Param("system") String system, @Param("queue") String queue);

  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM delivery_work
          WHERE system_id = #{system} AND queue_id = #{queue} AND state = 'READY'
          ORDER BY system_id, queue_id, state, delivery_seq LIMIT #{limit}
          """)
  List<WorkRow> ready(
      @Param("system") String system, @Param("queue") String queue, @Param("limit") int limit);

  @Select("SELECT " + COLUMNS + " FROM delivery_work WHERE delivery_seq = #{seq}")
  @Nullable WorkRow find(@Param("seq") long seq);

  /**
   * Writes down that they are being tried, before they are; the name of each claim ends with the
   * number of its delivery.
   */
  @Update(
      """
      <script>UPDATE delivery_work SET state = 'SENDING', tries = tries + 1,
        claim = #{claim} || delivery_seq, claimed_until = #{until}
      WHERE state = 'READY' AND delivery_seq IN
      <foreach item="s" collection="seqs" open="(" separator="," close=")">#{s}</foreach></script>
      """)
  int claim(
      @Param("seqs") List<Long> seqs, @Param("claim") String claim, @Param("until") Instant until);

  @Update(
      """
      <script>UPDATE delivery_work SET claimed_until = #{until}
      WHERE state = 'SENDING' AND claim IN
      <foreach item="c" collection="claims" open="(" separator="," close=")">#{c}</foreach>
      </script>
      """)
  int renew(@Param("claims") Collection<String> claims, @Param("until") Instant until);

  /** What nobody renewed in time, or whose time was set by a clock that was far ahead. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM delivery_work
          WHERE state = 'SENDING' AND (claimed_until < #{now} OR claimed_until > #{longest})
          """)
  List<WorkRow> expired(@Param("now") Instant now, @Param("longest") Instant longest);

  @Update(
      """
      UPDATE delivery_work SET state = #{to}, tries = #{tries}, breaks = #{breaks},
        not_before = #{notBefore}, paused_at = #{pausedAt}, doubt_since = #{doubtSince},
        looks = #{looks}, claim = NULL, claimed_until = NULL
      WHERE delivery_seq = #{seq} AND state = 'SENDING' AND claim = #{claim}
      """)
  int giveUpClaim(
      @Param("seq") long seq,
      @Param("claim") String claim,
      @Param("to") DeliveryState to,
      @Param("tries") int tries,
      @Param("breaks") int breaks,
      @Param("notBefore") @Nullable Instant notBefore,
      @Param("pausedAt") @Nullable Instant pausedAt,
      @Param("doubtSince") @Nullable Instant doubtSince,
      @Param("looks") int looks);

  /** Ends what somebody has claimed. */
  @Delete(
      """
      DELETE FROM delivery_work
      WHERE delivery_seq = #{seq} AND state = 'SENDING' AND claim = #{claim}
      """)
  int end(@Param("seq") long seq, @Param("claim") String claim);

  /** Ends what waits for a parent that will not be made. */
  @Delete("DELETE FROM delivery_work WHERE delivery_seq = #{seq} AND state = 'AWAITING_PARENT'")
  int endAwaiting(@Param("seq") long seq);

  /** Ends what nobody sends just now. */
  @Delete("DELETE FROM delivery_work WHERE delivery_seq = #{seq} AND state IN ('READY', 'PAUSED')")
  int withdraw(@Param("seq") long seq);

  /** Deliveries whose time has come. */
  @Select(
      """
      SELECT delivery_seq FROM delivery_work
      WHERE state = 'PAUSED' AND not_before <= #{now} LIMIT 500
      """)
  List<Long> due(@Param("now") Instant now);

  /**
   * Deliveries that wait because of a clock that was ahead.
   *
   * @param far the end of the longest usual wait; what ends before is not looked at
   * @param ahead what was written down after this was written by such a clock
   */
  @Select(
      """
      SELECT delivery_seq FROM delivery_work
      WHERE state = 'PAUSED' AND not_before > #{far}
        AND (paused_at > #{ahead} OR paused_at IS NULL) LIMIT 500
      """)
  List<Long> pausedAhead(@Param("far") Instant far, @Param("ahead") Instant ahead);

  @Update(
      """
      <script>UPDATE delivery_work SET state = 'READY', not_before = NULL, paused_at = NULL
      WHERE state = 'PAUSED' AND delivery_seq IN
      <foreach item="s" collection="seqs" open="(" separator="," close=")">#{s}</foreach></script>
      """)
  int wake(@Param("seqs") List<Long> seqs);

  /** Whether a pair has a delivery that has not ended: 1 if so, 0 if not. */
  @Select(
      """
      SELECT COUNT(*) FROM (SELECT 1 FROM delivery_work
        WHERE bridge_id = #{bridge} AND match_hash = #{hash} LIMIT 1)
      """)
  int ofPair(@Param("bridge") String bridge, @Param("hash") String hash);

  @Select(
      """
      SELECT COUNT(*) FROM (SELECT 1 FROM delivery_work WHERE trace_seq = #{trace} LIMIT 1)
      """)
  int ofTrace(@Param("trace") long trace);

  @Select("SELECT COUNT(*) FROM delivery_work WHERE bridge_id = #{bridge} AND queue_id = #{bridge}")
  int ofBridge(@Param("bridge") String bridge);

  /** The deliveries of a bridge that wait for this parent. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM delivery_work WHERE bridge_id = #{bridge} AND waits_for = #{hash}
            AND state = 'AWAITING_PARENT'
          ORDER BY delivery_seq
          """)
  List<WorkRow> awaiting(@Param("bridge") String bridge, @Param("hash") String hash);

  @Update(
      """
      UPDATE delivery_work SET state = 'READY', waits_for = NULL
      WHERE delivery_seq = #{seq} AND state = 'AWAITING_PARENT'
      """)
  int parentMade(@Param("seq") long seq);

  @Select("SELECT MIN(not_before) FROM delivery_work WHERE state = 'PAUSED'")
  @Nullable Instant next();

  @Select("SELECT COUNT(*) FROM delivery_work WHERE state = 'SENDING'")
  int sending();

  @Select(
      """
      SELECT w.delivery_seq FROM delivery_work w JOIN delivery d ON d.seq = w.delivery_seq
      WHERE w.state = 'SENDING' AND w.system_id = #{system} AND w.trace_seq < #{before}
        AND d.collection_id = #{collection} AND (d.record_id IS NULL OR d.record_id = #{record})
      LIMIT 1
      """)
  @Nullable Long sendingTo(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("record") String record,
      @Param("before") long before);

  @Select(
      """
      SELECT MIN(CASE w.state WHEN 'PAUSED' THEN w.not_before ELSE #{now} END)
      FROM delivery_work w JOIN delivery d ON d.seq = w.delivery_seq
      WHERE w.system_id = #{system} AND w.queue_id = #{queue} AND w.state IN ('SENDING', 'PAUSED')
        AND w.trace_seq < #{before} AND d.collection_id = #{collection} AND d.record_id IS NULL
        AND (w.state = 'SENDING' OR w.doubt_since IS NOT NULL)
      """)
  @Nullable Instant making(
      @Param("queue") String queue,
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("before") long before,
      @Param("now") Instant now);

  /** How many deliveries wait for a system. */
  record WaitingRow(String systemId, int deliveries) {}

  @Select("SELECT system_id, COUNT(*) AS deliveries FROM delivery_work GROUP BY system_id")
  List<WaitingRow> waiting();
}
