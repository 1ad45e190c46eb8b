package org.ysthmos.app.event;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** Events in the database. What is earlier is said by their order numbers, never by a clock. */
@Mapper
public interface EventMapper {

  /** How an event came to be kept. */
  enum Origin {
    /** Its system told of it by a webhook. */
    TOLD,
    /** It was found by asking what changed. */
    POLLED,
    /** A time has come; see {@link org.ysthmos.core.bridge.TimeSource}. */
    DUE,
    /** A person made it up for a try; such events are not found among the others. */
    MADE_UP,
    /** Nothing happened: a pair is to be looked at. It is not found among the others. */
    LOOK,
    /** What could not be read or kept; see {@link Aside}. It is not found among the others. */
    ASIDE
  }

  /**
   * An event as it is kept; the body is the bytes that came.
   *
   * @param seq its order number from intake; 0 before it has one
   */
  record EventRow(
      long seq,
      String systemId,
      String sourceId,
      String collectionId,
      String kind,
      String recordId,
      Instant happenedAt,
      Instant receivedAt,
      Origin origin,
      byte[] body) {

    /** What the id of a record may have at most, in characters. */
    public static final int LONGEST_RECORD_ID = 512;

    /** The longest id of a collection, in characters. */
    public static final int LONGEST_COLLECTION = 64;

    /** What a kind may have at most, in characters. */
    public static final int LONGEST_KIND = 128;

    /**
     * What a body may have at most, in bytes; with room for what its webhook would say around it.
     */
    public static final int LARGEST_BODY = 1_000_000;

    /** The id under which people and programs meet the event. */
    public String id() {
      return Long.toString(seq);
    }

    /** The same with its order number. */
    public EventRow at(long number) {
      return new EventRow(
          number,
          systemId,
          sourceId,
          collectionId,
          kind,
          recordId,
          happenedAt,
          receivedAt,
          origin,
          body);
    }
  }

  String COLUMNS =
      """
      e.seq, e.system_id, e.source_id, e.collection_id, e.kind, e.record_id, e.happened_at,
      e.received_at, e.origin, e.body
      """;

  /** The next order numbers. */
  @Options(flushCache = Options.FlushCachePolicy.TRUE)
  @Select("SELECT NEXT VALUE FOR event_order FROM SYSTEM_RANGE(1, #{count})")
  List<Long> numbers(@Param("count") int count);

  @Insert(
      """
      <script>
      INSERT INTO event (seq, system_id, source_id, collection_id, kind, record_id, happened_at,
                         received_at, origin, body) VALUES
      <foreach item="e" collection="events" separator=",">
        (#{e.seq}, #{e.systemId}, #{e.sourceId}, #{e.collectionId}, #{e.kind}, #{e.recordId},
         #{e.happenedAt}, #{e.receivedAt}, #{e.origin}, #{e.body})
      </foreach>
      </script>
      """)
  void add(@Param("events") List<EventRow> events);

  @Select("SELECT seq FROM event WHERE system_id = #{system} AND source_id = #{sourceId}")
  @Nullable Long findSeq(@Param("system") String system, @Param("sourceId") String sourceId);

  /** An event that is kept, by the id that its sender gave it. */
  record Known(String sourceId, long seq) {}

  /** Those of these events that are kept. */
  @Select(
      """
      <script>
      SELECT e.source_id, e.seq FROM (VALUES
      <foreach item="id" collection="ids" separator=",">(CAST(#{id} AS VARCHAR))</foreach>
      ) v(id) JOIN event e ON e.system_id = #{system} AND e.source_id = v.id
      </script>
      """)
  List<Known> known(@Param("system") String system, @Param("ids") List<String> ids);

  @Select("SELECT " + COLUMNS + " FROM event e WHERE e.seq = #{seq}")
  @Nullable EventRow find(@Param("seq") long seq);

  /** A collection's events before an order number, newest first. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM event e
          WHERE e.system_id = #{system} AND e.collection_id = #{collection}
            AND e.seq < #{before} AND e.origin IN ('TOLD', 'POLLED')
          ORDER BY e.system_id DESC, e.collection_id DESC, e.seq DESC LIMIT #{limit}
          """)
  List<EventRow> newest(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("before") long before,
      @Param("limit") int limit);

  /** A collection's events after an order number, oldest first. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM event e
          WHERE e.system_id = #{system} AND e.collection_id = #{collection}
            AND e.seq > #{after} AND e.origin IN ('TOLD', 'POLLED')
          ORDER BY e.system_id, e.collection_id, e.seq LIMIT #{limit}
          """)
  List<EventRow> oldest(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("after") long after,
      @Param("limit") int limit);

  /** A collection's events of some kinds, newest first. */
  @Select(
      "<script>SELECT "
          + COLUMNS
          + """
           FROM event e
          WHERE e.system_id = #{system} AND e.collection_id = #{collection}
            AND e.origin IN ('TOLD', 'POLLED', 'DUE') AND e.kind IN
          <foreach item="kind" collection="kinds" open="(" separator="," close=")">#{kind}</foreach>
          ORDER BY e.system_id DESC, e.collection_id DESC, e.seq DESC LIMIT #{limit}
          </script>
          """)
  List<EventRow> newestOf(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("kinds") List<String> kinds,
      @Param("limit") int limit);

  /** The event of the same record that was received last before this one. */
  @Select(
      "SELECT "
          + COLUMNS
          + """
           FROM event e
          WHERE e.system_id = #{system} AND e.collection_id = #{collection}
            AND e.record_id = #{record} AND e.seq < #{before} AND e.origin IN ('TOLD', 'POLLED')
          ORDER BY e.system_id DESC, e.collection_id DESC, e.record_id DESC, e.seq DESC LIMIT 1
          """)
  @Nullable EventRow previous(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("record") String record,
      @Param("before") long before);

  /** The events of the same record and of some kinds that were received last before this one. */
  @Select(
      "<script>SELECT "
          + COLUMNS
          + """
           FROM event e
          WHERE e.system_id = #{system} AND e.collection_id = #{collection}
            AND e.record_id = #{record} AND e.seq &lt; #{before} AND e.origin IN ('TOLD', 'POLLED')
            AND e.kind IN
          <foreach item="kind" collection="kinds" open="(" separator="," close=")">#{kind}</foreach>
          ORDER BY e.system_id DESC, e.collection_id DESC, e.record_id DESC, e.seq DESC
          LIMIT #{limit}
          </script>
          """)
  List<EventRow> before(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("record") String record,
      @Param("before") long before,
      @Param("kinds") Collection<String> kinds,
      @Param("limit") int limit);

  /** Of which of these records an event is kept. */
  @Select(
      """
      <script>
      SELECT v.id FROM (VALUES
      <foreach item="r" collection="records" separator=",">(CAST(#{r} AS VARCHAR))</foreach>
      ) v(id) WHERE EXISTS (
        SELECT 1 FROM event e WHERE e.system_id = #{system} AND e.collection_id = #{collection}
          AND e.record_id = v.id AND e.origin IN ('TOLD', 'POLLED'))
      </script>
      """)
  List<String> recordsMet(
      @Param("system") String system,
      @Param("collection") String collection,
      @Param("records") List<String> records);

  @Select("SELECT COALESCE(MAX(seq), 0) FROM event")
  long newestSeq();
}
