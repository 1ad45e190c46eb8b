package org.ysthmos.app.example;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

/** Pinned examples in the database, each as its JSON. */
@Mapper
interface ExampleMapper {

  record ExampleRow(String id, String bridgeId, String document, Instant pinnedAt) {}

  @Insert(
      """
      INSERT INTO pinned_example (id, bridge_id, document, pinned_at)
      VALUES (#{id}, #{bridgeId}, #{document}, #{pinnedAt})
      """)
  void add(ExampleRow example);

  @Select(
      """
      SELECT id, bridge_id, document, pinned_at FROM pinned_example
      WHERE bridge_id = #{bridge} ORDER BY bridge_id, id
      """)
  List<ExampleRow> of(@Param("bridge") String bridge);

  @Update("UPDATE pinned_example SET document = #{document} WHERE id = #{id}")
  void change(@Param("id") String id, @Param("document") String document);

  @Delete("DELETE FROM pinned_example WHERE bridge_id = #{bridge} AND id = #{id}")
  int remove(@Param("bridge") String bridge, @Param("id") String id);
}
