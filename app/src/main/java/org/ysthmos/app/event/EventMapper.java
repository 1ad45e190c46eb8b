package org.ysthmos.app.event;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Events in the database. */
@Mapper
public interface EventMapper {

  /**
   * An event as it is kept; the body is the bytes that came.
   *
   * @param madeUp whether a person made it up for a try; such events are not found among the others
   */
  record EventRow(
      String id,
      String systemId,
      String sourceId,
      String collectionId,
      String kind,
      String recordId,
      Instant happenedAt,
      Instant receivedAt,
      byte[] body,
      boolean madeUp) {

    /** What the id of a record may have at most, in characters. */
    public static final int LONGEST_RECORD_ID = 512;

    /**
     * What a body may have at most, in bytes; with room for what its webhook would say around it.
     */
    public static final int LARGEST_BODY = 1_000_000;
  }

  @Insert(
      """
      INSERT INTO event (id, system_id, source_id, collection_id, kind, record_id, happened_at,
                         received_at, body, made_up)
      VALUES (#{id}, #{systemId}, #{sourceId}, #{collectionId}, #{kind}, #{recordId},
              #{happenedAt}, #{receivedAt}, #{body}, #{madeUp})
      """)
  void add(EventRow event);

  @Select("SELECT id FROM event WHERE system_id = #{system} AND source_id = #{sourceId}")
  @Nullable String findId(@Param("system") String system, @Param("sourceId") String sourceId);

  @Select(
      """
      SELECT id, system_id, source_id, collection_id, kind, record_id, happened_at, received_at,
             body, made_up
      FROM event WHERE id = #{id}
      """)
  @Nullable EventRow find(@Param("id") String id);

  /** A collection's events received before a time, or at it with a lower id; newest first. */
  @Select(
      """
      SELECT id, system_id, source_id, collection_id, kind, record_id, happened_at, received_at,
             body, made_up
      FROM event
      WHERE system_id = #{system} AND collection_id = #{collection} AND made_up = FALSE
        AND received_at <= #{before}
        AND (received_at < #{before} OR id < #{beforeId})
      ORDER BY system_id DESC, collection_id DESC, received_at DESC, id DESC LIMIT #{limit}
      """)
  List<EventRow> newest(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("before") Instant before,
      @Param("beforeId") String beforeId,
      @Param("limit") int limit);

  /** A collection's events of some kinds, newest first. */
  @Select(
      """
      <script>
      SELECT id, system_id, source_id, collection_id, kind, record_id, happened_at, received_at,
             body, made_up
      FROM event
      WHERE system_id = #{system} AND collection_id = #{collection} AND made_up = FALSE
        AND kind IN
      <foreach item="kind" collection="kinds" open="(" separator="," close=")">#{kind}</foreach>
      ORDER BY system_id DESC, collection_id DESC, received_at DESC LIMIT #{limit}
      </script>
      """)
  List<EventRow> newestOf(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("kinds") List<String> kinds,
      @Param("limit") int limit);

  /** The event of the same record that was received last before this one. */
  @Select(
      """
      SELECT e.id, e.system_id, e.source_id, e.collection_id, e.kind, e.record_id, e.happened_at,
             e.received_at, e.body, e.made_up
      FROM event e JOIN event this ON this.system_id = #{system} AND this.source_id = #{sourceId}
      WHERE e.system_id = #{system} AND e.collection_id = #{collection}
        AND e.made_up = FALSE AND e.record_id = #{record} AND e.received_at <= this.received_at AND e.id < this.id
      ORDER BY e.system_id DESC, e.collection_id DESC, e.record_id DESC, e.received_at DESC,
               e.id DESC
      LIMIT 1
      """)
  @Nullable EventRow previous(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("record") String record,
      @Param("sourceId") String sourceId);

  /** The events of the same record and of some kinds that were received last before this one. */
  @Select(
      """
      <script>
      SELECT e.id, e.system_id, e.source_id, e.collection_id, e.kind, e.record_id, e.happened_at,
             e.received_at, e.body, e.made_up
      FROM event e JOIN event this ON this.system_id = #{system} AND this.source_id = #{sourceId}
      WHERE e.system_id = #{system} AND e.collection_id = #{collection}
        AND e.made_up = FALSE AND e.record_id = #{record} AND e.received_at &lt;= this.received_at
        AND e.id &lt; this.id AND e.kind IN
      <foreach item="kind" collection="kinds" open="(" separator="," close=")">#{kind}</foreach>
      ORDER BY e.system_id DESC, e.collection_id DESC, e.record_id DESC, e.received_at DESC,
               e.id DESC
      LIMIT #{limit}
      </script>
      """)
  List<EventRow> before(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("record") String record,
      @Param("sourceId") String sourceId,
      @Param("kinds") Collection<String> kinds,
      @Param("limit") int limit);

  /** Whether any event of a record is kept: 1 if so, 0 if not. */
  @Select(
      """
      SELECT COUNT(*) FROM (
        SELECT 1 FROM event
        WHERE system_id = #{system} AND collection_id = #{collection} AND record_id = #{record}
          AND made_up = FALSE
        LIMIT 1)
      """)
  int countOf(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("record") String record);

  /** Forces what was committed to the disk. */
  @Update("CHECKPOINT SYNC")
  void force();
}
