package org.ysthmos.app.trace;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Which traces caused which, in the database. */
@Mapper
interface TraceCauseMapper {

  /**
   * A trace as a link of a chain.
   *
   * @param causeSeq the trace that caused it; null for the first, and for what is not kept any more
   */
  record LinkRow(long seq, String bridgeId, @Nullable Long causeSeq, int depth, int again) {}

  @Insert("INSERT INTO trace_cause VALUES (#{seq}, #{cause}, #{depth}, #{again})")
  void add(
      @Param("seq") long seq,
      @Param("cause") long cause,
      @Param("depth") int depth,
      @Param("again") int again);

  @Select(
      """
      SELECT t.seq, t.bridge_id, c.cause_seq, COALESCE(c.depth, 0) AS depth,
        COALESCE(c.again, 0) AS again
      FROM trace t LEFT JOIN trace_cause c ON c.trace_seq = t.seq WHERE t.seq = #{seq}
      """)
  @Nullable LinkRow link(@Param("seq") long seq);

  /** The first traces that one caused. */
  @Select(
      """
      SELECT trace_seq FROM trace_cause WHERE cause_seq = #{cause}
      ORDER BY cause_seq, trace_seq LIMIT #{limit}
      """)
  List<Long> causedBy(@Param("cause") long cause, @Param("limit") int limit);
}
