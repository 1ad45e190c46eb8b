package org.ysthmos.app.fullcheck;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** Tasks of which a person said that they are two, so that no later check asks again. */
@Mapper
interface ToldApartMapper {

  /** A task of either side, by their ids. */
  record Two(String left, String right) {}

  @Insert(
      """
      MERGE INTO told_apart (bridge_id, left_record, right_record, told_by, told_at)
      KEY (bridge_id, left_record, right_record)
      VALUES (#{bridge}, #{two.left}, #{two.right}, #{by}, #{now})
      """)
  void add(
      @Param("bridge") String bridge,
      @Param("two") Two two,
      @Param("by") String by,
      @Param("now") Instant now);

  @Select("SELECT left_record, right_record FROM told_apart WHERE bridge_id = #{bridge}")
  List<Two> ofBridge(String bridge);
}
