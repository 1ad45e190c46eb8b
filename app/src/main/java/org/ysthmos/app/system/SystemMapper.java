package org.ysthmos.app.system;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface SystemMapper {

  record SystemRow(String id, String document) {}

  /**
   * @param which the key under which the document has the address
   */
  record AddressRow(String systemId, String which, String address) {}

  @Select("SELECT id, document FROM outside_system ORDER BY id")
  List<SystemRow> all();

  @Insert(
      """
      INSERT INTO outside_system (id, document, changed_at)
      VALUES (#{id}, #{document}, #{now})
      """)
  void add(@Param("id") String id, @Param("document") String document, @Param("now") Instant now);

  @Update("UPDATE outside_system SET document = #{document}, changed_at = #{now} WHERE id = #{id}")
  int change(@Param("id") String id, @Param("document") String document, @Param("now") Instant now);

  /** The address that stands in the document itself counts again. */
  @Delete("DELETE FROM system_address WHERE system_id = #{id} AND which = 'address'")
  void forgetAddress(@Param("id") String id);

  @Delete("DELETE FROM outside_system WHERE id = #{id}")
  void remove(@Param("id") String id);

  @Delete("DELETE FROM system_address WHERE system_id = #{id}")
  void forgetAddresses(@Param("id") String id);

  @Select("SELECT document FROM outside_system WHERE id = #{id}")
  @Nullable String document(@Param("id") String id);

  @Select("SELECT system_id, which, address FROM system_address")
  List<AddressRow> addresses();

  @Update(
      """
      MERGE INTO system_address (system_id, which, address) KEY (system_id, which)
      VALUES (#{id}, #{which}, #{address})
      """)
  void connect(
      @Param("id") String id, @Param("which") String which, @Param("address") String address);
}
