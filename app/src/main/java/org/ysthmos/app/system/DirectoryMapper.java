package org.ysthmos.app.system;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Directories in the database. */
@Mapper
interface DirectoryMapper {

  /**
   * An entry of a directory.
   *
   * @param was what it was called before; null if it was always called so
   * @param goneAt since when it is not there any more; null if it is there
   */
  record EntryRow(
      String systemId,
      String directoryId,
      String entryKey,
      String name,
      int place,
      @Nullable String was,
      @Nullable Instant renamedAt,
      @Nullable Instant goneAt) {}

  @Select(
      """
      SELECT system_id, directory_id, entry_key, name, place, was, renamed_at, gone_at
      FROM directory_name ORDER BY system_id, directory_id, place
      """)
  List<EntryRow> all();

  @Insert(
      """
      INSERT INTO directory_name (system_id, directory_id, entry_key, name, place, was, renamed_at,
                                  gone_at)
      VALUES (#{systemId}, #{directoryId}, #{entryKey}, #{name}, #{place}, #{was}, #{renamedAt},
              #{goneAt})
      """)
  void add(EntryRow row);

  @Update(
      """
      UPDATE directory_name SET name = #{r.name}, place = #{r.place}, was = #{r.was},
        renamed_at = #{r.renamedAt}, gone_at = #{r.goneAt}
      WHERE system_id = #{r.systemId} AND directory_id = #{r.directoryId}
        AND entry_key = #{r.entryKey}
      """)
  void change(@Param("r") EntryRow row);
}
