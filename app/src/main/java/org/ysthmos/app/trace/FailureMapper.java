package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.FailureKind;

/** Failures as data, which of them wait for a person, and how many traces ended how. */
@Mapper
public interface FailureMapper {

  /**
   * One failure of a trace.
   *
   * @param place which of the trace's, counted from 0
   * @param systemId where it happened; empty if it happened here
   * @param signature the same for failures of one cause
   * @param effect what was to be done; null if something was read or decided
   */
  record FailureRow(
      long traceSeq,
      int place,
      FailureKind kind,
      String systemId,
      String collectionId,
      String field,
      String code,
      String message,
      String remedy,
      String signature,
      @Nullable EffectKind effect) {}

  @Insert(
      """
      INSERT INTO failure (trace_seq, place, kind, system_id, collection_id, field, code, message,
                           remedy, signature, effect)
      VALUES (#{traceSeq}, #{place}, #{kind}, #{systemId}, #{collectionId}, #{field}, #{code},
              #{message}, #{remedy}, #{signature}, #{effect})
      """)
  void add(FailureRow failure);

  @Select("SELECT COUNT(*) FROM failure WHERE trace_seq = #{trace}")
  int countOf(@Param("trace") long trace);

  @Select("SELECT * FROM failure WHERE trace_seq = #{trace} ORDER BY trace_seq, place")
  List<FailureRow> of(@Param("trace") long trace);

  /** The incident that a trace waits for; null if it waits for none. */
  @Select(
      """
      SELECT MAX(i.id) FROM attention a JOIN incident i ON i.cause = a.cause
      WHERE a.trace_seq = #{trace} AND i.state <> 'CLOSED'
      """)
  @Nullable Long incidentOf(@Param("trace") long trace);

  @Insert(
      """
      INSERT INTO attention (trace_seq, queue_id, order_key, kind, signature, reason, since, cause)
      VALUES (#{trace}, #{queue}, #{orderKey}, #{kind}, #{signature}, #{reason}, #{since}, #{cause})
      """)
  void needsAPerson(
      @Param("trace") long trace,
      @Param("queue") String queue,
      @Param("orderKey") String orderKey,
      @Param("kind") FailureKind kind,
      @Param("signature") String signature,
      @Param("reason") String reason,
      @Param("since") Instant since,
      @Param("cause") String cause);

  @Update(
      """
      UPDATE failure_count SET failures = failures + 1
      WHERE cause = #{cause} AND bridge_id = #{bridge} AND slot = #{slot}
      """)
  int countOfCause(
      @Param("cause") String cause, @Param("bridge") String bridge, @Param("slot") long slot);

  @Insert("INSERT INTO failure_count VALUES (#{cause}, #{bridge}, #{slot}, 1)")
  void countFirstOfCause(
      @Param("cause") String cause, @Param("bridge") String bridge, @Param("slot") long slot);

  @Delete("DELETE FROM attention WHERE trace_seq = #{trace}")
  int settled(@Param("trace") long trace);

  /** A later trace of the record came across. */
  @Delete(
      """
      DELETE FROM attention
      WHERE queue_id = #{queue} AND order_key = #{orderKey} AND trace_seq < #{before}
      """)
  int settledBy(
      @Param("queue") String queue,
      @Param("orderKey") String orderKey,
      @Param("before") long before);

  @Select(
      """
      SELECT MAX(trace_seq) FROM attention WHERE queue_id = #{queue} AND order_key = #{orderKey}
      """)
  @Nullable Long newest(@Param("queue") String queue, @Param("orderKey") String orderKey);

  @Update(
      """
      UPDATE trace_count SET traces = traces + #{traces},
        worst_millis = GREATEST(worst_millis, #{millis})
      WHERE bridge_id = #{bridge} AND slot = #{slot} AND verdict = #{verdict}
      """)
  int count(
      @Param("bridge") String bridge,
      @Param("slot") long slot,
      @Param("verdict") Verdict verdict,
      @Param("traces") int traces,
      @Param("millis") long millis);

  @Insert(
      """
      INSERT INTO trace_count (bridge_id, slot, verdict, traces, worst_millis)
      VALUES (#{bridge}, #{slot}, #{verdict}, #{traces}, #{millis})
      """)
  void countFirst(
      @Param("bridge") String bridge,
      @Param("slot") long slot,
      @Param("verdict") Verdict verdict,
      @Param("traces") int traces,
      @Param("millis") long millis);

  /** How many traces that were received in a half hour came to a verdict. */
  record CountRow(String bridgeId, int slot, Verdict verdict, int traces, long worstMillis) {}

  @Select(
      """
      SELECT c.bridge_id, c.slot, c.verdict, c.traces, c.worst_millis
      FROM bridge b JOIN trace_count c ON c.bridge_id = b.id AND c.slot >= #{since}
      WHERE b.state IN ('live', 'held')
      """)
  List<CountRow> counts(@Param("since") long since);
}
