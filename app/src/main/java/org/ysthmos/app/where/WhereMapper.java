package org.ysthmos.app.where;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.event.EventMapper.Origin;
import org.ysthmos.core.decide.Verdict;

/** What was received of a record and what became of it, in the database. */
@Mapper
interface WhereMapper {

  /** An event without its body. */
  record EventLine(long seq, String kind, Origin origin, Instant happenedAt, Instant receivedAt) {}

  /** The events of a record that its source told of or that were found there, the newest first. */
  @Select(
      """
      SELECT seq, kind, origin, happened_at, received_at FROM event
      WHERE system_id = #{place.system} AND collection_id = #{place.collection}
        AND record_id = #{place.record} AND origin IN ('TOLD', 'POLLED', 'DUE')
      ORDER BY system_id DESC, collection_id DESC, record_id DESC, seq DESC LIMIT #{most}
      """)
  List<EventLine> events(@Param("place") Place place, @Param("most") int most);

  /**
   * A trace of an event.
   *
   * @param verdict null while it is under way
   * @param reason why it failed or passed by; empty otherwise
   */
  record TraceLine(
      long eventSeq,
      String id,
      String bridgeId,
      @Schema(nullable = true) @Nullable Verdict verdict,
      String reason,
      Instant receivedAt) {}

  /** The traces of some events, the newest first. */
  @Select(
      """
      <script>SELECT event_seq, id, bridge_id, verdict, COALESCE(reason, ''), received_at FROM trace
      WHERE event_seq IN
      <foreach item="s" collection="events" open="(" separator="," close=")">#{s}</foreach>
      ORDER BY seq DESC</script>
      """)
  List<TraceLine> traces(@Param("events") List<Long> events);

  /** What the newest of the traces of some events is called; null if none of them has a title. */
  @Select(
      """
      <script>SELECT title FROM trace WHERE event_seq IN
      <foreach item="s" collection="events" open="(" separator="," close=")">#{s}</foreach>
      AND title &lt;&gt; '' ORDER BY seq DESC LIMIT 1</script>
      """)
  @Nullable String title(@Param("events") List<Long> events);

  /** A record of a collection. */
  record Place(String system, String collection, String record) {}

  /** The records of the events of some traces, those of the newest first. */
  @Select(
      """
      <script>SELECT e.system_id, e.collection_id, e.record_id
      FROM trace t JOIN event e ON e.seq = t.event_seq WHERE t.seq IN
      <foreach item="s" collection="traces" open="(" separator="," close=")">#{s}</foreach>
      GROUP BY e.system_id, e.collection_id, e.record_id ORDER BY MAX(t.seq) DESC</script>
      """)
  List<Place> places(@Param("traces") List<Long> traces);

  /** When something of a collection was received last; null if nothing was. */
  @Select(
      """
      SELECT received_at FROM event
      WHERE system_id = #{system} AND collection_id = #{collection}
      ORDER BY system_id DESC, collection_id DESC, seq DESC LIMIT 1
      """)
  @Nullable Instant newestOf(
      @Param("system") String system, @Param("collection") String collection);
}
