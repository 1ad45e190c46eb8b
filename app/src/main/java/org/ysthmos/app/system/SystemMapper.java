package org.ysthmos.app.system;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface SystemMapper {

  record SystemRow(String id, @Nullable String address, String document) {}

  @Select("SELECT id, address, document FROM outside_system ORDER BY id")
  List<SystemRow> all();

  @Insert(
      """
      INSERT INTO outside_system (id, document, changed_at)
      VALUES (#{id}, #{document}, #{now})
      """)
  void add(@Param("id") String id, @Param("document") String document, @Param("now") Instant now);

  @Update("UPDATE outside_system SET address = #{address} WHERE id = #{id}")
  int connect(@Param("id") String id, @Param("address") String address);
}
