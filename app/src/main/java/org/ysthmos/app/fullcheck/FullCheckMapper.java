package org.ysthmos.app.fullcheck;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.sync.Side;

/** Full checks in the database. */
@Mapper
interface FullCheckMapper {

  /**
   * A full check.
   *
   * @param step counts its changes
   * @param pairs how many there were when it began
   * @param aside how many of what was read have no part in it
   * @param found how many stood out so far, those that were alike in the end among them
   * @param place the next page of the list, or the pair after which it goes on; null for the first
   * @param leftLacks the fields that stand in a task and not in the list; null while that is not
   *     known
   * @param tries how often it went on in vain, one time after the other
   */
  record CheckRow(
      long id,
      String bridgeId,
      CheckState state,
      int step,
      String askedBy,
      Instant begunAt,
      @Nullable Instant endedAt,
      int pairs,
      int leftRead,
      int rightRead,
      int aside,
      int found,
      @Nullable String place,
      @Nullable String leftLacks,
      @Nullable String rightLacks,
      int tries,
      @Nullable String problem) {}

  @Insert(
      """
      INSERT INTO full_check (bridge_id, state, step, asked_by, begun_at, pairs, left_read,
        right_read, aside, found, tries)
      SELECT #{bridge}, #{state}, 0, #{by}, #{now}, COUNT(*), 0, 0, 0, 0, 0
      FROM synced_pair WHERE bridge_id = #{bridge} AND parted_at IS NULL
      """)
  void begin(
      @Param("bridge") String bridge,
      @Param("state") CheckState state,
      @Param("by") String by,
      @Param("now") Instant now);

  @Select("SELECT * FROM full_check WHERE id = #{id}")
  @Nullable CheckRow find(@Param("id") long id);

  @Select("SELECT * FROM full_check WHERE bridge_id = #{bridge} ORDER BY id DESC LIMIT #{most}")
  List<CheckRow> ofBridge(@Param("bridge") String bridge, @Param("most") int most);

  @Select(
      """
      <script>
      SELECT * FROM full_check WHERE state IN
        <foreach item="state" collection="states" open="(" separator="," close=")">#{state}</foreach>
      ORDER BY id
      </script>
      """)
  List<CheckRow> in(@Param("states") Collection<CheckState> states);

  /**
   * It stands otherwise, for the one who saw it as it is. It was through when it was first, however
   * long what it found is put right.
   *
   * @param endedAt null if it goes on by itself
   */
  @Update(
      """
      UPDATE full_check SET state = #{state}, step = step + 1, place = NULL, tries = 0,
        problem = #{problem}, ended_at = COALESCE(ended_at, #{endedAt})
      WHERE id = #{id} AND step = #{step}
      """)
  int become(
      @Param("id") long id,
      @Param("step") int step,
      @Param("state") CheckState state,
      @Param("problem") @Nullable String problem,
      @Param("endedAt") @Nullable Instant endedAt);

  /**
   * What one step came to.
   *
   * @param aside how many of those that were read have no part in it
   * @param found how many stood out
   * @param place where it goes on
   * @param leftLacks what the list lacks, if that is known by now
   */
  record Step(
      long id,
      int step,
      int leftRead,
      int rightRead,
      int aside,
      int found,
      @Nullable String place,
      @Nullable String leftLacks,
      @Nullable String rightLacks) {}

  /** Carries it on, for the one who saw it as it is. */
  @Update(
      """
      UPDATE full_check SET step = step + 1, left_read = left_read + #{leftRead},
        right_read = right_read + #{rightRead}, aside = aside + #{aside}, found = found + #{found},
        place = #{place}, left_lacks = COALESCE(left_lacks, #{leftLacks}),
        right_lacks = COALESCE(right_lacks, #{rightLacks}), tries = 0, problem = NULL
      WHERE id = #{id} AND step = #{step}
      """)
  int goOn(Step step);

  /** It leaves something for later; how often it was in vain stays. */
  @Update(
      """
      UPDATE full_check SET step = step + 1, place = #{place} WHERE id = #{id} AND step = #{step}
      """)
  int passOver(
      @Param("id") long id, @Param("step") int step, @Param("place") @Nullable String place);

  /** It could not go on now, and tries again. */
  @Update(
      """
      UPDATE full_check SET step = step + 1, tries = tries + 1, problem = #{problem}
      WHERE id = #{id} AND step = #{step}
      """)
  int inVain(@Param("id") long id, @Param("step") int step, @Param("problem") String problem);

  /** The newest of a bridge are kept. */
  @Delete(
      """
      DELETE FROM full_check WHERE bridge_id = #{bridge} AND id <= (
        SELECT MAX(id) FROM (SELECT id FROM full_check WHERE bridge_id = #{bridge}
          ORDER BY id DESC OFFSET #{kept} ROWS FETCH NEXT 1 ROWS ONLY))
      """)
  void forgetOld(@Param("bridge") String bridge, @Param("kept") int kept);

  @Insert(
      """
      <script>
      INSERT INTO full_check_seen (check_id, side, record) VALUES
      <foreach item="record" collection="records" separator=",">
        (#{check}, #{side}, #{record})
      </foreach>
      </script>
      """)
  void meet(
      @Param("check") long check,
      @Param("side") Side side,
      @Param("records") Collection<String> records);

  @Options(flushCache = Options.FlushCachePolicy.TRUE)
  @Select(
      """
      SELECT COUNT(*) FROM full_check_seen
      WHERE check_id = #{check} AND side = #{side} AND record = #{record}
      """)
  int met(@Param("check") long check, @Param("side") Side side, @Param("record") String record);

  /** The tasks of a pair. */
  record PairRow(
      String pairHash, String title, @Nullable String leftRecord, @Nullable String rightRecord) {}

  /** Pairs whose task was not met on the list of a side, in order. */
  @Select(
      """
      SELECT pair_hash, title, left_record, right_record
      FROM (
        SELECT pair_hash, title, left_record, right_record,
          CASE WHEN CAST(#{side} AS VARCHAR) = 'LEFT' THEN left_record ELSE right_record END listed
        FROM synced_pair
        WHERE bridge_id = #{bridge} AND pair_hash > #{after} AND parted_at IS NULL) p
      WHERE listed IS NOT NULL
        AND NOT EXISTS (SELECT 1 FROM full_check_seen s
          WHERE s.check_id = #{check} AND s.side = #{side} AND s.record = p.listed)
      ORDER BY pair_hash LIMIT #{most}
      """)
  List<PairRow> missed(
      @Param("check") long check,
      @Param("bridge") String bridge,
      @Param("side") Side side,
      @Param("after") String after,
      @Param("most") int most);

  /** Whether something is being written to a task of the pair. */
  @Select(
      """
      SELECT COUNT(*) FROM synced_pair
      WHERE bridge_id = #{bridge} AND pair_hash = #{pair} AND once_written IS NOT NULL
      """)
  int underWay(@Param("bridge") String bridge, @Param("pair") String pair);

  /** Some of what was met, which need not be known any more. */
  @Delete("DELETE FROM full_check_seen WHERE check_id = #{check} FETCH FIRST #{most} ROWS ONLY")
  int forgetSeen(@Param("check") long check, @Param("most") int most);

  /** What checks met that broke off; none of the bridge goes on. */
  @Delete(
      """
      DELETE FROM full_check_seen
      WHERE check_id IN (SELECT id FROM full_check WHERE bridge_id = #{bridge})
      """)
  void forgetAllSeen(@Param("bridge") String bridge);

  @Select(
      """
      SELECT pair_hash, title, left_record, right_record FROM synced_pair
      WHERE bridge_id = #{bridge} AND pair_hash = #{pair}
      """)
  @Nullable PairRow pair(@Param("bridge") String bridge, @Param("pair") String pair);
}
