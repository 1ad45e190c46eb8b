package org.ysthmos.app.copies;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Which bridges are copies, in the database. */
@Mapper
interface CopyMapper {

  /**
   * A copy.
   *
   * @param base the original as the copy followed it last, as JSON
   */
  record CopyRow(
      String bridgeId, String originalId, String base, Instant followedAt, String followedBy) {}

  String COLUMNS = "bridge_id, original_id, base, followed_at, followed_by";

  @Select("SELECT " + COLUMNS + " FROM bridge_copy WHERE bridge_id = #{bridge}")
  @Nullable CopyRow find(@Param("bridge") String bridge);

  @Select(
      "SELECT " + COLUMNS + " FROM bridge_copy WHERE original_id = #{original} ORDER BY bridge_id")
  List<CopyRow> of(@Param("original") String original);

  @Insert(
      """
      MERGE INTO bridge_copy (bridge_id, original_id, base, followed_at, followed_by)
      KEY (bridge_id)
      VALUES (#{bridgeId}, #{originalId}, #{base}, #{followedAt}, #{followedBy})
      """)
  void keep(CopyRow row);

  @Delete("DELETE FROM bridge_copy WHERE bridge_id = #{bridge}")
  int forget(@Param("bridge") String bridge);
}
