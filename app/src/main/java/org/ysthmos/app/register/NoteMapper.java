package org.ysthmos.app.register;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Notes of bridges, in the database. */
@Mapper
interface NoteMapper {

  /** What a note is about. */
  enum Kind {
    NOTE,
    /** Something that is known to go wrong; shown where the bridge fails. */
    TROUBLE
  }

  /**
   * A note as it reads now.
   *
   * @param link where it leads; empty if nowhere
   * @param overSince since when it does not hold any more; null while it does
   */
  record NoteRow(
      long id,
      String bridgeId,
      Kind kind,
      String words,
      String link,
      int revision,
      Instant writtenAt,
      String writtenBy,
      @Nullable Instant overSince) {}

  /** What a note said before. */
  record BeforeRow(
      long noteId, int revision, String words, String link, Instant writtenAt, String writtenBy) {}

  String COLUMNS = "id, bridge_id, kind, words, link, revision, written_at, written_by, over_since";

  /** Those of a bridge, the newest first. */
  @Select(
      "SELECT "
          + COLUMNS
          + " FROM bridge_note WHERE bridge_id = #{bridge} ORDER BY bridge_id DESC, id DESC")
  List<NoteRow> of(@Param("bridge") String bridge);

  @Select("SELECT " + COLUMNS + " FROM bridge_note WHERE id = #{id}")
  @Nullable NoteRow find(@Param("id") long id);

  /** What the notes of a bridge said before, the newest first. */
  @Select(
      """
      SELECT b.note_id, b.revision, b.words, b.link, b.written_at, b.written_by
      FROM bridge_note n JOIN bridge_note_before b ON b.note_id = n.id
      WHERE n.bridge_id = #{bridge} ORDER BY b.note_id, b.revision DESC
      """)
  List<BeforeRow> before(@Param("bridge") String bridge);

  @Insert(
      """
      INSERT INTO bridge_note (bridge_id, kind, words, link, revision, written_at, written_by)
      VALUES (#{bridgeId}, #{kind}, #{words}, #{link}, #{revision}, #{writtenAt}, #{writtenBy})
      """)
  void add(NoteRow note);

  @Insert(
      """
      INSERT INTO bridge_note_before (note_id, revision, words, link, written_at, written_by)
      SELECT id, revision, words, link, written_at, written_by FROM bridge_note
      WHERE id = #{id} AND revision = #{revision}
      """)
  int keepBefore(@Param("id") long id, @Param("revision") int revision);

  /** For the one who saw the note before this one. */
  @Update(
      """
      UPDATE bridge_note SET kind = #{kind}, words = #{words}, link = #{link},
        revision = #{revision}, written_at = #{writtenAt}, written_by = #{writtenBy},
        over_since = #{overSince}
      WHERE id = #{id} AND revision = #{revision} - 1
      """)
  int change(NoteRow note);
}
