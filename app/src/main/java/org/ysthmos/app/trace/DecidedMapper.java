package org.ysthmos.app.trace;

import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Verdict;

/** What was decided, task by task, in the database. */
@Mapper
interface DecidedMapper {

  @Insert(
      """
      MERGE INTO decided (trace_seq, outcome, answers) KEY (trace_seq)
      VALUES (#{trace}, #{outcome}, #{answers})
      """)
  void add(
      @Param("trace") long trace,
      @Param("outcome") byte[] outcome,
      @Param("answers") byte @Nullable [] answers);

  /** A trace that ended. */
  record EndedRow(long eventSeq, long traceSeq, Verdict verdict) {}

  /**
   * Those of a bridge over a span of events, in the order in which they began. They are found by
   * their events: a bridge has many more traces than a span has. All that is asked of a trace
   * stands in the index, since traces are wide and their rows take as long to read as all the rest.
   */
  @Select(
      """
      SELECT event_seq, seq, verdict FROM trace USE INDEX (trace_by_event)
      WHERE event_seq BETWEEN #{first} AND #{last} AND bridge_id = #{bridge}
        AND verdict IS NOT NULL AND NOT is_try
      ORDER BY seq
      """)
  List<EndedRow> ended(
      @Param("bridge") String bridge, @Param("first") long first, @Param("last") long last);

  /**
   * What was decided in a trace.
   *
   * @param answers null where nothing was looked up
   */
  record DecidedRow(long traceSeq, byte[] outcome, byte @Nullable [] answers) {}

  /** All that is kept of a span of traces, read through from its beginning to its end. */
  @Select(
      """
      SELECT trace_seq, outcome, answers FROM decided
      WHERE trace_seq BETWEEN #{first} AND #{last}
      """)
  List<DecidedRow> ofSpan(@Param("first") long first, @Param("last") long last);

  /** What is kept of some traces, each looked up by itself. */
  @Select(
      """
      <script>
      SELECT trace_seq, outcome, answers FROM decided WHERE trace_seq IN
      <foreach item="t" collection="traces" open="(" separator="," close=")">#{t}</foreach>
      </script>
      """)
  List<DecidedRow> of(@Param("traces") Collection<Long> traces);

  /**
   * How people know a trace.
   *
   * @param reason why it was passed by or failed; empty otherwise
   */
  record NamedRow(long seq, String id, String title, String reason) {}

  @Select(
      """
      <script>
      SELECT seq, id, COALESCE(title, ''), COALESCE(reason, '') FROM trace WHERE seq IN
      <foreach item="s" collection="seqs" open="(" separator="," close=")">#{s}</foreach>
      </script>
      """)
  List<NamedRow> named(@Param("seqs") List<Long> seqs);
}
