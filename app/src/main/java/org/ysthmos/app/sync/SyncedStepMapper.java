package org.ysthmos.app.sync;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** What became of the fields of pairs, in the database. */
@Mapper
interface SyncedStepMapper {

  /**
   * What a trace came to for a pair.
   *
   * @param traceId null where the trace is not kept any more
   * @param askedBy who asked for the trace; null where an event came
   */
  record StepRow(
      long id, Instant at, byte[] fields, @Nullable String traceId, @Nullable String askedBy) {}

  @Insert(
      """
      INSERT INTO synced_step (bridge_id, pair_hash, trace_seq, at, fields)
      VALUES (#{bridge}, #{pair}, #{trace}, #{at}, #{fields})
      """)
  void add(
      @Param("bridge") String bridge,
      @Param("pair") String pair,
      @Param("trace") long trace,
      @Param("at") Instant at,
      @Param("fields") byte[] fields);

  /**
   * The newest first.
   *
   * @param before only older ones than this
   */
  @Select(
      """
      SELECT s.id, s.at, s.fields, t.id AS trace_id, t.asked_by
      FROM synced_step s LEFT JOIN trace t ON t.seq = s.trace_seq
      WHERE s.bridge_id = #{bridge} AND s.pair_hash = #{pair} AND s.id < #{before}
      ORDER BY s.bridge_id DESC, s.pair_hash DESC, s.id DESC LIMIT #{most}
      """)
  List<StepRow> of(
      @Param("bridge") String bridge,
      @Param("pair") String pair,
      @Param("before") long before,
      @Param("most") int most);
}
