package org.ysthmos.app.guard;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.ysthmos.core.delivery.EffectKind;

/** How many effects bridges had, in the database. */
@Mapper
interface EffectMapper {

  /** How many effects there were in a slot or a grain. */
  record CountRow(long at, long effects) {}

  @Select("SELECT COALESCE(MAX(newest), 0) FROM ceiling_use")
  long newest();

  @Select(
      """
      SELECT COALESCE(SUM(effects), 0) FROM ceiling_use
      WHERE bridge_id = #{bridge} AND kind = #{kind} AND newest > #{over}
      """)
  long used(
      @Param("bridge") String bridge, @Param("kind") EffectKind kind, @Param("over") long over);

  @Update(
      """
      UPDATE ceiling_use SET effects = effects + #{effects}, newest = #{now}
      WHERE bridge_id = #{bridge} AND kind = #{kind} AND grain = #{grain}
      """)
  int use(
      @Param("bridge") String bridge,
      @Param("kind") EffectKind kind,
      @Param("grain") long grain,
      @Param("now") long now,
      @Param("effects") int effects);

  @Insert("INSERT INTO ceiling_use VALUES (#{bridge}, #{kind}, #{grain}, #{now}, #{effects})")
  void useFirst(
      @Param("bridge") String bridge,
      @Param("kind") EffectKind kind,
      @Param("grain") long grain,
      @Param("now") long now,
      @Param("effects") int effects);

  @Delete(
      """
      DELETE FROM ceiling_use
      WHERE bridge_id = #{bridge} AND kind = #{kind} AND newest <= #{over}
      """)
  void forget(
      @Param("bridge") String bridge, @Param("kind") EffectKind kind, @Param("over") long over);

  @Delete("DELETE FROM ceiling_use WHERE bridge_id = #{bridge}")
  void clear(@Param("bridge") String bridge);

  @Update(
      """
      UPDATE effect_count SET effects = effects + #{effects}
      WHERE bridge_id = #{bridge} AND kind = #{kind} AND slot = #{slot}
      """)
  int count(
      @Param("bridge") String bridge,
      @Param("kind") EffectKind kind,
      @Param("slot") long slot,
      @Param("effects") int effects);

  @Insert("INSERT INTO effect_count VALUES (#{bridge}, #{kind}, #{slot}, #{effects})")
  void countFirst(
      @Param("bridge") String bridge,
      @Param("kind") EffectKind kind,
      @Param("slot") long slot,
      @Param("effects") int effects);

  @Select(
      """
      SELECT slot AS at, effects FROM effect_count
      WHERE bridge_id = #{bridge} AND kind = #{kind} AND slot >= #{since}
      """)
  List<CountRow> past(
      @Param("bridge") String bridge, @Param("kind") EffectKind kind, @Param("since") long since);
}
