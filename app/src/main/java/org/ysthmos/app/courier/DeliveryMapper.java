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
   * @param waitsFor the match hash of the parent that must be made first; null if none need be
   * @param parentField the field in which the parent's id is kept
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
      Instant notBefore,
      @Nullable String waitsFor,
      @Nullable String parentField) {}

  String COLUMNS =
      """
      id, trace_id, bridge_id, match_hash, system_id, collection_id, idempotency_key, creates,
      record_id, fields, state, uncertain, tries, not_before, waits_for, parent_field
      """;

  @Insert(
      """
      INSERT INTO delivery (id, trace_id, bridge_id, match_hash, system_id, collection_id,
                            idempotency_key, creates, record_id, fields, state, uncertain, tries,
                            not_before, waits_for, parent_field)
      VALUES (#{id}, #{traceId}, #{bridgeId}, #{matchHash}, #{systemId}, #{collectionId},
              #{idempotencyKey}, #{creates}, #{recordId}, #{fields}, #{state}, #{uncertain},
              #{tries}, #{notBefore}, #{waitsFor}, #{parentField})
      """)
  void add(DeliveryRow delivery);

  /**
   * Deliveries that can be tried now, in order.
   *
   * @param full the systems that leave no room for a call just now
   */
  @Select(
      "<script>SELECT "
          + COLUMNS
          + """
           FROM delivery WHERE state = 'ready' AND not_before &lt;= #{now}
            AND bridge_id NOT IN (SELECT b.id FROM bridge b WHERE b.state = 'held')
            <foreach collection="full" item="one" separator=" ">AND system_id &lt;> #{one}</foreach>
          ORDER BY state, seq LIMIT #{limit}
          </script>
          """)
  List<DeliveryRow> ready(
      @Param("now") Instant now, @Param("full") List<String> full, @Param("limit") int limit);

  @Select("SELECT COUNT(*) FROM delivery WHERE state = 'sending'")
  int sending();

  /** When a delivery is tried next that waits for a time later than this. */
  @Select("SELECT MIN(not_before) FROM delivery WHERE state = 'ready' AND not_before > #{now}")
  @Nullable Instant nextReady(Instant now);

  /** Puts back what could not even be tried, since the system leaves no room just now. */
  @Update(
      """
      UPDATE delivery SET state = 'ready', tries = tries - 1, not_before = #{notBefore}
      WHERE id = #{id}
      """)
  void held(@Param("id") String id, @Param("notBefore") Instant notBefore);

  /** Writes down that it is being tried, before it is. */
  @Update(
      """
      UPDATE delivery SET state = 'sending', tries = tries + 1
      WHERE id = #{id} AND state = 'ready'
        AND bridge_id NOT IN (SELECT b.id FROM bridge b WHERE b.state = 'held')
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
      WHERE bridge_id = #{bridge} AND match_hash = #{hash} AND state IN ('waiting', 'ready', 'sending')
      """)
  int unfinished(@Param("bridge") String bridge, @Param("hash") String hash);

  /** The deliveries of a bridge that wait for this parent. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM delivery WHERE bridge_id = #{bridge} AND waits_for = #{hash} AND state = 'waiting'
          ORDER BY seq
          """)
  List<DeliveryRow> waitingFor(@Param("bridge") String bridge, @Param("hash") String hash);

  /** The parent is made: its id stands in the fields now. */
  @Update("UPDATE delivery SET state = 'ready', fields = #{fields} WHERE id = #{id}")
  void parentMade(@Param("id") String id, @Param("fields") byte[] fields);

  @Select(
      """
      SELECT COUNT(*) FROM delivery
      WHERE trace_id = #{trace} AND state IN ('waiting', 'ready', 'sending')
      """)
  int unfinishedOf(@Param("trace") String trace);

  /** The deliveries of a trace, in the order in which they were to be made. */
  @Select("SELECT " + COLUMNS + " FROM delivery WHERE trace_id = #{trace} ORDER BY seq")
  List<DeliveryRow> ofTrace(@Param("trace") String trace);

  @Select("SELECT COUNT(*) FROM delivery WHERE trace_id = #{trace} AND state = 'failed'")
  int failedOf(@Param("trace") String trace);
}
