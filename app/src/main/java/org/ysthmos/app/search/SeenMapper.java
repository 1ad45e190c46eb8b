package org.ysthmos.app.search;

import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Words of traces, and the segments into which they go, in the database. */
@Mapper
interface SeenMapper {

  record WordsRow(long traceSeq, String words) {}

  @Insert(
      """
      <script>INSERT INTO seen_words (trace_seq, words) VALUES
      <foreach item="w" collection="rows" separator=",">(#{w.traceSeq}, #{w.words})</foreach></script>
      """)
  void add(@Param("rows") List<WordsRow> rows);

  @Update("UPDATE seen_words SET words = #{words} WHERE trace_seq = #{traceSeq}")
  int replace(WordsRow words);

  /** The words of traces that have ended, those of the oldest first. */
  @Select(
      """
      SELECT w.trace_seq, w.words FROM seen_words w
      WHERE NOT EXISTS (SELECT 1 FROM trace_work k WHERE k.trace_seq = w.trace_seq)
      ORDER BY w.trace_seq LIMIT #{limit}
      """)
  List<WordsRow> ended(@Param("limit") int limit);

  @Select("SELECT COUNT(*) FROM seen_words")
  int waiting();

  @Delete(
      """
      <script>DELETE FROM seen_words WHERE trace_seq IN
      <foreach item="s" collection="seqs" open="(" separator="," close=")">#{s}</foreach></script>
      """)
  void remove(@Param("seqs") List<Long> seqs);

  /** Those that have a word somewhere in their text. */
  @Select(
      """
      SELECT trace_seq, words FROM seen_words
      WHERE trace_seq < #{before} AND trace_seq >= #{from} AND LOCATE(#{word}, words) > 0
      ORDER BY trace_seq DESC
      """)
  List<WordsRow> with(
      @Param("word") String word, @Param("from") long from, @Param("before") long before);

  /** A segment that is kept; its number is written into {@code id}. */
  final class NewSegment {
    long id;
    final long firstSeq;
    final long lastSeq;
    final byte[] members;

    NewSegment(long firstSeq, long lastSeq, byte[] members) {
      this.firstSeq = firstSeq;
      this.lastSeq = lastSeq;
      this.members = members;
    }
  }

  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  @Insert(
      """
      INSERT INTO seen_segment (first_seq, last_seq, members)
      VALUES (#{firstSeq}, #{lastSeq}, #{members})
      """)
  void addSegment(NewSegment segment);

  @Insert(
      "INSERT INTO seen_page (segment_id, bucket, entries) VALUES (#{segment}, #{bucket}, #{entries})")
  void addPage(
      @Param("segment") long segment,
      @Param("bucket") int bucket,
      @Param("entries") byte[] entries);

  record SegmentRow(long id, long firstSeq, long lastSeq) {}

  /** Segments that may have something of a span, those with the newest first. */
  @Select(
      """
      SELECT id, first_seq, last_seq FROM seen_segment
      WHERE last_seq >= #{from} AND first_seq < #{before} ORDER BY last_seq DESC
      """)
  List<SegmentRow> segments(@Param("from") long from, @Param("before") long before);

  record BytesRow(byte[] bytes) {}

  @Select("SELECT members AS bytes FROM seen_segment WHERE id = #{id}")
  BytesRow members(@Param("id") long id);

  @Nullable
  @Select(
      "SELECT entries AS bytes FROM seen_page WHERE segment_id = #{segment} AND bucket = #{bucket}")
  BytesRow page(@Param("segment") long segment, @Param("bucket") int bucket);

  /** Forgets segments all of whose traces are gone. */
  @Delete(
      """
      DELETE FROM seen_page WHERE segment_id IN
        (SELECT id FROM seen_segment WHERE last_seq < #{before})
      """)
  void forgetPages(@Param("before") long before);

  @Delete("DELETE FROM seen_segment WHERE last_seq < #{before}")
  void forgetSegments(@Param("before") long before);
}
