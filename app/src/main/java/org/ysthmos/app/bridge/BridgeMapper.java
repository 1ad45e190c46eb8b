package org.ysthmos.app.bridge;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface BridgeMapper {

  record VersionRow(String bridgeId, int number, String document, Instant madeAt, String madeBy) {}

  /** A live version, held or not. */
  record LiveRow(
      String bridgeId,
      int number,
      String document,
      String listens,
      Instant madeAt,
      @Nullable String busy,
      @Nullable Instant heldAt,
      @Nullable String heldBecause,
      @Nullable String heldBy,
      long letThrough) {}

  @Select(
      """
      SELECT v.bridge_id, v.number, v.document, v.listens, v.made_at, v.busy, b.held_at,
        b.held_because, b.held_by, b.let_through
      FROM bridge b JOIN bridge_version v ON v.bridge_id = b.id AND v.number = b.live_version
      WHERE b.state IN ('live', 'held') ORDER BY b.id
      """)
  List<LiveRow> live();

  @Select(
      """
      SELECT bridge_id, number, document, made_at, made_by FROM bridge_version
      WHERE bridge_id = #{id} ORDER BY bridge_id DESC, number DESC
      """)
  List<VersionRow> versions(@Param("id") String id);

  @Select(
      """
      SELECT document FROM bridge_version WHERE bridge_id = #{id} AND number = #{number}
      """)
  @Nullable String document(@Param("id") String id, @Param("number") int number);

  @Select("SELECT COALESCE(MAX(number), 0) FROM bridge_version WHERE bridge_id = #{id}")
  int newest(@Param("id") String id);

  @Select("SELECT COUNT(*) FROM bridge WHERE id = #{id}")
  int count(@Param("id") String id);

  /** A bridge that has no version yet. */
  @Insert("INSERT INTO bridge (id, live_version, state) VALUES (#{id}, 0, 'draft')")
  void add(@Param("id") String id);

  @Insert(
      """
      INSERT INTO bridge_version (bridge_id, number, document, listens, made_at, made_by, loops_yes)
      VALUES (#{id}, #{number}, #{document}, #{listens}, #{now}, #{by}, #{loopsYes})
      """)
  void addVersion(
      @Param("id") String id,
      @Param("number") int number,
      @Param("document") String document,
      @Param("listens") String listens,
      @Param("now") Instant now,
      @Param("by") String by,
      @Param("loopsYes") String loopsYes);

  /** The circles that a person said yes to when the live version of a bridge went live. */
  @Select(
      """
      SELECT v.loops_yes FROM bridge b
        JOIN bridge_version v ON v.bridge_id = b.id AND v.number = b.live_version
      WHERE b.id = #{id}
      """)
  @Nullable String loopsYes(@Param("id") String id);

  /** Notes what a version listens to that was kept without it. */
  @Update(
      """
      UPDATE bridge_version SET listens = #{listens}
      WHERE bridge_id = #{id} AND number = #{number} AND listens = ''
      """)
  void noteListens(
      @Param("id") String id, @Param("number") int number, @Param("listens") String listens);

  /** Notes the busy times that the ceiling of a version is reckoned from. */
  @Update(
      """
      UPDATE bridge_version SET busy = #{busy} WHERE bridge_id = #{id} AND number = #{number}
      """)
  void noteBusy(@Param("id") String id, @Param("number") int number, @Param("busy") String busy);

  /** A bridge that was live last with this version. */
  record RetiredRow(
      String bridgeId, int number, String document, Instant retiredAt, String retiredBecause) {}

  @Select(
      """
      SELECT v.bridge_id, v.number, v.document, b.retired_at, b.retired_because
      FROM bridge b JOIN bridge_version v ON v.bridge_id = b.id AND v.number = b.live_version
      WHERE b.state = 'retired' ORDER BY b.id
      """)
  List<RetiredRow> retired();

  @Update(
      """
      UPDATE bridge SET state = 'retired', retired_at = #{now}, retired_because = #{because},
        retired_by = #{by}, held_at = NULL, held_because = NULL, held_by = NULL
      WHERE id = #{id} AND state = 'held'
      """)
  int retire(
      @Param("id") String id,
      @Param("because") String because,
      @Param("now") Instant now,
      @Param("by") String by);

  /** A held bridge stays held when it gets another version. */
  @Update(
      """
      UPDATE bridge SET live_version = #{number},
        state = CASE state WHEN 'held' THEN 'held' ELSE 'live' END,
        retired_at = NULL, retired_because = NULL, retired_by = NULL
      WHERE id = #{id}
      """)
  void makeLive(@Param("id") String id, @Param("number") int number);

  @Update(
      """
      UPDATE bridge SET state = 'held', held_at = #{now}, held_because = #{because},
        held_by = #{by}
      WHERE id = #{id} AND state = 'live'
      """)
  int hold(
      @Param("id") String id,
      @Param("because") String because,
      @Param("now") Instant now,
      @Param("by") String by);

  @Update(
      """
      UPDATE bridge SET state = 'live', held_at = NULL, held_because = NULL,
        held_by = NULL, let_through = (SELECT COALESCE(MAX(seq), 0) FROM trace)
      WHERE id = #{id} AND state = 'held'
      """)
  int release(@Param("id") String id);
}
