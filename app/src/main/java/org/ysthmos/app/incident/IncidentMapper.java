package org.ysthmos.app.incident;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Incidents in the database. Only {@link IncidentBook} changes them. */
@Mapper
public interface IncidentMapper {

  /**
   * An incident.
   *
   * @param cause its {@link org.ysthmos.core.incident.IncidentKey}
   * @param openedAt when it opened, or came back last
   * @param cameBack how often it was opened again
   * @param waiting how many events wait; what they waited for when it closed is gone
   * @param bridges the ids of the bridges it concerns, with commas
   * @param found what evidence came to, as JSON
   * @param told of how many of its openings people were told
   * @param closing its place in the order in which incidents closed; null while it is open
   */
  record IncidentRow(
      long id,
      String cause,
      IncidentState state,
      Instant openedAt,
      int cameBack,
      String headline,
      int waiting,
      String bridges,
      String found,
      @Nullable String mendedBy,
      @Nullable Instant mendingSince,
      @Nullable Instant closedAt,
      int told,
      @Nullable Long closing) {

    /** Whether it opened, or came back, and nobody was told yet. */
    boolean isUntold() {
      return state != IncidentState.CLOSED && told <= cameBack;
    }
  }

  /** One that opens; its number is written into {@code id}. */
  final class NewIncident {
    long id;
    final String cause;
    final Instant at;
    final String headline;
    final int waiting;
    final String bridges;
    final String found;

    NewIncident(
        String cause, Instant at, String headline, int waiting, String bridges, String found) {
      this.cause = cause;
      this.at = at;
      this.headline = headline;
      this.waiting = waiting;
      this.bridges = bridges;
      this.found = found;
    }
  }

  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  @Insert(
      """
      INSERT INTO incident (cause, state, opened_at, came_back, headline, waiting, bridges, found)
      VALUES (#{cause}, 'OPEN', #{at}, 0, #{headline}, #{waiting}, #{bridges}, #{found})
      """)
  void add(NewIncident incident);

  @Select("SELECT * FROM incident WHERE id = #{id}")
  @Nullable IncidentRow find(@Param("id") long id);

  @Select("SELECT * FROM incident WHERE state IN ('OPEN', 'MENDING') ORDER BY id")
  List<IncidentRow> open();

  @Select(
      """
      SELECT * FROM incident USE INDEX (incident_by_closing)
      WHERE state = 'CLOSED' AND closing < #{before} ORDER BY state DESC, closing DESC LIMIT #{limit}
      """)
  List<IncidentRow> closed(@Param("before") long before, @Param("limit") int limit);

  /** The newest of a cause. */
  @Select("SELECT * FROM incident WHERE cause = #{cause} ORDER BY cause DESC, id DESC LIMIT 1")
  @Nullable IncidentRow newest(@Param("cause") String cause);

  @Update(
      """
      UPDATE incident SET headline = #{headline}, waiting = #{waiting}, bridges = #{bridges},
        found = #{found}
      WHERE id = #{id} AND state <> 'CLOSED'
      """)
  int update(
      @Param("id") long id,
      @Param("headline") String headline,
      @Param("waiting") int waiting,
      @Param("bridges") String bridges,
      @Param("found") String found);

  @Update(
      """
      UPDATE incident SET state = 'CLOSED', closed_at = #{now}, waiting = 0, mended_by = NULL,
        mending_since = NULL, closing = NEXT VALUE FOR closing_order
      WHERE id = #{id} AND state <> 'CLOSED'
      """)
  int close(@Param("id") long id, @Param("now") Instant now);

  @Update(
      """
      UPDATE incident SET state = 'OPEN', came_back = came_back + 1, closed_at = NULL,
        closing = NULL, opened_at = #{at}
      WHERE id = #{id} AND state = 'CLOSED'
      """)
  int openAgain(@Param("id") long id, @Param("at") Instant at);

  @Update(
      """
      UPDATE incident SET state = 'MENDING', mended_by = #{by}, mending_since = #{now}
      WHERE id = #{id} AND state = 'OPEN'
      """)
  int mend(@Param("id") long id, @Param("by") String by, @Param("now") Instant now);

  @Update(
      """
      UPDATE incident SET state = 'OPEN', mended_by = NULL, mending_since = NULL
      WHERE id = #{id} AND state = 'MENDING'
      """)
  int leave(@Param("id") long id);

  @Update("UPDATE incident SET told = #{openings} WHERE id = #{id}")
  int told(@Param("id") long id, @Param("openings") int openings);

  /** What happened about an incident. */
  record LineRow(Instant at, String byWhom, String text) {}

  @Insert(
      """
      INSERT INTO incident_line
      SELECT #{id}, COALESCE(MAX(place), 0) + 1, #{at}, #{by}, #{text}
      FROM incident_line WHERE incident_id = #{id}
      """)
  void line(
      @Param("id") long id,
      @Param("at") Instant at,
      @Param("by") String by,
      @Param("text") String text);

  @Select(
      """
      SELECT at, by_whom, text FROM incident_line WHERE incident_id = #{id} ORDER BY place LIMIT 500
      """)
  List<LineRow> lines(@Param("id") long id);
}
