package org.ysthmos.app.register;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Whose bridges are, and views of the register, in the database. */
@Mapper
interface RegisterMapper {

  /** How sound people judge a bridge. */
  enum Judged {
    SOUND,
    NEEDS_WORK,
    BEING_TESTED,
    NOT_WORKING
  }

  /**
   * What people say of a bridge; each text is empty if they do not.
   *
   * @param judged null while nobody said
   */
  record CardRow(
      String bridgeId,
      String owner,
      String standIn,
      String department,
      @Nullable Judged judged,
      int revision,
      Instant changedAt,
      String changedBy) {}

  @Select(
      """
      SELECT bridge_id, owner, stand_in, department, judged, revision, changed_at, changed_by
      FROM bridge_card
      """)
  List<CardRow> cards();

  @Insert(
      """
      INSERT INTO bridge_card (bridge_id, owner, stand_in, department, judged, revision,
        changed_at, changed_by)
      VALUES (#{bridgeId}, #{owner}, #{standIn}, #{department}, #{judged}, #{revision},
        #{changedAt}, #{changedBy})
      """)
  void add(CardRow card);

  /** For the one who saw the card before this one. */
  @Update(
      """
      UPDATE bridge_card SET owner = #{owner}, stand_in = #{standIn}, department = #{department},
        judged = #{judged}, revision = #{revision}, changed_at = #{changedAt},
        changed_by = #{changedBy}
      WHERE bridge_id = #{bridgeId} AND revision = #{revision} - 1
      """)
  int change(CardRow card);

  /** Who put the version of a bridge to work that is live. */
  record MadeRow(String bridgeId, String madeBy) {}

  @Select(
      """
      SELECT v.bridge_id, v.made_by FROM bridge b
      JOIN bridge_version v ON v.bridge_id = b.id AND v.number = b.live_version
      """)
  List<MadeRow> made();

  /**
   * @param query what the address says behind the question mark
   */
  record ViewRow(String name, String query, Instant madeAt, String madeBy) {}

  @Select("SELECT name, query, made_at, made_by FROM register_view ORDER BY name")
  List<ViewRow> views();

  @Insert(
      """
      INSERT INTO register_view (name, query, made_at, made_by)
      VALUES (#{name}, #{query}, #{madeAt}, #{madeBy})
      """)
  void addView(ViewRow view);

  @Delete("DELETE FROM register_view WHERE name = #{name}")
  int removeView(@Param("name") String name);
}
