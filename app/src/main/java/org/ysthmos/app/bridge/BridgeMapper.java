package org.ysthmos.app.bridge;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface BridgeMapper {

  record VersionRow(String bridgeId, int number, String document, Instant madeAt) {}

  @Select(
      """
      SELECT v.bridge_id, v.number, v.document, v.made_at
      FROM bridge b JOIN bridge_version v ON v.bridge_id = b.id AND v.number = b.live_version
      WHERE b.state = 'live' ORDER BY b.id
      """)
  List<VersionRow> live();

  @Select(
      """
      SELECT bridge_id, number, document, made_at FROM bridge_version
      WHERE bridge_id = #{id} ORDER BY bridge_id DESC, number DESC
      """)
  List<VersionRow> versions(@Param("id") String id);

  @Select("SELECT COALESCE(MAX(number), 0) FROM bridge_version WHERE bridge_id = #{id}")
  int newest(@Param("id") String id);

  @Insert("INSERT INTO bridge (id, live_version, state) VALUES (#{id}, 1, 'live')")
  void add(@Param("id") String id);

  @Insert(
      """
      INSERT INTO bridge_version (bridge_id, number, document, made_at)
      VALUES (#{id}, #{number}, #{document}, #{now})
      """)
  void addVersion(
      @Param("id") String id,
      @Param("number") int number,
      @Param("document") String document,
      @Param("now") Instant now);

  @Update("UPDATE bridge SET live_version = #{number} WHERE id = #{id}")
  void makeLive(@Param("id") String id, @Param("number") int number);
}
