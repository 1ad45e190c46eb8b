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
      WHERE e.system_id = #{w.system}
      <if test="w.several">
        AND e.collection_id IN
        <foreach item="one" collection="w.collections" open="(" separator="," close=")">
          #{one}
        </foreach>
      </if>
      <if test="!w.several">AND e.collection_id = #{w.collections[0]}</if>
        AND e.seq BETWEEN #{w.first} AND #{w.last}
        AND e.origin IN ('TOLD', 'POLLED', 'DUE') AND e.kind IN
      <foreach item="kind" collection="w.kinds" open="(" separator="," close=")">#{kind}</foreach>
      """;

  /**
   * Events of some kinds.
   *
   * @param collections where they came from, at least one
   * @param first the order number from which on they count
   * @param last the order number up to which they count
   */
  record Which(String system, List<String> collections, List<String> kinds, long first, long last) {

    /** Those of them from an order number on. */
    Which from(long seq) {
      return new Which(system, collections, kinds, seq, last);
    }

    /**
     * Whether they are of several collections, so that they are read in the order of all events.
     */
    public boolean isSeveral() {
      return collections.size() > 1;
    }
  }

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
          + " ORDER BY <if test='!w.several'>e.system_id DESC, e.collection_id DESC,</if>"
          + " e.seq DESC LIMIT #{most})</script>")
  Span counted(@Param("w") Which which, @Param("most") int most);

  /** When an event was received. */
  @Select("SELECT received_at FROM event WHERE seq = #{seq}")
  @Nullable Instant receivedAt(@Param("seq") long seq);

  String IN_THEIR_ORDER =
      " ORDER BY <if test='!w.several'>e.system_id, e.collection_id,</if> e.seq LIMIT #{most}";

  /** The order numbers of the first of them; an index alone is read. */
  @Select("<script>SELECT e.seq" + WHICH + IN_THEIR_ORDER + "</script>")
  List<Long> numbers(@Param("w") Which which, @Param("most") int most);

  /**
   * The first of them; those of one collection are looked up one by one, those of several found by
   * reading all events.
   */
  @Select("<script>SELECT " + EventMapper.COLUMNS + WHICH + IN_THEIR_ORDER + "</script>")
  List<EventRow> page(@Param("w") Which which, @Param("most") int most);

  /** All events of a span, whosesoever they are, read through from its beginning to its end. */
  @Select(
      "SELECT "
          + EventMapper.COLUMNS
          + " FROM event e WHERE e.seq BETWEEN #{first} AND #{last} ORDER BY e.seq")
  List<EventRow> span(@Param("first") long first, @Param("last") long last);
}
