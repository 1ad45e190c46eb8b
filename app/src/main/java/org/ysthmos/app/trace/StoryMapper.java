package org.ysthmos.app.trace;

import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;

/** The parts of stories in the database, each written once. */
@Mapper
interface StoryMapper {

  /** A part as it is kept; bytes alone would be taken for a list of rows. */
  record PartRow(byte[] told) {}

  @Insert(
      """
      INSERT INTO story (trace_seq, part, told) VALUES (#{seq}, #{part}, #{told})
      """)
  void add(@Param("seq") long seq, @Param("part") long part, @Param("told") byte[] told);

  /** The next numbers of parts. */
  @Options(flushCache = Options.FlushCachePolicy.TRUE)
  @Select("SELECT NEXT VALUE FOR story_order FROM SYSTEM_RANGE(1, #{count})")
  List<Long> numbers(@Param("count") int count);

  /** The part that stands before all others, where a story does not begin as usual. */
  @Insert("INSERT INTO story (trace_seq, part, told) VALUES (#{seq}, 0, #{told})")
  void begin(@Param("seq") long seq, @Param("told") byte[] told);

  @Select("SELECT told FROM story WHERE trace_seq = #{seq} ORDER BY trace_seq, part")
  List<PartRow> of(@Param("seq") long seq);

  @Select("SELECT COUNT(*) FROM story WHERE trace_seq = #{seq} AND part = 0")
  int begun(@Param("seq") long seq);
}
