package org.ysthmos.app.incident;

import java.time.Instant;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Who is told of incidents, in the database. */
@Mapper
interface AlarmMapper {

  @Select("SELECT document FROM alarm_plan WHERE id = 1")
  @Nullable String document();

  /**
   * When the last digest was told, or the document changed if that was later; null if neither was
   * before a moment.
   */
  @Select(
      """
      SELECT MAX(at) FROM (
        SELECT changed_at AS at FROM alarm_plan WHERE id = 1
        UNION ALL SELECT digested_at FROM alarm_plan WHERE id = 1) WHERE at <= #{now}
      """)
  @Nullable Instant digestedAt(@Param("now") Instant now);

  @Update("UPDATE alarm_plan SET digested_at = #{now} WHERE id = 1")
  void digested(@Param("now") Instant now);

  @Update(
      """
      MERGE INTO alarm_plan (id, document, changed_at, changed_by)
      VALUES (1, #{document}, #{now}, #{by})
      """)
  void keep(@Param("document") String document, @Param("now") Instant now, @Param("by") String by);
}
