package org.ysthmos.app.secret;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface SecretMapper {

  @Update("MERGE INTO secret (name, sealed) KEY (name) VALUES (#{name}, #{sealed})")
  void keep(@Param("name") String name, @Param("sealed") byte[] sealed);

  /** Bytes alone would be taken for a list of rows. */
  record SecretRow(byte[] sealed) {}

  @Select("SELECT sealed FROM secret WHERE name = #{name}")
  @Nullable SecretRow find(@Param("name") String name);
}
