package org.ysthmos.app.rehearsal;

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
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.rehearsal.Rehearsal.Answers;

/** Rehearsals in the database. */
@Mapper
interface RehearsalMapper {

  /**
   * A rehearsal.
   *
   * @param version which version of the bridge; null for a draft
   * @param since from when on the events came; null for all that are kept
   * @param until before when they came; null for up to the newest
   * @param most over how many events at most, the newest of them
   * @param total over how many; null until they are counted
   * @param tally as JSON
   * @param firstAt when the first of them was received; null until they are counted
   * @param starts how often it began
   */
  record RehearsalRow(
      long id,
      String bridgeId,
      @Nullable Integer version,
      String document,
      Answers answers,
      @Nullable Instant since,
      @Nullable Instant until,
      int most,
      RehearsalState state,
      @Nullable Integer total,
      int done,
      int differing,
      String tally,
      @Nullable Instant firstAt,
      @Nullable Instant lastAt,
      @Nullable String problem,
      String begunBy,
      Instant begunAt,
      @Nullable Instant endedAt,
      int starts) {}

  /** What a person wants to be rehearsed; gets its number. */
  final class NewRehearsal {
    final String bridgeId;
    final @Nullable Integer version;
    final String document;
    final Answers answers;
    final @Nullable Instant since;
    final @Nullable Instant until;
    final int most;
    final String by;
    final Instant now;
    long id;

    NewRehearsal(
        String bridgeId,
        @Nullable Integer version,
        String document,
        Answers answers,
        @Nullable Instant since,
        @Nullable Instant until,
        int most,
        String by,
        Instant now) {
      this.bridgeId = bridgeId;
      this.version = version;
      this.document = document;
      this.answers = answers;
      this.since = since;
      this.until = until;
      this.most = most;
      this.by = by;
      this.now = now;
    }
  }

  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  @Insert(
      """
      INSERT INTO rehearsal (bridge_id, version, document, answers, since, until, most, state, done,
        differing, tally, begun_by, begun_at)
      VALUES (#{bridgeId}, #{version}, #{document}, #{answers}, #{since}, #{until}, #{most},
        'RUNNING', 0, 0, '{}', #{by}, #{now})
      """)
  void begin(NewRehearsal rehearsal);

  @Select("SELECT * FROM rehearsal WHERE id = #{id}")
  @Nullable RehearsalRow find(@Param("id") long id);

  /** The newest first. */
  @Select("SELECT * FROM rehearsal WHERE bridge_id = #{bridge} ORDER BY id DESC LIMIT #{most}")
  List<RehearsalRow> ofBridge(@Param("bridge") String bridge, @Param("most") int most);

  @Select("SELECT * FROM rehearsal WHERE state = 'RUNNING' ORDER BY state, id")
  List<RehearsalRow> running();

  /** It begins, or begins anew after a restart. */
  @Update(
      """
      UPDATE rehearsal SET total = #{total}, done = 0, differing = 0, tally = '{}',
        starts = starts + 1, first_at = #{first}, last_at = #{last}
      WHERE id = #{id} AND state = 'RUNNING'
      """)
  int counted(
      @Param("id") long id,
      @Param("total") int total,
      @Param("first") @Nullable Instant first,
      @Param("last") @Nullable Instant last);

  /** How far it came; 0 if it does not go on any more. */
  @Update(
      """
      UPDATE rehearsal SET done = #{done}, differing = #{differing}, tally = #{tally}
      WHERE id = #{id} AND state = 'RUNNING'
      """)
  int progress(
      @Param("id") long id,
      @Param("done") int done,
      @Param("differing") int differing,
      @Param("tally") String tally);

  /** It ends; 0 if it did already. */
  @Update(
      """
      UPDATE rehearsal SET state = #{state}, problem = #{problem}, ended_at = #{now}
      WHERE id = #{id} AND state = 'RUNNING'
      """)
  int end(
      @Param("id") long id,
      @Param("state") RehearsalState state,
      @Param("problem") @Nullable String problem,
      @Param("now") Instant now);

  /** Forgets those of a bridge that ended but for the newest. */
  @Delete(
      """
      DELETE FROM rehearsal WHERE bridge_id = #{bridge} AND state <> 'RUNNING' AND id NOT IN
        (SELECT id FROM rehearsal WHERE bridge_id = #{bridge} ORDER BY id DESC LIMIT #{kept})
      """)
  int forgetOld(@Param("bridge") String bridge, @Param("kept") int kept);

  @Delete(
      """
      DELETE FROM rehearsal_difference d
      WHERE NOT EXISTS (SELECT 1 FROM rehearsal r WHERE r.id = d.rehearsal_id)
      """)
  int forgetDifferences();

  @Delete("DELETE FROM rehearsal_difference WHERE rehearsal_id = #{id}")
  int removeDifferences(@Param("id") long id);

  /** Forgets what was asked for those that do not go on. */
  @Delete(
      """
      DELETE FROM rehearsal_answer
      WHERE rehearsal_id NOT IN (SELECT id FROM rehearsal WHERE state = 'RUNNING')
      """)
  int forgetAnswers();

  /** What was asked already; bytes alone would be taken for a list of rows. */
  record AnswerRow(byte[] answer) {}

  @Select(
      """
      SELECT answer FROM rehearsal_answer WHERE rehearsal_id = #{id} AND question = #{question}
      """)
  @Nullable AnswerRow answer(@Param("id") long id, @Param("question") String question);

  @Insert(
      """
      MERGE INTO rehearsal_answer (rehearsal_id, question, answer) KEY (rehearsal_id, question)
      VALUES (#{id}, #{question}, #{answer})
      """)
  void keepAnswer(
      @Param("id") long id, @Param("question") String question, @Param("answer") byte[] answer);

  /**
   * An event that comes to something else.
   *
   * @param traceId null if nothing is known of it
   * @param thenVerdict null if nothing is known of it
   * @param fieldNames the names of the fields that differ, each in bars
   */
  record DifferenceRow(
      long rehearsalId,
      int number,
      long eventSeq,
      String recordId,
      Instant receivedAt,
      @Nullable String traceId,
      String title,
      @Nullable Verdict thenVerdict,
      Verdict nowVerdict,
      String thenBecause,
      String nowBecause,
      String fieldNames,
      byte[] fields) {}

  @Insert(
      """
      <script>
      INSERT INTO rehearsal_difference (rehearsal_id, number, event_seq, record_id, received_at,
        trace_id, title, then_verdict, now_verdict, then_because, now_because, field_names, fields)
      VALUES
      <foreach item="d" collection="rows" separator=",">
        (#{d.rehearsalId}, #{d.number}, #{d.eventSeq}, #{d.recordId}, #{d.receivedAt},
         #{d.traceId}, #{d.title}, #{d.thenVerdict}, #{d.nowVerdict}, #{d.thenBecause},
         #{d.nowBecause}, #{d.fieldNames}, #{d.fields})
      </foreach>
      </script>
      """)
  void addDifferences(@Param("rows") List<DifferenceRow> rows);

  /**
   * Which differences are wanted.
   *
   * @param then null for any
   * @param unheard whether only those of which nothing is known of then
   * @param now null for any
   * @param field the name of a field in bars; null for any
   */
  record Wanted(
      long id,
      int after,
      @Nullable Verdict then,
      boolean unheard,
      @Nullable Verdict now,
      @Nullable String field,
      int most) {}

  @Select(
      """
      <script>
      SELECT * FROM rehearsal_difference WHERE rehearsal_id = #{id} AND number &gt; #{after}
      <if test="then != null">AND then_verdict = #{then}</if>
      <if test="unheard">AND then_verdict IS NULL</if>
      <if test="now != null">AND now_verdict = #{now}</if>
      <if test="field != null">AND POSITION(#{field}, field_names) &gt; 0</if>
      ORDER BY rehearsal_id, number LIMIT #{most}
      </script>
      """)
  List<DifferenceRow> differences(Wanted wanted);
}
