package org.ysthmos.app.timetable;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.timetable.Absence.Stopped;

/** How far the times of bridges were looked at, in the database. */
@Mapper
interface TimetableMapper {

  /**
   * @param number of the version by whose times it was looked at
   * @param handled up to which moment that was
   */
  record TimetableRow(String bridgeId, int number, Instant handled, @Nullable Stopped stopped) {}

  @Select("SELECT bridge_id, number, handled, stopped FROM timetable ORDER BY bridge_id")
  List<TimetableRow> all();

  @Insert(
      """
      INSERT INTO timetable (bridge_id, number, handled, stopped)
      VALUES (#{bridgeId}, #{number}, #{handled}, #{stopped})
      """)
  void add(TimetableRow row);

  @Update(
      """
      UPDATE timetable SET number = #{number}, handled = #{handled}, stopped = #{stopped}
       WHERE bridge_id = #{bridgeId}
      """)
  void change(TimetableRow row);

  @Delete("DELETE FROM timetable WHERE bridge_id = #{id}")
  void remove(@Param("id") String id);

  /** The first trace of a bridge by an event. */
  @Select(
      """
      SELECT id FROM trace WHERE event_seq = #{event} AND bridge_id = #{bridge}
       ORDER BY seq LIMIT 1
      """)
  @Nullable String traceOf(@Param("event") long event, @Param("bridge") String bridge);

  /**
   * A time that came, or some that were missed.
   *
   * @param body what came with the event, as bytes of JSON
   */
  record CameRow(
      String sourceId,
      String kind,
      Instant happenedAt,
      byte[] body,
      String traceId,
      @Nullable String title) {}

  /**
   * What came lately of the times of rows, the newest first. They stand among the other events of
   * their collection, of which so many are looked through.
   */
  @Select(
      """
      SELECT e.source_id, e.kind, e.happened_at, e.body, t.id, t.title
        FROM (SELECT seq, kind FROM event
               WHERE system_id = #{system} AND collection_id = #{collection}
               ORDER BY system_id DESC, collection_id DESC, seq DESC LIMIT 5000) newest
        JOIN event e ON e.seq = newest.seq
        JOIN trace t ON t.event_seq = e.seq AND t.resend_of IS NULL
       WHERE newest.kind IN (#{due}, #{missed})
       ORDER BY newest.seq DESC LIMIT #{limit}
      """)
  List<CameRow> latelyOfRows(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("due") String due,
      @Param("missed") String missed,
      @Param("limit") int limit);

  /** What came of a bridge's times lately, the newest first. */
  @Select(
      """
      SELECT e.source_id, e.kind, e.happened_at, e.body, t.id, t.title
        FROM event e JOIN trace t ON t.event_seq = e.seq AND t.resend_of IS NULL
       WHERE e.system_id = #{system} AND e.collection_id = #{bridge}
       ORDER BY e.system_id DESC, e.collection_id DESC, e.seq DESC LIMIT #{limit}
      """)
  List<CameRow> lately(
      @Param("system") String system, @Param("bridge") String bridge, @Param("limit") int limit);
}
