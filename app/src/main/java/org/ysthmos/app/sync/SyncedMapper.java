package org.ysthmos.app.sync;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.sync.Side;

/** Pairs of tasks that are kept alike, in the database. */
@Mapper
interface SyncedMapper {

  /**
   * A pair as it is kept.
   *
   * @param pairText what it is known by: the id of the task that it began with
   * @param leftRecord null while that task was never made
   * @param onceWritten what is agreed on once what is under way is written; null if nothing is
   * @param revision counts the changes, so that a worker notices another's
   * @param eventSeq the event by which both were looked at last
   */
  record SyncedRow(
      String bridgeId,
      String pairHash,
      String pairText,
      String title,
      @Nullable String leftRecord,
      @Nullable String rightRecord,
      byte[] agreedLeft,
      byte[] agreedRight,
      byte @Nullable [] onceWritten,
      @Nullable Instant partedAt,
      @Nullable String partedBecause,
      int revision,
      Instant madeAt,
      Instant changedAt,
      long eventSeq,
      long traceSeq) {

    /** The id of the task of a side; null while that was never made. */
    @Nullable String record(Side side) {
      return side == Side.LEFT ? leftRecord : rightRecord;
    }

    /** Whether there are two tasks, and they are a pair. */
    boolean isWhole() {
      return leftRecord != null && rightRecord != null && partedAt == null;
    }
  }

  String COLUMNS =
      """
      bridge_id, pair_hash, pair_text, title, left_record, right_record, agreed_left, agreed_right,
      once_written, parted_at, parted_because, revision, made_at, changed_at, event_seq, trace_seq
      """;

  @Select(
      "SELECT " + COLUMNS + " FROM synced_pair WHERE bridge_id = #{bridge} AND pair_hash = #{hash}")
  @Nullable SyncedRow pair(@Param("bridge") String bridge, @Param("hash") String hash);

  @Select(
      "SELECT "
          + COLUMNS
          + " FROM synced_pair WHERE bridge_id = #{bridge} AND left_record = #{record}")
  @Nullable SyncedRow ofLeft(@Param("bridge") String bridge, @Param("record") String record);

  @Select(
      "SELECT "
          + COLUMNS
          + " FROM synced_pair WHERE bridge_id = #{bridge} AND right_record = #{record}")
  @Nullable SyncedRow ofRight(@Param("bridge") String bridge, @Param("record") String record);

  /** Some of a bridge, the same each time. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM synced_pair WHERE bridge_id = #{bridge} AND parted_at IS NULL
          ORDER BY bridge_id, pair_hash LIMIT #{most}
          """)
  List<SyncedRow> some(@Param("bridge") String bridge, @Param("most") int most);

  /** The pair of a task of a side. */
  default @Nullable SyncedRow of(String bridge, Side side, String record) {
    return side == Side.LEFT ? ofLeft(bridge, record) : ofRight(bridge, record);
  }

  /**
   * @throws org.springframework.dao.DuplicateKeyException if there is a pair of this key, or of one
   *     of its tasks
   */
  @Insert(
      """
      INSERT INTO synced_pair (bridge_id, pair_hash, pair_text, title, left_record, right_record,
        agreed_left, agreed_right, once_written, parted_at, parted_because, revision, made_at,
        changed_at, event_seq, trace_seq)
      VALUES (#{bridgeId}, #{pairHash}, #{pairText}, #{title}, #{leftRecord}, #{rightRecord},
        #{agreedLeft}, #{agreedRight}, #{onceWritten}, #{partedAt}, #{partedBecause}, #{revision},
        #{madeAt}, #{changedAt}, #{eventSeq}, #{traceSeq})
      """)
  void begin(SyncedRow pair);

  /** Keeps what a decision comes to, for the one who saw the pair as it is. */
  @Update(
      """
      UPDATE synced_pair SET title = #{pair.title}, left_record = #{pair.leftRecord},
        right_record = #{pair.rightRecord}, agreed_left = #{pair.agreedLeft},
        agreed_right = #{pair.agreedRight}, once_written = #{pair.onceWritten},
        parted_at = #{pair.partedAt}, parted_because = #{pair.partedBecause},
        revision = revision + 1, changed_at = #{pair.changedAt}, event_seq = #{pair.eventSeq},
        trace_seq = #{pair.traceSeq}
      WHERE bridge_id = #{pair.bridgeId} AND pair_hash = #{pair.pairHash}
        AND revision = #{revision}
      """)
  int looked(@Param("pair") SyncedRow pair, @Param("revision") int revision);

  @Update(
      """
      UPDATE synced_pair SET agreed_left = #{left}, agreed_right = #{right},
        once_written = #{onceWritten}, revision = revision + 1, changed_at = #{now}
      WHERE bridge_id = #{bridge} AND pair_hash = #{hash}
      """)
  void written(
      @Param("bridge") String bridge,
      @Param("hash") String hash,
      @Param("left") byte[] left,
      @Param("right") byte[] right,
      @Param("onceWritten") byte @Nullable [] onceWritten,
      @Param("now") Instant now);

  @Update(
      """
      UPDATE synced_pair SET left_record = #{record}, revision = revision + 1
      WHERE bridge_id = #{bridge} AND pair_hash = #{hash} AND left_record IS NULL
      """)
  void madeLeft(
      @Param("bridge") String bridge, @Param("hash") String hash, @Param("record") String record);

  @Update(
      """
      UPDATE synced_pair SET right_record = #{record}, revision = revision + 1
      WHERE bridge_id = #{bridge} AND pair_hash = #{hash} AND right_record IS NULL
      """)
  void madeRight(
      @Param("bridge") String bridge, @Param("hash") String hash, @Param("record") String record);

  @Update(
      """
      UPDATE synced_pair SET parted_at = #{now}, parted_because = #{because},
        revision = revision + 1, changed_at = #{now}
      WHERE bridge_id = #{bridge} AND pair_hash = #{hash} AND parted_at IS NULL
      """)
  int part(
      @Param("bridge") String bridge,
      @Param("hash") String hash,
      @Param("because") String because,
      @Param("now") Instant now);

  /** One that was left as it is goes across like any other. */
  @Delete(
      """
      DELETE FROM synced_pair WHERE bridge_id = #{bridge} AND pair_hash = #{hash}
        AND parted_at IS NOT NULL AND (left_record IS NULL OR right_record IS NULL)
      """)
  int takeUp(@Param("bridge") String bridge, @Param("hash") String hash);

  /**
   * What is written to a side of a pair.
   *
   * @param tag the entity tag of what was read before; null if that is not known
   */
  record SendingRow(
      long deliverySeq, String bridgeId, String pairHash, Side side, @Nullable String tag) {}

  @Insert(
      """
      INSERT INTO synced_delivery (delivery_seq, bridge_id, pair_hash, side, tag)
      VALUES (#{deliverySeq}, #{bridgeId}, #{pairHash}, #{side}, #{tag})
      """)
  void sends(SendingRow delivery);

  @Select(
      """
      SELECT delivery_seq, bridge_id, pair_hash, side, tag FROM synced_delivery
      WHERE delivery_seq = #{delivery}
      """)
  @Nullable SendingRow sending(@Param("delivery") long delivery);

  @Delete("DELETE FROM synced_delivery WHERE delivery_seq = #{delivery}")
  void sent(@Param("delivery") long delivery);

  /** A task that may have been made though no answer said so; what was sent last counts. */
  @Insert(
      """
      MERGE INTO synced_unnamed (bridge_id, side, pair_hash, fields, delivery_seq)
      VALUES (#{bridge}, #{side}, #{hash}, #{fields}, #{delivery})
      """)
  void unnamed(
      @Param("bridge") String bridge,
      @Param("side") Side side,
      @Param("hash") String hash,
      @Param("fields") byte[] fields,
      @Param("delivery") long delivery);

  /** A pair with a task that may have been made. */
  record UnnamedRow(@Nullable String leftRecord, @Nullable String rightRecord, byte[] fields) {}

  /** Those of a side, the first sent first. */
  @Select(
      """
      SELECT p.left_record, p.right_record, u.fields
      FROM synced_unnamed u JOIN synced_pair p
        ON p.bridge_id = u.bridge_id AND p.pair_hash = u.pair_hash
      WHERE u.bridge_id = #{bridge} AND u.side = #{side} AND p.parted_at IS NULL
      ORDER BY u.delivery_seq LIMIT #{most}
      """)
  List<UnnamedRow> unnamedOf(
      @Param("bridge") String bridge, @Param("side") Side side, @Param("most") int most);

  @Delete(
      """
      DELETE FROM synced_unnamed
      WHERE bridge_id = #{bridge} AND side = #{side} AND pair_hash = #{hash}
      """)
  void named(@Param("bridge") String bridge, @Param("side") Side side, @Param("hash") String hash);

  @Insert(
      """
      INSERT INTO synced_wait (bridge_id, side, record_id, pair_hash)
      VALUES (#{bridge}, #{side}, #{record}, #{pair})
      """)
  void waits(
      @Param("bridge") String bridge,
      @Param("side") Side side,
      @Param("record") String record,
      @Param("pair") String pair);

  /** The pairs of which a task names a task of a side that is not on the other. */
  @Select(
      """
      SELECT pair_hash FROM synced_wait
      WHERE bridge_id = #{bridge} AND side = #{side} AND record_id = #{record} ORDER BY pair_hash
      """)
  List<String> waitingFor(
      @Param("bridge") String bridge, @Param("side") Side side, @Param("record") String record);

  @Delete("DELETE FROM synced_wait WHERE bridge_id = #{bridge} AND pair_hash = #{pair}")
  void waitsNoMore(@Param("bridge") String bridge, @Param("pair") String pair);

  /** A field on which both sides disagree. */
  record DisagreementRow(
      long id,
      String bridgeId,
      String pairHash,
      String field,
      String because,
      byte[] beforeValues,
      byte[] nowValues,
      Instant since,
      long traceSeq,
      byte @Nullable [] answer,
      @Nullable String answeredBy) {}

  String OF_DISAGREEMENT =
      """
      id, bridge_id, pair_hash, field, because, before_values, now_values, since, trace_seq, answer,
      answered_by
      """;

  @Select(
      "SELECT "
          + OF_DISAGREEMENT
          + " FROM disagreement WHERE bridge_id = #{bridge} AND pair_hash = #{hash} ORDER BY id")
  List<DisagreementRow> disagreementsOf(@Param("bridge") String bridge, @Param("hash") String hash);

  @Select("SELECT " + OF_DISAGREEMENT + " FROM disagreement WHERE id = #{id}")
  @Nullable DisagreementRow disagreement(@Param("id") long id);

  /** Those that were not answered, the oldest first. */
  @Select(
      "SELECT "
          + OF_DISAGREEMENT
          + " FROM disagreement WHERE answer IS NULL ORDER BY id LIMIT #{most}")
  List<DisagreementRow> open(@Param("most") int most);

  @Select("SELECT COUNT(*) FROM disagreement WHERE answer IS NULL")
  int countOpen();

  @Insert(
      """
      INSERT INTO disagreement (bridge_id, pair_hash, field, because, before_values, now_values,
        since, trace_seq)
      VALUES (#{bridgeId}, #{pairHash}, #{field}, #{because}, #{beforeValues}, #{nowValues},
        #{since}, #{traceSeq})
      """)
  void disagree(DisagreementRow row);

  @Update(
      """
      UPDATE disagreement SET because = #{because}, before_values = #{beforeValues},
        now_values = #{nowValues}, answer = NULL, answered_by = NULL, trace_seq = #{traceSeq}
      WHERE id = #{id}
      """)
  void disagreeStill(DisagreementRow row);

  @Update(
      "UPDATE disagreement SET answer = #{answer}, answered_by = #{by} WHERE id = #{id} AND answer IS NULL")
  int answer(@Param("id") long id, @Param("answer") byte[] answer, @Param("by") String by);

  /** A pair that is parted disagrees in nothing. */
  @Delete("DELETE FROM disagreement WHERE bridge_id = #{bridge} AND pair_hash = #{hash}")
  void settledAll(@Param("bridge") String bridge, @Param("hash") String hash);

  @Delete("DELETE FROM disagreement WHERE id = #{id}")
  void settled(@Param("id") long id);
}
