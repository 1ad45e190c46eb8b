package org.ysthmos.app.event;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** The indexes of events by values that came with them. */
@Mapper
interface EventIndexMapper {

  /**
   * An index of a collection's events.
   *
   * @param fields the addresses of the fields that are asked by, each on a line
   * @param fromSeq the first order number that it covers
   * @param toSeq the first order number after those that it covers
   */
  record IndexRow(
      int id, String systemId, String collectionId, String fields, long fromSeq, long toSeq) {}

  /** An event in an index. */
  record EntryRow(int indexId, long hash, long eventSeq) {}

  String COLUMNS = "id, system_id, collection_id, fields, from_seq, to_seq";

  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM event_index
          WHERE system_id = #{system} AND collection_id = #{collection} AND fields = #{fields}
          """)
  @Nullable IndexRow find(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("fields") String fields);

  /** Those that do not cover all events of their collections that are kept. */
  @Select("SELECT " + COLUMNS + " FROM event_index WHERE from_seq > 0 ORDER BY id")
  List<IndexRow> unfinished();

  /** Begins an index at the events that come from now on. */
  @Insert(
      """
      MERGE INTO event_index (system_id, collection_id, fields, from_seq, to_seq)
      KEY (system_id, collection_id, fields)
      VALUES (#{system}, #{collection}, #{fields}, #{at}, #{at})
      """)
  void begin(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("fields") String fields,
      @Param("at") long at);

  /** Moves the end on, unless somebody did so meanwhile. */
  @Update("UPDATE event_index SET to_seq = #{to} WHERE id = #{id} AND to_seq = #{was}")
  int reachOn(@Param("id") int id, @Param("was") long was, @Param("to") long to);

  /** Moves the beginning back, unless somebody did so meanwhile. */
  @Update("UPDATE event_index SET from_seq = #{to} WHERE id = #{id} AND from_seq = #{was}")
  int reachBack(@Param("id") int id, @Param("was") long was, @Param("to") long to);

  @Insert(
      """
      <script>
      INSERT INTO event_index_entry (index_id, hash, event_seq) VALUES
      <foreach item="e" collection="entries" separator=",">
        (#{e.indexId}, #{e.hash}, #{e.eventSeq})
      </foreach>
      </script>
      """)
  void add(@Param("entries") List<EntryRow> entries);

  /** The events of a hash, newest first. */
  @Select(
      """
      SELECT event_seq FROM event_index_entry WHERE index_id = #{index} AND hash = #{hash}
      ORDER BY index_id DESC, hash DESC, event_seq DESC LIMIT #{limit}
      """)
  List<Long> events(@Param("index") int index, @Param("hash") long hash, @Param("limit") int limit);

  @Delete(
      """
      <script>
      DELETE FROM event_index_entry WHERE event_seq IN
      <foreach item="s" collection="seqs" open="(" separator="," close=")">#{s}</foreach>
      </script>
      """)
  void remove(@Param("seqs") List<Long> seqs);
}
