package org.ysthmos.app.gap;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Spans of time that are missing, in the database. */
@Mapper
interface GapMapper {

  String COLUMNS = "id, from_at, until_at, newest_event, begun, seen_at";

  @Select("SELECT " + COLUMNS + " FROM gap WHERE until_at > #{since} ORDER BY id DESC")
  List<Gap> since(@Param("since") Instant since);

  @Select("SELECT COUNT(*) FROM gap WHERE mark = #{mark}")
  int known(@Param("mark") String mark);

  @Insert(
      """
      INSERT INTO gap (mark, from_at, until_at, newest_event, begun)
      VALUES (#{mark.id}, #{mark.taken}, #{mark.restored}, #{newest}, FALSE)
      """)
  void add(@Param("mark") RestoredMark mark, @Param("newest") long newest);

  /** All that is polled is polled at once, and a pass that was under way begins anew. */
  @Update(
      """
      UPDATE poll SET next_at = #{now}, rested_at = #{now}, page = NULL, newest = NULL, mark = NULL,
        pages = 0, fresh = 0
      """)
  void pollAll(@Param("now") Instant now);

  /** What is to be made and was never tried may have been made by the one that went on. */
  @Update(
      """
      UPDATE delivery_work SET doubt_since = #{since}, looks = #{looks}
      WHERE doubt_since IS NULL AND delivery_seq IN
        (SELECT d.seq FROM delivery_work w JOIN delivery d ON d.seq = w.delivery_seq
         WHERE d.kind IN ('CREATE', 'MESSAGE'))
      """)
  void doubtAll(@Param("since") Instant since, @Param("looks") int looks);

  @Select(
      """
      SELECT system_id, collection_id, way, read_until FROM gap_place WHERE gap_id = #{gap}
      ORDER BY system_id, collection_id
      """)
  List<GapPlace> places(@Param("gap") long gap);

  @Select("SELECT bridge_id, begun FROM gap_check WHERE gap_id = #{gap} ORDER BY bridge_id")
  List<GapCheck> checks(@Param("gap") long gap);

  @Insert(
      """
      INSERT INTO gap_place (gap_id, system_id, collection_id, way)
      VALUES (#{gap}, #{place.system}, #{place.collection}, #{place.way})
      """)
  void addPlace(@Param("gap") long gap, @Param("place") GapPlace place);

  @Insert("INSERT INTO gap_check (gap_id, bridge_id, begun) VALUES (#{gap}, #{bridge}, FALSE)")
  void addCheck(@Param("gap") long gap, @Param("bridge") String bridge);

  @Update("UPDATE gap_check SET begun = TRUE WHERE gap_id = #{gap} AND bridge_id = #{bridge}")
  void checkBegun(@Param("gap") long gap, @Param("bridge") String bridge);

  @Update("UPDATE gap SET begun = TRUE WHERE id = #{gap}")
  void begun(@Param("gap") long gap);

  @Update(
      """
      UPDATE gap_place SET read_until = #{event}
      WHERE gap_id = #{gap} AND system_id = #{system} AND collection_id = #{collection}
      """)
  void read(
      @Param("gap") long gap,
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("event") long event);

  @Update("UPDATE gap SET seen_at = #{now}, seen_by = #{by} WHERE id = #{gap} AND seen_at IS NULL")
  int seen(@Param("gap") long gap, @Param("by") String by, @Param("now") Instant now);
}
