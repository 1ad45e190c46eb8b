package org.ysthmos.app.pair;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Pairs in the database. The primary key keeps two workers from making two tasks of one key. */
@Mapper
public interface PairMapper {

  /**
   * A pair as it is kept.
   *
   * @param targetRecord null while the task was never made
   * @param stored the fields as the target said it keeps them, as JSON
   * @param revision counts the changes, so that a worker notices another's
   * @param doubtSince since when nobody knows whether its task was made; null if there is no doubt
   * @param eventSeq the order number of the event whose values it holds; 0 if not known
   * @param leftSo whether its task was removed by others and is left so
   * @param anew how many of its tasks were removed by others and given up
   * @param marks of the last states that we brought its task to, each on a line, the newest first
   * @param part which of several tasks of its record; empty for one task, null if not known
   * @param effectName the name of what comes after the tasks; null for a task
   * @param takenBack whether its task was taken back and is not made again
   * @param often how often it was written to since then; null if it never was
   */
  record PairRow(
      String bridgeId,
      String matchHash,
      String matchText,
      String sourceSystem,
      String sourceCollection,
      String sourceRecord,
      String targetSystem,
      String targetCollection,
      @Nullable String targetRecord,
      byte[] agreed,
      String stored,
      int revision,
      Instant madeAt,
      Instant changedAt,
      long eventSeq,
      @Nullable Instant doubtSince,
      boolean leftSo,
      int anew,
      String marks,
      @Nullable String part,
      @Nullable String effectName,
      boolean takenBack,
      int often,
      @Nullable Instant oftenSince) {}

  String COLUMNS =
      """
      bridge_id, match_hash, match_text, source_system, source_collection, source_record,
      target_system, target_collection, target_record, agreed, stored, revision, made_at,
      changed_at, event_seq, doubt_since, left_so, anew, marks, part, effect_name, taken_back,
      often, often_since
      """;

  @Select("SELECT " + COLUMNS + " FROM pair WHERE bridge_id = #{bridge} AND match_hash = #{hash}")
  @Nullable PairRow find(@Param("bridge") String bridge, @Param("hash") String hash);

  /**
   * @throws org.springframework.dao.DuplicateKeyException if another worker was first
   */
  @Insert(
      """
      INSERT INTO pair (bridge_id, match_hash, match_text, source_system, source_collection,
                        source_record, target_system, target_collection, target_record, agreed,
                        stored, revision, made_at, changed_at, event_seq, part,
                        effect_name, often, often_since)
      VALUES (#{bridgeId}, #{matchHash}, #{matchText}, #{sourceSystem}, #{sourceCollection},
              #{sourceRecord}, #{targetSystem}, #{targetCollection}, #{targetRecord}, #{agreed},
              #{stored}, #{revision}, #{madeAt}, #{changedAt}, #{eventSeq},
              #{part}, #{effectName}, #{often}, #{oftenSince})
      """)
  void reserve(PairRow pair);

  @Update(
      """
      UPDATE pair SET revision = revision + 1, often = #{often}, often_since = #{oftenSince}
      WHERE bridge_id = #{bridge} AND match_hash = #{hash} AND revision = #{revision}
      """)
  int reserveAgain(
      @Param("bridge") String bridge,
      @Param("hash") String hash,
      @Param("revision") int revision,
      @Param("often") int often,
      @Param("oftenSince") Instant oftenSince);

  /** Nobody knows whether the task was made. */
  @Update(
      """
      UPDATE pair SET doubt_since = #{now}
      WHERE bridge_id = #{bridge} AND match_hash = #{hash} AND target_record IS NULL
      """)
  void inDoubt(
      @Param("bridge") String bridge, @Param("hash") String hash, @Param("now") Instant now);

  @Update(
      """
      UPDATE pair SET target_record = #{record}, agreed = #{agreed}, stored = #{stored}, revision = revision + 1,
        doubt_since = NULL,
        changed_at = #{now}, event_seq = GREATEST(event_seq, #{eventSeq}), marks = #{marks},
        trace_seq = #{traceSeq}
      WHERE bridge_id = #{bridge} AND match_hash = #{hash}
      """)
  void keep(
      @Param("bridge") String bridge,
      @Param("hash") String hash,
      @Param("record") String record,
      @Param("agreed") byte[] agreed,
      @Param("stored") String stored,
      @Param("now") Instant now,
      @Param("eventSeq") long eventSeq,
      @Param("marks") String marks,
      @Param("traceSeq") long traceSeq);

  /** Its task is not there any more; the next one is made with all that is known. */
  @Update(
      """
      UPDATE pair SET target_record = NULL, agreed = #{nothing}, stored = '{}', marks = '',
        anew = anew + 1, left_so = FALSE, taken_back = FALSE, revision = revision + 1, changed_at = #{now}
      WHERE bridge_id = #{bridge} AND match_hash = #{hash} AND target_record = #{record}
      """)
  int gone(
      @Param("bridge") String bridge,
      @Param("hash") String hash,
      @Param("record") String record,
      @Param("nothing") byte[] nothing,
      @Param("now") Instant now);

  /** Its task is not there any more and is left so. */
  @Update(
      """
      UPDATE pair SET left_so = TRUE, revision = revision + 1, changed_at = #{now}
      WHERE bridge_id = #{bridge} AND match_hash = #{hash} AND target_record = #{record}
      """)
  int leave(
      @Param("bridge") String bridge,
      @Param("hash") String hash,
      @Param("record") String record,
      @Param("now") Instant now);

  /** Its task was taken back, and nothing makes it again. */
  @Update(
      """
      UPDATE pair SET left_so = TRUE, taken_back = TRUE, revision = revision + 1,
        changed_at = #{now}
      WHERE bridge_id = #{bridge} AND match_hash = #{hash} AND target_record = #{record}
      """)
  int takenBack(
      @Param("bridge") String bridge,
      @Param("hash") String hash,
      @Param("record") String record,
      @Param("now") Instant now);

  /**
   * Both sides are as they were agreed, on another task; what that holds beside is not known, and
   * which of its states we made neither.
   */
  @Update(
      """
      UPDATE pair SET target_record = #{other}, stored = '{}', marks = '', left_so = FALSE,
        taken_back = FALSE, revision = revision + 1, changed_at = #{now}
      WHERE bridge_id = #{bridge} AND match_hash = #{hash} AND target_record = #{record}
      """)
  int join(
      @Param("bridge") String bridge,
      @Param("hash") String hash,
      @Param("record") String record,
      @Param("other") String other,
      @Param("now") Instant now);

  /**
   * What was written to a record for a pair.
   *
   * @param marks each on a line
   */
  record WrittenRow(
      String targetCollection,
      String stored,
      String marks,
      String bridgeId,
      String matchHash,
      byte[] agreed) {}

  /** What was written to the records with an id, the last written last. */
  @Select(
      """
      SELECT target_collection, stored, marks, bridge_id, match_hash, agreed FROM pair
      WHERE target_system = #{system} AND target_record = #{record} ORDER BY changed_at
      """)
  List<WrittenRow> written(@Param("system") String system, @Param("record") String record);

  /** The pairs of a bridge and a source record. */
  @Select(
      "SELECT "
          + COLUMNS
          + " FROM pair WHERE bridge_id = #{bridge} AND source_record = #{record} LIMIT 50")
  List<PairRow> ofSource(@Param("bridge") String bridge, @Param("record") String record);

  /** The pairs of a task. */
  @Select(
      "SELECT "
          + COLUMNS
          + " FROM pair WHERE target_system = #{system} AND target_record = #{record} LIMIT 50")
  List<PairRow> ofTarget(@Param("system") String system, @Param("record") String record);

  /** A task that was made of a record. */
  record TaskRow(
      String targetSystem, String targetCollection, String targetRecord, String sourceRecord) {}

  /** The tasks that a bridge made of a record, and that nobody removed for good; in no order. */
  @Select(
      """
      <script>SELECT target_system, target_collection, target_record, source_record FROM pair
      WHERE bridge_id = #{bridge} AND source_record = #{record} AND target_record IS NOT NULL
        AND NOT left_so AND effect_name IS NULL
      <if test="part != null">AND part = #{part}</if>
      LIMIT 50</script>
      """)
  List<TaskRow> tasksOf(
      @Param("bridge") String bridge,
      @Param("record") String record,
      @Param("part") @Nullable String part);

  /** A task that a bridge made, by its id, if nobody removed it for good; in no order. */
  @Select(
      """
      SELECT target_system, target_collection, target_record, source_record
      FROM pair USE INDEX (pair_of_target)
      WHERE target_record = #{id} AND bridge_id = #{bridge} AND NOT left_so AND effect_name IS NULL
      LIMIT 50
      """)
  List<TaskRow> task(@Param("bridge") String bridge, @Param("id") String id);

  /**
   * What a pair keeps of a task.
   *
   * @param marks each on a line
   * @param traceSeq the trace that wrote to it last; null if that is not known
   */
  record MarksRow(String targetCollection, String marks, @Nullable Long traceSeq) {}

  /** The marks that pairs keep of the tasks with an id, in whichever collection they stand. */
  @Select(
      """
      SELECT target_collection, marks, trace_seq FROM pair
      WHERE target_system = #{system} AND target_record = #{record}
      """)
  List<MarksRow> marks(@Param("system") String system, @Param("record") String record);
}
