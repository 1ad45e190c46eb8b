package org.ysthmos.app.courier;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.delivery.EffectKind;

/** Deliveries in the database: what was to be made, and what became of it. */
@Mapper
public interface DeliveryMapper {

  /** What became of a delivery. */
  enum Result {
    OPEN,
    MADE,
    FAILED,
    /** Its task was removed by others, and a person says what becomes of it. */
    GONE,
    /** Its task was removed by others and is left so. */
    LEFT,
    /** Its task was changed by others meanwhile, so that it is decided again what is written. */
    PASSED
  }

  /**
   * A delivery as it is kept.
   *
   * @param recordId the record it makes or changes; null while it is not made
   * @param parentField the field in which the parent's id is kept; null where there is none
   * @param effectName the name of what comes after the tasks; null for a task
   * @param madeAt when the effect was made; null if it was not
   */
  record DeliveryRow(
      long seq,
      long traceSeq,
      String bridgeId,
      String matchHash,
      String systemId,
      String collectionId,
      String idempotencyKey,
      EffectKind kind,
      @Nullable String recordId,
      byte[] fields,
      @Nullable String parentField,
      @Nullable String effectName,
      Result result,
      @Nullable Instant madeAt) {}

  String COLUMNS =
      """
      d.seq, d.trace_seq, d.bridge_id, d.match_hash, d.system_id, d.collection_id,
      d.idempotency_key, d.kind, d.record_id, d.fields, d.parent_field, d.effect_name,
      d.result, d.made_at
      """;

  /** The next order numbers. */
  @Options(flushCache = Options.FlushCachePolicy.TRUE)
  @Select("SELECT NEXT VALUE FOR delivery_order FROM SYSTEM_RANGE(1, #{count})")
  List<Long> numbers(@Param("count") int count);

  @Insert(
      """
      INSERT INTO delivery (seq, trace_seq, bridge_id, match_hash, system_id, collection_id,
                            idempotency_key, kind, record_id, fields, parent_field, effect_name,
                            result)
      VALUES (#{seq}, #{traceSeq}, #{bridgeId}, #{matchHash}, #{systemId}, #{collectionId},
              #{idempotencyKey}, #{kind}, #{recordId}, #{fields}, #{parentField},
              #{effectName}, #{result})
      """)
  void add(DeliveryRow delivery);

  /** What the fields that it changes held before, as far as they were written from here. */
  @Update("UPDATE delivery SET held_before = #{fields} WHERE seq = #{seq}")
  void heldBefore(@Param("seq") long seq, @Param("fields") byte[] fields);

  @Select("SELECT " + COLUMNS + " FROM delivery d WHERE d.seq = #{seq}")
  @Nullable DeliveryRow find(@Param("seq") long seq);

  @Select(
      "<script>SELECT "
          + COLUMNS
          + """
           FROM delivery d WHERE d.seq IN
          <foreach item="s" collection="seqs" open="(" separator="," close=")">#{s}</foreach>
          </script>
          """)
  List<DeliveryRow> of(@Param("seqs") List<Long> seqs);

  /** Its task is not there any more: what was to be a change makes it anew. */
  @Update(
      """
      UPDATE delivery SET kind = 'CREATE', record_id = NULL, idempotency_key = #{key},
        fields = #{fields} WHERE seq = #{seq}
      """)
  void makesAnew(@Param("seq") long seq, @Param("key") String key, @Param("fields") byte[] fields);

  @Update("UPDATE delivery SET record_id = #{record} WHERE seq = #{seq}")
  void made(@Param("seq") long seq, @Param("record") String record);

  @Update("UPDATE delivery SET fields = #{fields} WHERE seq = #{seq}")
  void fill(@Param("seq") long seq, @Param("fields") byte[] fields);

  @Update(
      """
      UPDATE delivery SET result = #{result}, record_id = #{record}, made_at = #{madeAt}
      WHERE seq = #{seq}
      """)
  void end(
      @Param("seq") long seq,
      @Param("result") Result result,
      @Param("record") @Nullable String record,
      @Param("madeAt") @Nullable Instant madeAt);

  /** The deliveries of a trace, in the order in which they were to be made. */
  @Select(
      "SELECT "
          + COLUMNS
          + " FROM delivery d WHERE d.trace_seq = #{trace} ORDER BY d.trace_seq, d.seq")
  List<DeliveryRow> ofTrace(@Param("trace") long trace);
}
