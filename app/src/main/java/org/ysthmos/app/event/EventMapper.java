package org.ysthmos.app.event;

import java.time.Instant;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Events in the database. */
@Mapper
public interface EventMapper {

  /** An event as it is kept; the body is the bytes that came. */
  record EventRow(
      String id,
      String systemId,
      String sourceId,
      String collectionId,
      String kind,
      String recordId,
      Instant happenedAt,
      Instant receivedAt,
      byte[] body) {}

  @Insert(
      """
      INSERT INTO event (id, system_id, source_id, collection_id, kind, record_id, happened_at,
                         received_at, body)
      VALUES (#{id}, #{systemId}, #{sourceId}, #{collectionId}, #{kind}, #{recordId},
              #{happenedAt}, #{receivedAt}, #{body})
      """)
  void add(EventRow event);

  @Select("SELECT id FROM event WHERE system_id = #{system} AND source_id = #{sourceId}")
  @Nullable String findId(@Param("system") String system, @Param("sourceId") String sourceId);

  @Select(
      """
      SELECT id, system_id, source_id, collection_id, kind, record_id, happened_at, received_at,
             body
      FROM event WHERE id = #{id}
      """)
  @Nullable EventRow find(@Param("id") String id);

  /** Forces what was committed to the disk. */
  @Update("CHECKPOINT SYNC")
  void force();
}
