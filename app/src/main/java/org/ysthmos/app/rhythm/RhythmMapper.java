package org.ysthmos.app.rhythm;

import java.util.List;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

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
}
