package org.ysthmos.app.chore;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.chore.ChoreTimes;
import org.ysthmos.core.chore.ChoreTimes.ToMake;

/** Rows that come round, in the database. */
@Mapper
interface ChoreMapper {

  /**
   * A row as it was told last.
   *
   * @param eventSeq of the event that told it
   * @param body what came with that, as bytes of JSON
   * @param chore as {@link org.ysthmos.core.chore.ChoreJson} writes it; null where it rests
   * @param rests why it does
   * @param since when it began to come round so
   * @param handled the time that was dealt with last
   * @param looked when that was, or when it began
   * @param makeAt when the next task is to be made; null if none is
   * @param dueAt when that is due
   * @param reading in which reading of all rows it was met last
   */
  record ChoreRow(
      String bridgeId,
      String recordId,
      long eventSeq,
      Instant toldAt,
      byte[] body,
      @Nullable String chore,
      @Nullable String rests,
      Instant since,
      @Nullable Instant handled,
      Instant looked,
      @Nullable Instant makeAt,
      @Nullable Instant dueAt,
      int reading) {

    /** How far it is once its times were looked at. */
    ChoreRow after(ChoreTimes.Look look, Instant at) {
      return new ChoreRow(
          bridgeId,
          recordId,
          eventSeq,
          toldAt,
          body,
          chore,
          null,
          look.after().since(),
          look.after().handled().orElse(null),
          at,
          look.next().map(ToMake::make).orElse(null),
          look.next().map(one -> one.time().at().toInstant()).orElse(null),
          reading);
    }

    /** The same at rest. */
    ChoreRow resting(String why) {
      return new ChoreRow(
          bridgeId,
          recordId,
          eventSeq,
          toldAt,
          body,
          null,
          Words.limited(why, 1000),
          since,
          handled,
          looked,
          null,
          null,
          reading);
    }
  }

  String COLUMNS =
      """
      bridge_id, record_id, event_seq, told_at, body, chore, rests, since, handled, looked, make_at,
      due_at, reading
      """;

  @Select("SELECT " + COLUMNS + " FROM chore WHERE bridge_id = #{bridge} AND record_id = #{record}")
  @Nullable ChoreRow find(@Param("bridge") String bridge, @Param("record") String record);

  @Insert(
      """
      MERGE INTO chore (bridge_id, record_id, event_seq, told_at, body, chore, rests, since,
                        handled, looked, make_at, due_at, reading)
      KEY (bridge_id, record_id)
      VALUES (#{bridgeId}, #{recordId}, #{eventSeq}, #{toldAt}, #{body}, #{chore}, #{rests},
              #{since}, #{handled}, #{looked}, #{makeAt}, #{dueAt}, #{reading})
      """)
  void put(ChoreRow row);

  /** Those of which a task is to be made by now, the earliest first. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM chore WHERE bridge_id = #{bridge} AND make_at <= #{now}
          ORDER BY bridge_id, make_at LIMIT #{limit}
          """)
  List<ChoreRow> due(
      @Param("bridge") String bridge, @Param("now") Instant now, @Param("limit") int limit);

  /** Those of which a task is made next, the earliest first. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM chore WHERE bridge_id = #{bridge} AND make_at IS NOT NULL
             AND make_at <= #{until}
          ORDER BY bridge_id, make_at LIMIT #{limit}
          """)
  List<ChoreRow> next(
      @Param("bridge") String bridge, @Param("until") Instant until, @Param("limit") int limit);

  /** When the next task of any of them is made. */
  @Select("SELECT MIN(make_at) FROM chore WHERE bridge_id = #{bridge}")
  @Nullable Instant nextMake(@Param("bridge") String bridge);

  /** How far one is, unless another event told of it meanwhile. */
  @Update(
      """
      UPDATE chore SET since = #{since}, handled = #{handled}, looked = #{looked},
             make_at = #{makeAt}, due_at = #{dueAt}, chore = #{chore}, rests = #{rests}
       WHERE bridge_id = #{bridgeId} AND record_id = #{recordId} AND event_seq = #{eventSeq}
      """)
  int moved(ChoreRow row);

  /** Those that were met in a reading of all rows. */
  @Update(
      """
      <script>
      UPDATE chore SET reading = #{reading} WHERE bridge_id = #{bridge} AND record_id IN
      <foreach item="r" collection="records" open="(" separator="," close=")">#{r}</foreach>
      </script>
      """)
  void met(
      @Param("bridge") String bridge,
      @Param("reading") int reading,
      @Param("records") List<String> records);

  /** Of these those that are known, and do not rest for this reason. */
  @Select(
      """
      <script>
      SELECT record_id FROM chore WHERE bridge_id = #{bridge}
        AND (rests IS NULL OR rests != #{but}) AND record_id IN
      <foreach item="r" collection="records" open="(" separator="," close=")">#{r}</foreach>
      </script>
      """)
  List<String> known(
      @Param("bridge") String bridge,
      @Param("records") List<String> records,
      @Param("but") String but);

  /** Those that were not met since a reading of all rows come round no more. */
  @Update(
      """
      UPDATE chore SET chore = NULL, rests = #{why}, make_at = NULL, due_at = NULL
       WHERE bridge_id = #{bridge} AND reading < #{since} AND chore IS NOT NULL
      """)
  int notMet(@Param("bridge") String bridge, @Param("since") int since, @Param("why") String why);

  /** How many that come round a reading of all rows did not meet. */
  @Select(
      """
      SELECT COUNT(*) FROM chore
       WHERE bridge_id = #{bridge} AND reading < #{reading} AND chore IS NOT NULL
      """)
  int missed(@Param("bridge") String bridge, @Param("reading") int reading);

  /** A clock that was ahead said when these were looked at: they begin anew now. */
  @Update(
      """
      UPDATE chore SET since = #{now}, handled = NULL, looked = #{now}, make_at = #{now}
       WHERE looked > #{limit} AND chore IS NOT NULL
      """)
  int beginAnew(@Param("now") Instant now, @Param("limit") Instant limit);

  @Delete("DELETE FROM chore WHERE bridge_id = #{bridge}")
  void removeAll(@Param("bridge") String bridge);

  /**
   * How many there are of a bridge.
   *
   * @param resting how many of them rest
   * @param waiting of how many no task is to be made, until they were done
   */
  record Counts(long all, long resting, long waiting) {}

  @Select(
      """
      SELECT COUNT(*), COALESCE(SUM(CASE WHEN chore IS NULL THEN 1 ELSE 0 END), 0),
             COALESCE(SUM(CASE WHEN chore IS NOT NULL AND make_at IS NULL THEN 1 ELSE 0 END), 0)
        FROM chore WHERE bridge_id = #{bridge}
      """)
  Counts counts(@Param("bridge") String bridge);

  /** Some of those that rest. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM chore WHERE bridge_id = #{bridge} AND chore IS NULL
          ORDER BY bridge_id, record_id LIMIT #{limit}
          """)
  List<ChoreRow> resting(@Param("bridge") String bridge, @Param("limit") int limit);

  /**
   * How all rows of a bridge are read.
   *
   * @param number of the version by whose rules they are
   * @param reading counted from 1
   * @param tells whether what is read is told to the bridge; else only what is gone is looked for
   * @param place where the next page stands
   * @param through whether all were read
   * @param nextAt when it goes on, or begins anew
   * @param problem why it could not go on
   * @param stopped why nobody looks at their times
   */
  record TableRow(
      String bridgeId,
      int number,
      int reading,
      boolean tells,
      @Nullable String place,
      boolean through,
      int rowsRead,
      Instant nextAt,
      int tries,
      @Nullable String problem,
      @Nullable String stopped) {

    /** Where a reading begins. */
    static TableRow begin(String bridge, int number, int reading, boolean tells, Instant at) {
      return new TableRow(bridge, number, reading, tells, null, false, 0, at, 0, null, null);
    }

    /** The same for another version, by which rows come round alike. */
    TableRow by(int other) {
      return new TableRow(
          bridgeId, other, reading, tells, place, through, rowsRead, nextAt, tries, problem,
          stopped);
    }

    /**
     * How far it is with a page.
     *
     * @param next where the next one stands; null on the last
     */
    TableRow after(int rows, @Nullable String next, Instant goesOn) {
      return new TableRow(
          bridgeId,
          number,
          reading,
          tells,
          next,
          next == null,
          rowsRead + rows,
          goesOn,
          0,
          null,
          stopped);
    }

    /** The page could not be read. */
    TableRow inVain(String why, int tried, Instant goesOn) {
      return new TableRow(
          bridgeId, number, reading, tells, place, through, rowsRead, goesOn, tried, why, stopped);
    }
  }

  @Select(
      """
      SELECT bridge_id, number, reading, tells, place, through, rows_read, next_at, tries, problem,
             stopped
        FROM chore_table WHERE bridge_id = #{bridge}
      """)
  @Nullable TableRow table(@Param("bridge") String bridge);

  @Select("SELECT bridge_id FROM chore_table ORDER BY bridge_id")
  List<String> tables();

  @Insert(
      """
      MERGE INTO chore_table (bridge_id, number, reading, tells, place, through, rows_read, next_at,
                              tries, problem)
      KEY (bridge_id)
      VALUES (#{bridgeId}, #{number}, #{reading}, #{tells}, #{place}, #{through}, #{rowsRead},
              #{nextAt}, #{tries}, #{problem})
      """)
  void putTable(TableRow row);

  @Update("UPDATE chore_table SET stopped = #{stopped} WHERE bridge_id = #{bridge}")
  void stop(@Param("bridge") String bridge, @Param("stopped") @Nullable String stopped);

  @Delete("DELETE FROM chore_table WHERE bridge_id = #{bridge}")
  void removeTable(@Param("bridge") String bridge);
}
