package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.failure.FailureKind;

/**
 * Traces in the database. Lists are paged by key, as OFFSET reads all that it skips; equality
 * columns stand in ORDER BY, or the whole match is sorted.
 */
@Mapper
public interface TraceMapper {

  String COLUMNS =
      """
      t.seq, t.id, t.event_seq, t.bridge_id, t.bridge_version, t.order_key, t.verdict, t.tries,
      t.received_at, t.finished_at, t.title, t.match_text, t.match_hash, t.target_record,
      t.failure_kind, t.reason, t.resend_of, t.resent_as, t.is_try, t.taken_back_at
      """;

  /** The next order numbers. */
  @Options(flushCache = Options.FlushCachePolicy.TRUE)
  @Select("SELECT NEXT VALUE FOR trace_order FROM SYSTEM_RANGE(1, #{count})")
  List<Long> numbers(@Param("count") int count);

  /**
   * A trace that begins.
   *
   * @param resendOf the trace that it sends again
   * @param askedBy who asked for it; null if nobody did
   */
  record NewTrace(
      long seq,
      String id,
      long eventSeq,
      String bridgeId,
      String orderKey,
      Instant now,
      @Nullable String resendOf,
      boolean isTry,
      @Nullable String askedBy) {}

  @Insert(
      """
      <script>
      INSERT INTO trace (seq, id, event_seq, bridge_id, order_key, tries, received_at, resend_of,
                         is_try, asked_by) VALUES
      <foreach item="t" collection="traces" separator=",">
        (#{t.seq}, #{t.id}, #{t.eventSeq}, #{t.bridgeId}, #{t.orderKey}, 0, #{t.now},
         #{t.resendOf}, #{t.isTry}, #{t.askedBy})
      </foreach>
      </script>
      """)
  void add(@Param("traces") List<NewTrace> traces);

  @Insert("INSERT INTO trace_try (trace_seq, document) VALUES (#{seq}, #{document})")
  void addTry(@Param("seq") long seq, @Param("document") String document);

  @Select("SELECT document FROM trace_try WHERE trace_seq = #{seq}")
  @Nullable String tryDocument(@Param("seq") long seq);

  /** It is carried by a version of its bridge that need not be the live one. */
  @Insert("INSERT INTO trace_version (trace_seq, number) VALUES (#{seq}, #{number})")
  void carriedBy(@Param("seq") long seq, @Param("number") int number);

  @Select("SELECT number FROM trace_version WHERE trace_seq = #{seq}")
  @Nullable Integer versionOf(@Param("seq") long seq);

  @Select("SELECT " + COLUMNS + " FROM trace t WHERE t.id = #{id}")
  @Nullable TraceRow find(@Param("id") String id);

  @Select("SELECT " + COLUMNS + " FROM trace t WHERE t.seq = #{seq}")
  @Nullable TraceRow at(@Param("seq") long seq);

  /** A collection that was delivered to. */
  record Delivered(String systemId, String collectionId) {}

  /** Where a trace delivered its first task to; null if it delivered nothing. */
  @Select(
      """
      SELECT system_id, collection_id FROM delivery
      WHERE trace_seq = #{seq} ORDER BY trace_seq, seq LIMIT 1
      """)
  @Nullable Delivered deliveredTo(long seq);

  /** What a decision says of a trace. */
  record Decided(
      long seq,
      int bridgeVersion,
      String title,
      @Nullable String matchText,
      @Nullable String matchHash,
      @Nullable String targetRecord,
      @Nullable FailureKind failureKind,
      @Nullable String reason) {}

  @Update(
      """
      UPDATE trace SET bridge_version = #{bridgeVersion}, title = #{title},
        match_text = #{matchText}, match_hash = #{matchHash}, target_record = #{targetRecord},
        failure_kind = #{failureKind}, reason = #{reason}
      WHERE seq = #{seq}
      """)
  void decided(Decided decided);

  /** How the last try went, while there will be others. */
  @Update(
      """
      UPDATE trace SET tries = #{tries}, failure_kind = #{failureKind}, reason = #{reason}
      WHERE seq = #{seq}
      """)
  void tried(
      @Param("seq") long seq,
      @Param("tries") int tries,
      @Param("failureKind") @Nullable FailureKind failureKind,
      @Param("reason") @Nullable String reason);

  /** Something of it was delivered well. */
  @Update(
      """
      UPDATE trace SET tries = #{tries}, target_record = #{record}, failure_kind = NULL,
        reason = NULL
      WHERE seq = #{seq}
      """)
  void delivered(
      @Param("seq") long seq, @Param("tries") int tries, @Param("record") @Nullable String record);

  @Update("UPDATE trace SET target_record = #{record} WHERE seq = #{seq}")
  void made(@Param("seq") long seq, @Param("record") String record);

  @Update(
      """
      UPDATE trace SET verdict = #{verdict}, finished_at = #{finishedAt},
        failure_kind = #{failureKind}, reason = #{reason}
      WHERE seq = #{seq}
      """)
  void end(
      @Param("seq") long seq,
      @Param("verdict") Verdict verdict,
      @Param("finishedAt") Instant finishedAt,
      @Param("failureKind") @Nullable FailureKind failureKind,
      @Param("reason") @Nullable String reason);

  @Update(
      """
      UPDATE trace SET resent_as = #{fresh}
      WHERE id = #{id} AND resent_as IS NULL AND verdict IS NOT NULL
      """)
  int markResent(@Param("id") String id, @Param("fresh") String fresh);

  /** The trace of a record that somebody asked a bridge for; null if nobody did. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM trace t WHERE t.bridge_id = #{bridge} AND t.order_key = #{orderKey}
            AND t.asked_by = #{askedBy}
          ORDER BY t.bridge_id DESC, t.order_key DESC, t.seq DESC LIMIT 1
          """)
  @Nullable TraceRow askedFor(
      @Param("bridge") String bridge,
      @Param("orderKey") String orderKey,
      @Param("askedBy") String askedBy);

  @Update("UPDATE trace SET taken_back_at = #{now} WHERE seq = #{seq}")
  void takenBack(@Param("seq") long seq, @Param("now") Instant now);

  /** The traces of these ids, in the order in which they began. */
  @Select(
      "<script>SELECT "
          + COLUMNS
          + """
           FROM trace t WHERE t.id IN
          <foreach item="i" collection="ids" open="(" separator="," close=")">#{i}</foreach>
          ORDER BY t.seq</script>
          """)
  List<TraceRow> named(@Param("ids") List<String> ids);

  /** The traces of these order numbers. */
  @Select(
      "<script>SELECT "
          + COLUMNS
          + """
           FROM trace t WHERE t.seq IN
          <foreach item="s" collection="seqs" open="(" separator="," close=")">#{s}</foreach>
          </script>
          """)
  List<TraceRow> of(@Param("seqs") List<Long> seqs);

  /** The order number of the first trace that was received at a time or later; null if none was. */
  @Select(
      """
      SELECT seq FROM trace WHERE received_at >= #{since} ORDER BY received_at, seq LIMIT 1
      """)
  @Nullable Long firstSince(@Param("since") Instant since);

  @Select("SELECT received_at FROM trace WHERE seq = #{seq}")
  @Nullable Instant receivedAt(@Param("seq") long seq);

  /** The moment at which a bridge's newest trace was received. */
  @Select(
      """
      SELECT received_at FROM trace WHERE bridge_id = #{bridge}
      ORDER BY bridge_id DESC, received_at DESC, seq DESC LIMIT 1
      """)
  @Nullable Instant newestOf(@Param("bridge") String bridge);

  /** The first traces of a queue that wait to be decided, in the order in which they are. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM trace_work w JOIN trace t ON t.seq = w.trace_seq
          WHERE w.queue_id = #{queue} AND w.state IN ('READY', 'BEHIND', 'PAUSED')
          ORDER BY w.trace_seq LIMIT #{limit}
          """)
  List<TraceRow> undecided(@Param("queue") String queue, @Param("limit") int limit);
}
