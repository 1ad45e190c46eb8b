package org.ysthmos.app.health;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** How full systems were, in the database. */
@Mapper
interface QuotaMapper {

  /** How full a system was at a moment. */
  record QuotaRow(Instant at, long used, long most) {}

  @Insert("INSERT INTO quota_use VALUES (#{system}, #{at}, #{used}, #{most})")
  void add(
      @Param("system") String system,
      @Param("at") Instant at,
      @Param("used") long used,
      @Param("most") long most);

  @Select("SELECT MAX(at) FROM quota_use WHERE system_id = #{system}")
  @Nullable Instant newest(@Param("system") String system);

  @Select(
      """
      SELECT at, used, most FROM quota_use WHERE system_id = #{system} AND at >= #{since}
      ORDER BY system_id, at
      """)
  List<QuotaRow> since(@Param("system") String system, @Param("since") Instant since);

  @Delete("DELETE FROM quota_use WHERE system_id = #{system} AND at < #{before}")
  void forget(@Param("system") String system, @Param("before") Instant before);
}
