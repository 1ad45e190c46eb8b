package org.ysthmos.app.desk;

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

  /** A sample; the event as CloudEvents JSON. */
  record SampleRow(String id, String bridgeId, String event, Instant addedAt) {}

  @Insert(
      """
      INSERT INTO sample (id, bridge_id, event, added_at)
      VALUES (#{id}, #{bridgeId}, #{event}, #{addedAt})
      """)
  void add(SampleRow sample);

  @Select(
      """
      SELECT id, bridge_id, event, added_at FROM sample
      WHERE bridge_id = #{bridge} ORDER BY bridge_id DESC, id DESC
      """)
  List<SampleRow> of(@Param("bridge") String bridge);

  @Delete("DELETE FROM sample WHERE bridge_id = #{bridge} AND id = #{id}")
  int remove(@Param("bridge") String bridge, @Param("id") String id);
}
