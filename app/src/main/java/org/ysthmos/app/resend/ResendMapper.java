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
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.failure.FailureKind;

/** What is sent again together, in the database. */
@Mapper
interface ResendMapper {

  /**
   * Failures that are sent again together.
   *
   * @param untilSeq the newest trace that is meant
   * @param doneSeq the trace that was sent last; 0 if none was
   * @param firstNew the first trace that came of it; null if none did yet
   */
  record ResendRow(
      long id,
      String bridgeId,
      FailureKind kind,
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
      @Nullable Instant endedAt) {}

  /** One that begins; its number is written into {@code id}. */
  final class NewResend {
    long id;
    final String bridge;
    final FailureKind kind;
    final long until;
    final int total;
    final String by;
    final Instant now;

    NewResend(String bridge, FailureKind kind, long until, int total, String by, Instant now) {
      this.bridge = bridge;
      this.kind = kind;
      this.until = until;
      this.total = total;
      this.by = by;
      this.now = now;
    }
  }

  @Options(useGeneratedKeys = true, keyProperty = "id", keyColumn = "id")
  @Insert(
      """
      INSERT INTO resend (bridge_id, kind, until_seq, done_seq, total, sent, state, asked_by, begun_at)
      VALUES (#{bridge}, #{kind}, #{until}, 0, #{total}, 0, 'RUNNING', #{by}, #{now})
      """)
  void begin(NewResend resend);

  @Select("SELECT * FROM resend WHERE id = #{id}")
  @Nullable ResendRow find(@Param("id") long id);

  @Select("SELECT * FROM resend WHERE state = 'RUNNING' ORDER BY id")
  List<ResendRow> running();

  @Select("SELECT * FROM resend WHERE begun_at >= #{since} ORDER BY id DESC LIMIT 20")
  List<ResendRow> since(@Param("since") Instant since);

  @Select(
      """
      SELECT COUNT(*) FROM resend
      WHERE state = 'RUNNING' AND bridge_id = #{bridge} AND kind = #{kind}
      """)
  int runningOf(@Param("bridge") String bridge, @Param("kind") FailureKind kind);

  /** How many failures of a bridge and kind wait for a person, and the newest of them. */
  record MeantRow(int traces, @Nullable Long newest) {}

  @Select(
      """
      SELECT COUNT(*) AS traces, MAX(trace_seq) AS newest FROM attention
      WHERE queue_id = #{bridge} AND kind = #{kind}
      """)
  MeantRow meant(@Param("bridge") String bridge, @Param("kind") FailureKind kind);

  /** A failure that is to be sent again. */
  record NextRow(long seq, String id) {}

  /** The next of them, in the order in which their events came. */
  @Select(
      """
      SELECT a.trace_seq AS seq, t.id FROM attention a JOIN trace t ON t.seq = a.trace_seq
      WHERE a.queue_id = #{bridgeId} AND a.kind = #{kind} AND a.trace_seq > #{doneSeq}
        AND a.trace_seq <= #{untilSeq}
      ORDER BY a.trace_seq LIMIT 50
      """)
  List<NextRow> next(ResendRow resend);

  @Update(
      """
      UPDATE resend SET done_seq = #{done}, sent = sent + #{sent},
        first_new = COALESCE(first_new, #{first}), last_new = #{last}
      WHERE id = #{id}
      """)
  void progress(
      @Param("id") long id,
      @Param("done") long done,
      @Param("sent") int sent,
      @Param("first") long first,
      @Param("last") long last);

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
}
