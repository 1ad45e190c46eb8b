package org.ysthmos.app.duplicate;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.app.trace.Words;

/** Possible duplicates in the database. */
@Mapper
interface DuplicateMapper {

  /** How far one is. */
  enum State {
    /** Nobody looked yet whether both are there and open. */
    TO_LOOK,
    /** A person says whether both are one thing. */
    OPEN,
    /** They are: the pair is joined to the other task. */
    SAME,
    /** They are not. */
    DIFFERENT
  }

  /**
   * One possible duplicate.
   *
   * @param otherBridge null if the other was only told of
   * @param otherRecord null until it was looked at, where the other is of a pair
   * @param reasons why they may be one, each on a line
   * @param looks how often it was looked at in vain
   * @param waits whether the task is not made before a person says that it is another
   * @param fields what the task is to hold, while it waits
   */
  record DuplicateRow(
      long id,
      State state,
      String bridgeId,
      String matchHash,
      long traceSeq,
      String systemId,
      String collectionId,
      String title,
      @Nullable String otherBridge,
      @Nullable String otherHash,
      @Nullable String otherRecord,
      String otherTitle,
      double score,
      String reasons,
      int looks,
      Instant foundAt,
      @Nullable Instant answeredAt,
      @Nullable String answeredBy,
      boolean waits,
      byte @Nullable [] fields,
      @Nullable String matchText,
      @Nullable String part,
      @Nullable Long recallId) {

    /** What the other is known by. */
    KnownTask other() {
      return otherBridge == null || otherHash == null
          ? new KnownTask.Told(String.valueOf(otherRecord))
          : new KnownTask.OfPair(otherBridge, otherHash);
    }

    /** The same as one that a person is asked about before the task is made. */
    DuplicateRow waiting(String record, byte[] holds, String key, String member) {
      return new DuplicateRow(
          id,
          State.OPEN,
          bridgeId,
          matchHash,
          traceSeq,
          systemId,
          collectionId,
          title,
          otherBridge,
          otherHash,
          record,
          otherTitle,
          score,
          reasons,
          looks,
          foundAt,
          null,
          null,
          true,
          holds,
          Words.limited(key, 1000),
          Words.limited(member, 1000),
          null);
    }
  }

  @Insert(
      """
      INSERT INTO possible_duplicate (state, bridge_id, match_hash, trace_seq, system_id,
        collection_id, title, other_bridge, other_hash, other_record, other_title, score, reasons,
        found_at, waits, fields, match_text, part)
      VALUES (#{state}, #{bridgeId}, #{matchHash}, #{traceSeq}, #{systemId}, #{collectionId},
        #{title}, #{otherBridge}, #{otherHash}, #{otherRecord}, #{otherTitle}, #{score},
        #{reasons}, #{foundAt}, #{waits}, #{fields}, #{matchText}, #{part})
      """)
  void add(DuplicateRow row);

  @Select("SELECT * FROM possible_duplicate WHERE id = #{id}")
  @Nullable DuplicateRow find(@Param("id") long id);

  /** Those in a state after one, the first first. */
  @Select(
      """
      SELECT * FROM possible_duplicate WHERE state = #{state} AND id > #{after}
      ORDER BY state, id LIMIT #{limit}
      """)
  List<DuplicateRow> inState(
      @Param("state") State state, @Param("after") long after, @Param("limit") int limit);

  /** Those in a state before one, the last first. */
  @Select(
      """
      SELECT * FROM possible_duplicate WHERE state = #{state} AND id < #{before}
      ORDER BY state DESC, id DESC LIMIT #{limit}
      """)
  List<DuplicateRow> newest(
      @Param("state") State state, @Param("before") long before, @Param("limit") int limit);

  @Select("SELECT COUNT(*) FROM possible_duplicate WHERE state = #{state}")
  int count(@Param("state") State state);

  @Update(
      """
      UPDATE possible_duplicate SET state = 'OPEN', other_record = #{record},
        other_title = #{title}, score = #{score}, reasons = #{reasons}
      WHERE id = #{id} AND state = 'TO_LOOK'
      """)
  void open(
      @Param("id") long id,
      @Param("record") String record,
      @Param("title") String title,
      @Param("score") double score,
      @Param("reasons") String reasons);

  @Update("UPDATE possible_duplicate SET looks = looks + 1 WHERE id = #{id}")
  void inVain(@Param("id") long id);

  @Update(
      """
      UPDATE possible_duplicate SET state = #{state}, answered_at = #{now}, answered_by = #{by},
        recall_id = #{recall}
      WHERE id = #{id} AND state = 'OPEN'
      """)
  int answer(
      @Param("id") long id,
      @Param("state") State state,
      @Param("now") Instant now,
      @Param("by") String by,
      @Param("recall") @Nullable Long recall);

  /** All that was ever found of a pair. */
  @Select(
      """
      SELECT * FROM possible_duplicate WHERE bridge_id = #{bridge} AND match_hash = #{hash}
      ORDER BY id
      """)
  List<DuplicateRow> ofPair(@Param("bridge") String bridge, @Param("hash") String hash);

  @Select("SELECT * FROM possible_duplicate WHERE trace_seq = #{trace}")
  List<DuplicateRow> ofTrace(@Param("trace") long trace);

  /** It is none: one of both is not there, or not open. */
  @Delete("DELETE FROM possible_duplicate WHERE id = #{id} AND state IN ('TO_LOOK', 'OPEN')")
  void drop(@Param("id") long id);

  /** A task that was made, for its title. */
  record MadeRow(
      long seq,
      String bridgeId,
      String matchHash,
      String systemId,
      String collectionId,
      byte[] fields) {}

  /** The tasks that were made before one, the last first. */
  @Select(
      """
      SELECT seq, bridge_id, match_hash, system_id, collection_id, fields FROM delivery
      WHERE seq < #{before} AND kind = 'CREATE' AND effect_name IS NULL
      ORDER BY seq DESC LIMIT #{limit}
      """)
  List<MadeRow> made(@Param("before") long before, @Param("limit") int limit);
}
