package org.ysthmos.app.rehearsal;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;

/** Events of the past in the database, in the order in which they came. */
@Mapper
interface PastMapper {

  /** The first event that was received from a moment on; null if there is none. */
  @Select(
      """
      SELECT seq FROM event WHERE received_at >= #{at} ORDER BY received_at, seq LIMIT 1
      """)
  @Nullable Long firstFrom(@Param("at") Instant at);

  String WHICH =
      """
       FROM event e
      WHERE e.system_id = #{w.system} AND e.collection_id = #{w.collection}
        AND e.seq BETWEEN #{w.first} AND #{w.last}
        AND e.origin IN ('TOLD', 'POLLED', 'DUE') AND e.kind IN
      <foreach item="kind" collection="w.kinds" open="(" separator="," close=")">#{kind}</foreach>
      """;

  /**
   * Events of some kinds of a collection.
   *
   * @param first the order number from which on they count
   * @param last the order number up to which they count
   */
  record Which(String system, String collection, List<String> kinds, long first, long last) {}

  /**
   * How many there are, the newest of them up to a number; counted in an index, since reading a
   * hundred thousand events takes its time.
   *
   * @param firstSeq the order number of the first of them; null if there are none
   */
  record Span(int events, @Nullable Long firstSeq, @Nullable Long lastSeq) {}

  @Select(
      "<script>SELECT COUNT(*), MIN(seq), MAX(seq) FROM (SELECT e.seq "
          + WHICH
          + " ORDER BY e.system_id DESC, e.collection_id DESC, e.seq DESC LIMIT #{most})</script>")
  Span span(@Param("w") Which which, @Param("most") int most);

  /** When an event was received. */
  @Select("SELECT received_at FROM event WHERE seq = #{seq}")
  @Nullable Instant receivedAt(@Param("seq") long seq);

  @Select(
      "<script>SELECT "
          + EventMapper.COLUMNS
          + WHICH
          + " ORDER BY e.system_id, e.collection_id, e.seq LIMIT #{most}</script>")
  List<EventRow> page(@Param("w") Which which, @Param("most") int most);
}
