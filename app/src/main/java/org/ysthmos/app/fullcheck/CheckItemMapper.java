package org.ysthmos.app.fullcheck;

import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Difference;
import org.ysthmos.core.sync.Side;

/** What stood out in full checks, in the database. */
@Mapper
interface CheckItemMapper {

  /**
   * Something that stood out.
   *
   * @param number in the order in which it was found
   * @param kind null while it was not looked at
   * @param pairHash null where a task is in no pair
   * @param missing the side whose list lacks its task; null if none does
   * @param side where something is to be done, or the task is missing; null if on both
   * @param fields the names of the fields, with commas
   * @param words what would be done, each on a line
   * @param tells by what it may be known on the other side, each on a line
   * @param looks how often it was looked at in vain
   * @param leads the side that a person says is right as a whole; null if the bridge says what is
   * @param traceId the trace that puts it right
   */
  record ItemRow(
      long checkId,
      int number,
      CheckItemState state,
      Difference.@Nullable Kind kind,
      @Nullable String pairHash,
      @Nullable Side missing,
      @Nullable Side side,
      @Nullable String leftRecord,
      @Nullable String rightRecord,
      String title,
      String fields,
      String words,
      String tells,
      int looks,
      @Nullable Side leads,
      @Nullable String traceId) {}

  @Insert(
      """
      INSERT INTO full_check_item (check_id, number, state, pair_hash, missing, left_record,
        right_record, title, fields, words, tells, looks)
      VALUES (#{checkId}, #{number}, #{state}, #{pairHash}, #{missing}, #{leftRecord},
        #{rightRecord}, #{title}, '', #{words}, '', 0)
      """)
  void add(ItemRow item);

  /** A pair that stood out already lacks its task on a side. */
  @Update(
      """
      UPDATE full_check_item SET missing = #{side}
      WHERE check_id = #{check} AND pair_hash = #{pair}
      """)
  int missing(@Param("check") long check, @Param("pair") String pair, @Param("side") Side side);

  @Select("SELECT COUNT(*) FROM full_check_item WHERE check_id = #{check} AND pair_hash = #{pair}")
  int ofPair(@Param("check") long check, @Param("pair") String pair);

  @Select(
      """
      SELECT * FROM full_check_item WHERE check_id = #{check} AND state = #{state}
        AND number > #{after}
      ORDER BY check_id, state, number LIMIT #{most}
      """)
  List<ItemRow> inState(
      @Param("check") long check,
      @Param("state") CheckItemState state,
      @Param("after") int after,
      @Param("most") int most);

  /** Those that were looked at, in order. */
  @Select(
      """
      <script>
      SELECT * FROM full_check_item WHERE check_id = #{check} AND state != 'MET'
      <choose>
        <when test="kind != null">AND kind = #{kind} AND number &gt; #{after}
          ORDER BY check_id, kind, number</when>
        <otherwise>AND kind IS NOT NULL AND number &gt; #{after} ORDER BY check_id, number</otherwise>
      </choose>
      LIMIT #{most}
      </script>
      """)
  List<ItemRow> found(
      @Param("check") long check,
      @Param("kind") Difference.@Nullable Kind kind,
      @Param("after") int after,
      @Param("most") int most);

  /** How many there are of a kind that stand so. */
  record CountRow(Difference.@Nullable Kind kind, CheckItemState state, int items) {}

  @Select(
      """
      SELECT kind, state, COUNT(*) FROM full_check_item WHERE check_id = #{check} AND state != 'MET'
      GROUP BY kind, state
      """)
  List<CountRow> counts(@Param("check") long check);

  /** The tasks of which none is on the other side, in order. */
  @Select(
      """
      SELECT * FROM full_check_item
      WHERE check_id = #{check} AND kind = 'NOT_MADE' AND state = 'FOUND' AND number > #{after}
      ORDER BY check_id, kind, number LIMIT #{most}
      """)
  List<ItemRow> strays(
      @Param("check") long check, @Param("after") int after, @Param("most") int most);

  /** Two that may be the same are stood for by another item. */
  @Update(
      """
      UPDATE full_check_item SET state = 'MET'
      WHERE check_id = #{check} AND number IN (#{left}, #{right}) AND state = 'FOUND'
      """)
  int meet(@Param("check") long check, @Param("left") int left, @Param("right") int right);

  /** Two that are not the same after all stand for themselves again. */
  @Update(
      """
      UPDATE full_check_item SET state = 'FOUND' WHERE check_id = #{item.checkId} AND state = 'MET'
        AND (left_record = #{item.leftRecord} OR right_record = #{item.rightRecord})
      """)
  void part(@Param("item") ItemRow item);

  @Delete("DELETE FROM full_check_item WHERE check_id = #{check} AND number = #{number}")
  void remove(@Param("check") long check, @Param("number") int number);

  @Select("SELECT * FROM full_check_item WHERE check_id = #{check} AND number = #{number}")
  @Nullable ItemRow find(@Param("check") long check, @Param("number") int number);

  /** How many are not put right. */
  @Select(
      """
      SELECT COUNT(*) FROM full_check_item
      WHERE check_id = #{check} AND state IN ('FOUND', 'NOT_PUT_RIGHT')
      """)
  int open(@Param("check") long check);

  /** How many pairs were found otherwise than alike. */
  @Select(
      """
      SELECT COUNT(*) FROM full_check_item
      WHERE check_id = #{check} AND kind IS NOT NULL AND pair_hash IS NOT NULL
      """)
  int pairsFound(@Param("check") long check);

  @Update(
      """
      UPDATE full_check_item SET state = #{state}, kind = #{kind}, side = #{side},
        fields = #{fields}, words = #{words}, tells = #{tells}
      WHERE check_id = #{checkId} AND number = #{number} AND state = 'TO_LOOK'
      """)
  int looked(ItemRow item);

  /** It is alike by now. */
  @Delete(
      """
      DELETE FROM full_check_item
      WHERE check_id = #{check} AND number = #{number} AND state = 'TO_LOOK'
      """)
  void alike(@Param("check") long check, @Param("number") int number);

  @Update(
      """
      UPDATE full_check_item SET looks = looks + 1
      WHERE check_id = #{check} AND number = #{number}
      """)
  void putOff(@Param("check") long check, @Param("number") int number);

  @Update(
      """
      <script>
      UPDATE full_check_item SET state = 'WAITING', leads = #{leads}
      WHERE check_id = #{check} AND state IN ('FOUND', 'NOT_PUT_RIGHT')
      <if test="kinds != null">AND kind IN
        <foreach item="kind" collection="kinds" open="(" separator="," close=")">#{kind}</foreach>
      </if>
      <if test="numbers != null">AND number IN
        <foreach item="number" collection="numbers" open="(" separator="," close=")">#{number}</foreach>
      </if>
      </script>
      """)
  int choose(
      @Param("check") long check,
      @Param("kinds") @Nullable Collection<Difference.Kind> kinds,
      @Param("numbers") @Nullable Collection<Integer> numbers,
      @Param("leads") @Nullable Side leads);

  @Update(
      """
      UPDATE full_check_item SET state = 'FOUND' WHERE check_id = #{check} AND state = 'WAITING'
      """)
  void leave(@Param("check") long check);

  @Update(
      """
      UPDATE full_check_item SET state = #{state}, trace_id = #{trace}
      WHERE check_id = #{check} AND number = #{number}
      """)
  void put(
      @Param("check") long check,
      @Param("number") int number,
      @Param("state") CheckItemState state,
      @Param("trace") @Nullable String trace);

  /** What stood out in checks that are not kept any more. */
  @Delete(
      """
      DELETE FROM full_check_item i
      WHERE NOT EXISTS (SELECT 1 FROM full_check c WHERE c.id = i.check_id)
      """)
  void forget();
}
