package org.ysthmos.app.courier;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Deliveries in the database. */
@Mapper
public interface DeliveryMapper {

  /**
   * A delivery as it is kept.
   *
   * @param uncertain whether an earlier try may have made the task
   * @param tries how many tries were begun
   */
  record DeliveryRow(
      String id,
      String traceId,
      String bridgeId,
      String matchHash,
      String systemId,
      String collectionId,
      String idempotencyKey,
      boolean creates,
      @Nullable String recordId,
      byte[] fields,
      String state,
      boolean uncertain,
      int tries,
      Instant notBefore) {}

  String COLUMNS =
      """
      id, trace_id, bridge_id, match_hash, system_id, collection_id, idempotency_key, creates,
      record_id, fields, state, uncertain, tries, not_before
      """;

  @Insert(
      """
      INSERT INTO delivery (id, trace_id, bridge_id, match_hash, system_id, collection_id,
                            idempotency_key, creates, record_id, fields, state, uncertain, tries,
                            not_before)
      VALUES (#{id}, #{traceId}, #{bridgeId}, #{matchHash}, #{systemId}, #{collectionId},
              #{idempotencyKey}, #{creates}, #{recordId}, #{fields}, #{state}, #{uncertain},
              #{tries}, #{notBefore})
      """)
  void add(DeliveryRow delivery);

  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM delivery WHERE state = 'ready' AND not_before <= #{now}
          ORDER BY state, seq LIMIT #{limit}
          """)
  List<DeliveryRow> ready(@Param("now") Instant now, @Param("limit") int limit);

  /** Writes down that it is being tried, before it is. */
  @Update(
      """
      UPDATE delivery SET state = 'sending', tries = tries + 1
      WHERE id = #{id} AND state = 'ready'
      """)
  int claim(@Param("id") String id);

  /** After a stop nobody knows what became of what was being sent. */
  @Update(
      """
      UPDATE delivery SET state = 'ready', uncertain = TRUE, not_before = #{notBefore}
      WHERE state = 'sending'
      """)
  int releaseAll(@Param("notBefore") Instant notBefore);

  @Update("UPDATE delivery SET record_id = #{record} WHERE id = #{id}")
  void made(@Param("id") String id, @Param("record") String record);

  @Update(
      """
      UPDATE delivery SET state = 'ready', uncertain = #{uncertain}, not_before = #{notBefore}
      WHERE id = #{id}
      """)
  void again(
      @Param("id") String id,
      @Param("uncertain") boolean uncertain,
      @Param("notBefore") Instant notBefore);

  @Update("UPDATE delivery SET state = #{state} WHERE id = #{id}")
  void finish(@Param("id") String id, @Param("state") String state);

  @Select(
      """
      SELECT COUNT(*) FROM delivery
      WHERE bridge_id = #{bridge} AND match_hash = #{hash} AND state IN ('ready', 'sending')
      """)
  int unfinished(@Param("bridge") String bridge, @Param("hash") String hash);
}
