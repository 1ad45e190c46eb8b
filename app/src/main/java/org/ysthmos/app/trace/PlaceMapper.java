package org.ysthmos.app.trace;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.delivery.EffectKind;

/** From which of its places what a bridge carries came, in the database. */
@Mapper
interface PlaceMapper {

  /** From which place a trace came. */
  record PlacedRow(long traceSeq, String bridgeId, String collectionId, Instant receivedAt) {}

  /** How many there were of a place; of all time slots that were asked for. */
  record CountRow(String collectionId, long number) {}

  /** How many traces of a place came to a verdict in a half hour, counted from 1970. */
  record VerdictRow(String collectionId, long slot, Verdict verdict, int traces) {}

  /** How many effects of a kind came of a place. */
  record EffectRow(String collectionId, EffectKind kind, long effects) {}

  @Insert(
      """
      <script>
      INSERT INTO trace_place VALUES
      <foreach collection="list" item="row" separator=",">
        (#{row.traceSeq}, #{row.bridgeId}, #{row.collectionId}, #{row.receivedAt})
      </foreach>
      </script>
      """)
  void add(List<PlacedRow> rows);

  @Update(
      """
      UPDATE place_count SET traces = traces + #{traces}
      WHERE bridge_id = #{bridge} AND collection_id = #{collection} AND slot = #{slot}
      AND verdict = #{verdict}
      """)
  int count(
      @Param("bridge") String bridge,
      @Param("collection") String collection,
      @Param("slot") long slot,
      @Param("verdict") Verdict verdict,
      @Param("traces") int traces);

  @Insert(
      "INSERT INTO place_count VALUES (#{bridge}, #{collection}, #{slot}, #{verdict}, #{traces})")
  void countFirst(
      @Param("bridge") String bridge,
      @Param("collection") String collection,
      @Param("slot") long slot,
      @Param("verdict") Verdict verdict,
      @Param("traces") int traces);

  @Update(
      """
      UPDATE place_effect SET effects = effects + #{effects}
      WHERE bridge_id = #{bridge} AND collection_id = #{collection} AND slot = #{slot}
      AND kind = #{kind}
      """)
  int effect(
      @Param("bridge") String bridge,
      @Param("collection") String collection,
      @Param("slot") long slot,
      @Param("kind") EffectKind kind,
      @Param("effects") int effects);

  @Insert(
      "INSERT INTO place_effect VALUES (#{bridge}, #{collection}, #{kind}, #{slot}, #{effects})")
  void effectFirst(
      @Param("bridge") String bridge,
      @Param("collection") String collection,
      @Param("slot") long slot,
      @Param("kind") EffectKind kind,
      @Param("effects") int effects);

  @Select(
      """
      SELECT collection_id, slot, verdict, traces FROM place_count USE INDEX (place_count_of_slot)
      WHERE bridge_id = #{bridge} AND slot >= #{since}
      """)
  List<VerdictRow> since(@Param("bridge") String bridge, @Param("since") long since);

  @Select(
      """
      SELECT collection_id, kind, SUM(effects) AS effects FROM place_effect
      WHERE bridge_id = #{bridge} AND slot >= #{since} GROUP BY collection_id, kind
      """)
  List<EffectRow> effects(@Param("bridge") String bridge, @Param("since") long since);

  @Select(
      """
      SELECT p.collection_id, COUNT(*) AS number FROM trace_work w
      JOIN trace_place p ON p.trace_seq = w.trace_seq
      WHERE w.queue_id = #{bridge} GROUP BY p.collection_id
      """)
  List<CountRow> underWay(String bridge);

  @Select(
      """
      SELECT p.collection_id, COUNT(*) AS number FROM attention a
      JOIN trace_place p ON p.trace_seq = a.trace_seq
      WHERE a.queue_id = #{bridge} GROUP BY p.collection_id
      """)
  List<CountRow> needAPerson(String bridge);

  /** Ordered as its index is, so that one row is read however many there are. */
  @Select(
      """
      SELECT received_at FROM trace_place USE INDEX (trace_place_of)
      WHERE bridge_id = #{bridge} AND collection_id = #{collection}
      ORDER BY bridge_id DESC, collection_id DESC, received_at DESC, trace_seq DESC LIMIT 1
      """)
  @Nullable Instant newest(@Param("bridge") String bridge, @Param("collection") String collection);
}
