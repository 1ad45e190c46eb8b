package org.ysthmos.app.desk.draft;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Drafts in the database. */
@Mapper
interface DraftMapper {

  record DraftRow(String bridgeId, String document, int revision, Instant changedAt) {}

  @Select(
      "SELECT bridge_id, document, revision, changed_at FROM bridge_draft WHERE bridge_id = #{id}")
  @Nullable DraftRow find(@Param("id") String id);

  @Select("SELECT bridge_id, document, revision, changed_at FROM bridge_draft ORDER BY bridge_id")
  List<DraftRow> all();

  /**
   * @throws org.springframework.dao.DuplicateKeyException if there is a draft already
   */
  @Insert(
      """
      INSERT INTO bridge_draft (bridge_id, document, revision, changed_at)
      VALUES (#{bridgeId}, #{document}, #{revision}, #{changedAt})
      """)
  void add(DraftRow draft);

  @Update(
      """
      UPDATE bridge_draft SET document = #{document}, revision = revision + 1, changed_at = #{now}
      WHERE bridge_id = #{id} AND revision = #{revision}
      """)
  int change(
      @Param("id") String id,
      @Param("document") String document,
      @Param("revision") int revision,
      @Param("now") Instant now);

  @Delete("DELETE FROM bridge_draft WHERE bridge_id = #{id}")
  void drop(@Param("id") String id);
}
