package org.ysthmos.app.resend;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.incident.IncidentMapper.IncidentRow;
import org.ysthmos.app.trace.CarriedBy;
import org.ysthmos.core.decide.Verdict;

/** What is sent again together, in the database. */
@Mapper
interface ResendMapper {

  /**
   * What is sent again together: what waits of an incident, or what a person chose.
   *
   * @param incidentId null if a person chose
   * @param cause of the incident; null if a person chose
   * @param title what the incident was called when it began, or how many were chosen
   * @param rules by which it crosses
   * @param untilSeq the newest trace that is meant
   * @param doneSeq the trace that was sent last; 0 if none was
   * @param firstNew the first trace that came of it; null if none did yet
   */
  record ResendRow(
      long id,
      long untilSeq,
      long doneSeq,
      int total,
      int sent,
      @Nullable Long firstNew,
      @Nullable Long lastNew,
      ResendState state,
      @Nullable String problem,
      String askedBy,
      Instant begunAt,
      @Nullable Instant endedAt,
      @Nullable Long incidentId,
      @Nullable String cause,
      String title,
      CarriedBy rules) {}

  String COLUMNS =
      """
      id, until_seq, done_seq, total, sent, first_new, last_new, state, problem, asked_by, begun_at,
      ended_at, incident_id, cause, title, rules
      """;

  /** One that begins; its number is written into {@code id}. */
  final class NewResend {
    long id;
    final @Nullable Long incident;
    final @Nullable String cause;
    final String title;
    final long until;
    final int total;
    final CarriedBy rules;
    final String by;
    final Instant now;

    NewResend(
        @Nullable IncidentRow of,
        String title,
        long until,
        int total,
        CarriedBy rules,
        String by,
        Instant now) {
      this.incident = of == null ? null : of.id();
      this.cause = of == null ? null : of.cause();
      this.title = title;
      this.until = until;
      this.total = total;
      this.rules = rules;
      this.by = by;
      this.now = now;
    }
  }

  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  @Insert(
      """
      INSERT INTO resend (incident_id, cause, title, until_seq, done_seq, total, sent, state,
                          rules, asked_by, begun_at)
      VALUES (#{incident}, #{cause}, #{title}, #{until}, 0, #{total}, 0, 'RUNNING', #{rules}, #{by},
              #{now})
      """)
  void begin(NewResend resend);

  /** A trace that a person chose. */
  @Insert("INSERT INTO resend_item (resend_id, trace_seq) VALUES (#{resend}, #{trace})")
  void choose(@Param("resend") long resend, @Param("trace") long trace);

  /** The next of those that a person chose, in the order in which they began. */
  @Select(
      """
      SELECT trace_seq FROM resend_item WHERE resend_id = #{id} AND trace_seq > #{doneSeq}
      ORDER BY resend_id, trace_seq LIMIT 50
      """)
  List<Long> nextChosen(ResendRow resend);

  @Select("SELECT " + COLUMNS + " FROM resend WHERE id = #{id}")
  @Nullable ResendRow find(@Param("id") long id);

  @Select("SELECT " + COLUMNS + " FROM resend WHERE state = 'RUNNING' ORDER BY id")
  List<ResendRow> running();

  @Select("SELECT " + COLUMNS + " FROM resend WHERE begun_at >= #{since} ORDER BY id DESC LIMIT 20")
  List<ResendRow> since(@Param("since") Instant since);

  @Select(
      """
      SELECT COUNT(*) FROM resend
      WHERE state = 'RUNNING' AND cause = #{cause}
      """)
  int runningOf(@Param("cause") String cause);

  /** How many of a cause wait that can be sent again together, and the newest of them. */
  record MeantRow(int traces, @Nullable Long newest) {}

  @Select(
      """
      SELECT COUNT(*) AS traces, MAX(trace_seq) AS newest FROM attention
      WHERE cause = #{cause} AND kind <> 'ANSWER_UNKNOWN'
      """)
  MeantRow meant(@Param("cause") String cause);

  /** The next of an incident, in the order in which their events came. */
  @Select(
      """
      SELECT trace_seq FROM attention
      WHERE cause = #{cause} AND kind <> 'ANSWER_UNKNOWN'
        AND trace_seq > #{doneSeq} AND trace_seq <= #{untilSeq}
      ORDER BY trace_seq LIMIT 50
      """)
  List<Long> nextOfIncident(ResendRow resend);

  @Update(
      """
      UPDATE resend SET done_seq = #{done}, sent = sent + #{sent},
        first_new = COALESCE(first_new, #{first}), last_new = COALESCE(#{last}, last_new)
      WHERE id = #{id}
      """)
  void progress(
      @Param("id") long id,
      @Param("done") long done,
      @Param("sent") int sent,
      @Param("first") @Nullable Long first,
      @Param("last") @Nullable Long last);

  @Update(
      """
      UPDATE resend SET state = #{state}, problem = #{problem}, ended_at = #{now}
      WHERE id = #{id} AND state = 'RUNNING'
      """)
  int end(
      @Param("id") long id,
      @Param("state") ResendState state,
      @Param("problem") @Nullable String problem,
      @Param("now") Instant now);

  /** How many traces came to a verdict; to none yet where it is null. */
  record OutcomeRow(@Nullable Verdict verdict, int traces) {}

  @Select(
      """
      SELECT verdict, COUNT(*) AS traces FROM trace
      WHERE seq >= #{first} AND seq <= #{last} AND asked_by = #{askedBy}
      GROUP BY verdict
      """)
  List<OutcomeRow> outcome(
      @Param("first") long first, @Param("last") long last, @Param("askedBy") String askedBy);

  /** The numbers of the first traces of a cause that would be sent again, in order. */
  @Select(
      """
      SELECT trace_seq FROM attention WHERE cause = #{cause} AND kind <> 'ANSWER_UNKNOWN'
      ORDER BY trace_seq LIMIT #{limit}
      """)
  List<Long> first(@Param("cause") String cause, @Param("limit") int limit);
}
