package org.ysthmos.app.table;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Reference tables and calendars in the database. */
@Mapper
interface TableMapper {

  record TableRow(String id, String document, String rowsCsv, Instant changedAt) {}

  record CalendarRow(String id, String document) {}

  /** How often a key was asked for. */
  record UseRow(String tableId, String asked, boolean found, long times, Instant lastAt) {}

  @Select("SELECT id, document, rows_csv, changed_at FROM reference_table ORDER BY id")
  List<TableRow> tables();

  @Insert(
      """
      INSERT INTO reference_table (id, document, rows_csv, changed_at)
      VALUES (#{id}, #{document}, #{rowsCsv}, #{changedAt})
      """)
  void add(TableRow row);

  @Update(
      """
      UPDATE reference_table SET document = #{document}, rows_csv = #{rowsCsv},
        changed_at = #{changedAt}
      WHERE id = #{id}
      """)
  void change(TableRow row);

  @Delete("DELETE FROM reference_table WHERE id = #{id}")
  void remove(@Param("id") String id);

  @Update(
      """
      UPDATE working_calendar SET document = #{document}, changed_at = #{now} WHERE id = #{id}
      """)
  void changeCalendar(
      @Param("id") String id, @Param("document") String document, @Param("now") Instant now);

  @Delete("DELETE FROM working_calendar WHERE id = #{id}")
  void removeCalendar(@Param("id") String id);

  /** What a table or a calendar was after a change. */
  record ChangeRow(
      long seq,
      String kind,
      String referenceId,
      Instant madeAt,
      String madeBy,
      String what,
      String document,
      String rowsCsv) {}

  @Options(flushCache = Options.FlushCachePolicy.TRUE)
  @Select("SELECT NEXT VALUE FOR reference_order")
  long nextChange();

  @Insert(
      """
      INSERT INTO reference_change (seq, kind, reference_id, made_at, made_by, what, document,
                                    rows_csv)
      VALUES (#{seq}, #{kind}, #{referenceId}, #{madeAt}, #{madeBy}, #{what}, #{document},
              #{rowsCsv})
      """)
  void addChange(ChangeRow row);

  /** The changes of one, the newest first, without what it was. */
  @Select(
      """
      SELECT seq, kind, reference_id, made_at, made_by, what, '' AS document, '' AS rows_csv
      FROM reference_change WHERE kind = #{kind} AND reference_id = #{id}
      ORDER BY kind DESC, reference_id DESC, seq DESC LIMIT 50
      """)
  List<ChangeRow> changes(@Param("kind") String kind, @Param("id") String id);

  @Select(
      """
      SELECT seq, kind, reference_id, made_at, made_by, what, document, rows_csv
      FROM reference_change WHERE seq = #{seq}
      """)
  @Nullable ChangeRow changeAt(@Param("seq") long seq);

  /** Only so many of the newest are kept. */
  @Delete(
      """
      DELETE FROM reference_change WHERE kind = #{kind} AND reference_id = #{id} AND seq NOT IN (
        SELECT seq FROM reference_change WHERE kind = #{kind} AND reference_id = #{id}
        ORDER BY seq DESC LIMIT #{kept})
      """)
  void forgetChanges(@Param("kind") String kind, @Param("id") String id, @Param("kept") int kept);

  @Select("SELECT id, document FROM working_calendar ORDER BY id")
  List<CalendarRow> calendars();

  @Insert(
      "INSERT INTO working_calendar (id, document, changed_at) VALUES (#{id}, #{document}, #{now})")
  void addCalendar(
      @Param("id") String id, @Param("document") String document, @Param("now") Instant now);

  @Select(
      """
      SELECT table_id, asked, found, times, last_at FROM reference_use
      WHERE table_id = #{table} ORDER BY times DESC, asked LIMIT 500
      """)
  List<UseRow> uses(@Param("table") String table);

  @Update(
      """
      UPDATE reference_use SET times = times + 1, last_at = #{now}
      WHERE table_id = #{table} AND asked = #{asked} AND found = #{found}
      """)
  int countUse(
      @Param("table") String table,
      @Param("asked") String asked,
      @Param("found") boolean found,
      @Param("now") Instant now);

  /**
   * @throws org.springframework.dao.DuplicateKeyException if another worker was first
   */
  @Insert(
      """
      INSERT INTO reference_use (table_id, asked, found, times, last_at)
      VALUES (#{table}, #{asked}, #{found}, 1, #{now})
      """)
  void firstUse(
      @Param("table") String table,
      @Param("asked") String asked,
      @Param("found") boolean found,
      @Param("now") Instant now);

  /** Unknown keys are offered for adding; one that was added is unknown no more. */
  @Delete(
      "DELETE FROM reference_use WHERE table_id = #{table} AND asked = #{asked} AND found = FALSE")
  void forgetUnknown(@Param("table") String table, @Param("asked") String asked);
}
