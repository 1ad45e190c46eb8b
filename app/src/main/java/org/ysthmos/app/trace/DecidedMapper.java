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
      String traceId,
      Verdict verdict,
      @Nullable String reason,
      @Nullable String title,
      byte @Nullable [] outcome,
      byte @Nullable [] answers) {}

  /**
   * Those of a bridge over a span of events, in the order in which they began. They are found by
   * their events: a bridge has many more traces than a span has.
   */
  @Select(
      """
      SELECT t.event_seq, t.id, t.verdict, t.reason, t.title, d.outcome, d.answers
      FROM trace t USE INDEX (trace_of_event) LEFT JOIN decided d ON d.trace_seq = t.seq
      WHERE t.event_seq BETWEEN #{first} AND #{last} AND t.bridge_id = #{bridge}
        AND t.verdict IS NOT NULL AND NOT t.is_try
      ORDER BY t.seq
      """)
  List<DecidedRow> of(
      @Param("bridge") String bridge, @Param("first") long first, @Param("last") long last);
}
