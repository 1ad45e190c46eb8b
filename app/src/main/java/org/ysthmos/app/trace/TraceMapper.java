package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Traces in the database. Lists are paged by key: OFFSET reads all that it skips. */
@Mapper
public interface TraceMapper {

  String COLUMNS =
      """
      t.seq, t.id, t.event_id, t.bridge_id, t.bridge_version, t.order_key, t.state, t.verdict,
      t.tries, t.not_before, t.received_at, t.finished_at, t.title, t.match_text, t.match_hash,
      t.target_record, t.failure_kind, t.reason, t.resend_of, t.resent, t.try_document,
      t.taken_back_at
      """;

  /**
   * A failure that still waits for a person: it was not sent again, and the same record has not
   * come across since, for example because it was mended at its source.
   */
  String NEEDS_A_PERSON =
      """
      t.verdict = 'failed' AND t.resent = FALSE AND t.try_document IS NULL
      AND NOT EXISTS (SELECT 1 FROM trace l WHERE l.bridge_id = t.bridge_id
                        AND l.order_key = t.order_key AND l.seq > t.seq
                        AND l.state = 'done' AND l.verdict <> 'failed')
      """;

  @Insert(
      """
      INSERT INTO trace (id, event_id, bridge_id, order_key, state, tries, not_before, received_at,
                         resend_of, resent, search_text, story, try_document)
      VALUES (#{id}, #{eventId}, #{bridgeId}, #{orderKey}, 'waiting', 0, #{now}, #{now},
              #{resendOf}, FALSE, #{searchText}, #{story}, #{tryDocument})
      """)
  void add(NewTrace trace);

  /**
   * A trace that begins.
   *
   * @param resendOf the trace that it sends again
   * @param tryDocument the draft that carries it; null for the live version
   */
  record NewTrace(
      String id,
      String eventId,
      String bridgeId,
      String orderKey,
      Instant now,
      @Nullable String resendOf,
      String searchText,
      byte[] story,
      @Nullable String tryDocument) {}

  /**
   * What can be decided now, oldest first: no earlier trace of the same bridge and order key is
   * unfinished. The equality column stands in ORDER BY so that the index gives the order.
   */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM trace t
          WHERE t.state = 'waiting' AND t.not_before <= #{now}
            AND (t.try_document IS NOT NULL
                 OR t.bridge_id NOT IN (SELECT b.id FROM bridge b WHERE b.state = 'held'))
            AND NOT EXISTS (SELECT 1 FROM trace e WHERE e.bridge_id = t.bridge_id
                              AND e.order_key = t.order_key AND e.seq < t.seq
                              AND e.state <> 'done')
          ORDER BY t.state, t.seq LIMIT #{limit}
          """)
  List<TraceRow> ready(@Param("now") Instant now, @Param("limit") int limit);

  @Update("UPDATE trace SET state = 'deciding' WHERE id = #{id} AND state = 'waiting'")
  int claim(@Param("id") String id);

  @Update("UPDATE trace SET state = 'waiting' WHERE state = 'deciding'")
  int releaseAll();

  @Select("SELECT COUNT(*) FROM trace WHERE state = 'deciding'")
  int deciding();

  /** When a trace is decided next that waits for a time later than this. */
  @Select("SELECT MIN(not_before) FROM trace WHERE state = 'waiting' AND not_before > #{now}")
  @Nullable Instant nextWaiting(Instant now);

  @Select("SELECT " + COLUMNS + " FROM trace t WHERE t.id = #{id}")
  @Nullable TraceRow find(@Param("id") String id);

  /** A story as it is kept; bytes alone would be taken for a list of rows. */
  record StoryRow(byte[] story) {}

  @Select("SELECT story FROM trace WHERE id = #{id}")
  StoryRow story(@Param("id") String id);

  /** The story, for the one transaction that goes on telling it; others wait for its end. */
  @Select("SELECT story FROM trace WHERE id = #{id} FOR UPDATE")
  StoryRow storyToGoOn(@Param("id") String id);

  @Update("UPDATE trace SET story = #{story} WHERE id = #{id}")
  void tell(@Param("id") String id, @Param("story") byte[] story);

  @Update(
      """
      UPDATE trace SET state = 'waiting', tries = #{tries}, not_before = #{notBefore},
        failure_kind = #{failureKind}, reason = #{reason}, story = #{story}
      WHERE id = #{id}
      """)
  void postpone(
      @Param("id") String id,
      @Param("tries") int tries,
      @Param("notBefore") Instant notBefore,
      @Param("failureKind") @Nullable String failureKind,
      @Param("reason") @Nullable String reason,
      @Param("story") byte[] story);

  /** What a decision says of a trace. */
  record Decided(
      String id,
      int bridgeVersion,
      String state,
      String verdict,
      @Nullable Instant finishedAt,
      String title,
      @Nullable String matchText,
      @Nullable String matchHash,
      @Nullable String targetRecord,
      @Nullable String failureKind,
      @Nullable String reason,
      String searchText,
      byte[] story) {}

  @Update(
      """
      UPDATE trace SET bridge_version = #{bridgeVersion}, state = #{state}, verdict = #{verdict},
        finished_at = #{finishedAt}, title = #{title}, match_text = #{matchText},
        match_hash = #{matchHash}, target_record = #{targetRecord}, failure_kind = #{failureKind},
        reason = #{reason}, search_text = #{searchText}, story = #{story}
      WHERE id = #{id}
      """)
  void decided(Decided decided);

  @Update(
      """
      UPDATE trace SET tries = #{tries}, failure_kind = #{failureKind}, reason = #{reason},
        story = #{story}
      WHERE id = #{id}
      """)
  void tried(
      @Param("id") String id,
      @Param("tries") int tries,
      @Param("failureKind") @Nullable String failureKind,
      @Param("reason") @Nullable String reason,
      @Param("story") byte[] story);

  @Update("UPDATE trace SET target_record = #{record} WHERE id = #{id}")
  void made(@Param("id") String id, @Param("record") String record);

  @Update(
      """
      UPDATE trace SET state = 'done', verdict = #{verdict}, finished_at = #{finishedAt}
      WHERE id = #{id}
      """)
  void finish(
      @Param("id") String id,
      @Param("verdict") String verdict,
      @Param("finishedAt") Instant finishedAt);

  @Update("UPDATE trace SET resent = TRUE WHERE id = #{id} AND resent = FALSE AND state = 'done'")
  int markResent(@Param("id") String id);

  /** What to look for; an absent part is not asked. */
  record Query(
      @Nullable String bridge,
      @Nullable String verdict,
      Instant since,
      Instant until,
      @Nullable String text,
      @Nullable Long before,
      int limit) {}

  @Select(
      """
      <script>
      SELECT ${@org.ysthmos.app.trace.TraceMapper@COLUMNS} FROM trace t
      WHERE t.received_at &gt;= #{since} AND t.received_at &lt;= #{until}
      <if test="before != null">AND t.seq &lt; #{before}</if>
      <if test="bridge != null">AND t.bridge_id = #{bridge}</if>
      <if test="verdict == 'waiting'">AND t.state &lt;&gt; 'done'</if>
      <if test="verdict == 'needs-you'">
        AND ${@org.ysthmos.app.trace.TraceMapper@NEEDS_A_PERSON}
      </if>
      <if test="verdict != null and verdict != 'waiting' and verdict != 'needs-you'">
        AND t.state = 'done' AND t.verdict = #{verdict}
      </if>
      <if test="text != null">AND LOCATE(#{text}, t.search_text) &gt; 0</if>
      ORDER BY t.seq DESC LIMIT #{limit}
      </script>
      """)
  List<TraceRow> search(Query query);

  @Update("UPDATE trace SET taken_back_at = #{now}, story = #{story} WHERE id = #{id}")
  void takenBack(@Param("id") String id, @Param("now") Instant now, @Param("story") byte[] story);

  @Select("SELECT id FROM trace WHERE resend_of = #{id} ORDER BY seq DESC LIMIT 1")
  @Nullable String resendOf(@Param("id") String id);
}
