package org.ysthmos.app.desk.sample;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Samples that people added, in the database. */
@Mapper
interface SampleMapper {

  /**
   * A sample.
   *
   * @param event as CloudEvents JSON
   * @param place which of those that were added at once, from 0
   */
  record SampleRow(String id, String bridgeId, String event, Instant addedAt, int place) {}

  @Insert(
      """
      INSERT INTO sample (id, bridge_id, event, added_at, place)
      VALUES (#{id}, #{bridgeId}, #{event}, #{addedAt}, #{place})
      """)
  void add(SampleRow sample);

  /** The newest first, those added at once in their order. */
  @Select(
      """
      SELECT id, bridge_id, event, added_at, place FROM sample
      WHERE bridge_id = #{bridge} ORDER BY added_at DESC, place
      """)
  List<SampleRow> of(@Param("bridge") String bridge);

  @Delete("DELETE FROM sample WHERE bridge_id = #{bridge} AND id = #{id}")
  int remove(@Param("bridge") String bridge, @Param("id") String id);
}
