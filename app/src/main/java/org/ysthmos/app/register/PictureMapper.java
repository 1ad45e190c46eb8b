package org.ysthmos.app.register;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Pictures of notes, in the database. */
@Mapper
interface PictureMapper {

  /** A picture without itself. */
  record PictureRow(long id, long noteId, String shows) {}

  /**
   * A picture to be kept.
   *
   * @param shows in words what can be seen
   */
  record NewPicture(
      long noteId,
      String shows,
      String mediaType,
      byte[] picture,
      Instant addedAt,
      String addedBy) {}

  /** A picture itself. */
  record PictureBytes(String mediaType, byte[] picture) {}

  /** Those of the notes of a bridge that are shown, in the order in which they were added. */
  @Select(
      """
      SELECT p.id, p.note_id, p.shows FROM bridge_note n
      JOIN bridge_note_picture p ON p.note_id = n.id
      WHERE n.bridge_id = #{bridge} AND p.taken_away_at IS NULL ORDER BY p.note_id, p.id
      """)
  List<PictureRow> of(@Param("bridge") String bridge);

  @Select(
      """
      SELECT p.media_type, p.picture FROM bridge_note n
      JOIN bridge_note_picture p ON p.note_id = n.id
      WHERE n.bridge_id = #{bridge} AND n.id = #{note} AND p.id = #{id}
        AND p.taken_away_at IS NULL
      """)
  @Nullable PictureBytes find(
      @Param("bridge") String bridge, @Param("note") long note, @Param("id") long id);

  /** Adds one, unless the note has as many as it may; those that were taken away count, too. */
  @Insert(
      """
      INSERT INTO bridge_note_picture (note_id, shows, media_type, picture, added_at, added_by)
      SELECT #{new.noteId}, #{new.shows}, #{new.mediaType}, #{new.picture}, #{new.addedAt},
        #{new.addedBy}
      WHERE (SELECT COUNT(*) FROM bridge_note_picture p WHERE p.note_id = #{new.noteId}) < #{most}
      """)
  int add(@Param("new") NewPicture picture, @Param("most") int most);

  @Update(
      """
      UPDATE bridge_note_picture SET taken_away_at = #{at}, taken_away_by = #{by}
      WHERE id = #{id} AND note_id = #{note} AND taken_away_at IS NULL
      """)
  int takeAway(
      @Param("note") long note,
      @Param("id") long id,
      @Param("at") Instant at,
      @Param("by") String by);
}
