package org.ysthmos.app.trace;

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

  /**
   * A trace that ended with what was decided in it.
   *
   * @param outcome null where that is not kept
   * @param answers null where nothing was looked up
   */
  record DecidedRow(
      long eventSeq,
      long traceSeq,
      Verdict verdict,
      byte @Nullable [] outcome,
      byte @Nullable [] answers) {}

  /**
   * Those of a bridge over a span of events, in the order in which they began. They are found by
   * their events: a bridge has many more traces than a span has. All that is asked of a trace
   * stands in the index, since traces are wide and their rows take as long to read as all the rest.
   */
  @Select(
      """
      SELECT t.event_seq, t.seq, t.verdict, d.outcome, d.answers
      FROM trace t USE INDEX (trace_by_event) LEFT JOIN decided d ON d.trace_seq = t.seq
      WHERE t.event_seq BETWEEN #{first} AND #{last} AND t.bridge_id = #{bridge}
        AND t.verdict IS NOT NULL AND NOT t.is_try
      ORDER BY t.seq
      """)
  List<DecidedRow> of(
      @Param("bridge") String bridge, @Param("first") long first, @Param("last") long last);

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
