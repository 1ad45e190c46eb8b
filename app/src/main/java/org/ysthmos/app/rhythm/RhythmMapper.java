package org.ysthmos.app.rhythm;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** How many events came, in the database. */
@Mapper
interface RhythmMapper {

  /** How many events of a bridge were received in a half hour, counted from 1970. */
  record SlotRow(long slot, int events) {}

  @Select(
      """
      SELECT slot, SUM(traces) AS events FROM trace_count
      WHERE bridge_id = #{bridge} AND slot >= #{since} GROUP BY slot ORDER BY slot
      """)
  List<SlotRow> slots(@Param("bridge") String bridge, @Param("since") long since);

  /** The same of what came from one of its places. */
  @Select(
      """
      SELECT slot, SUM(traces) AS events FROM place_count
      WHERE bridge_id = #{bridge} AND collection_id = #{place} AND slot >= #{since}
      GROUP BY slot ORDER BY slot
      """)
  List<SlotRow> slotsOfPlace(
      @Param("bridge") String bridge, @Param("place") String place, @Param("since") long since);

  @Select(
      """
      SELECT received_at FROM trace_place USE INDEX (trace_place_of)
      WHERE bridge_id = #{bridge} AND collection_id = #{place}
      ORDER BY bridge_id DESC, collection_id DESC, received_at DESC, trace_seq DESC LIMIT 1
      """)
  @Nullable Instant newestOfPlace(@Param("bridge") String bridge, @Param("place") String place);
}
