package org.ysthmos.app.secret;

import java.time.Instant;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface SecretMapper {

  @Update(
      "MERGE INTO secret (name, sealed, kept_at) KEY (name) VALUES (#{name}, #{sealed}, #{keptAt})")
  void keep(
      @Param("name") String name, @Param("sealed") byte[] sealed, @Param("keptAt") Instant keptAt);

  record SecretRow(byte[] sealed, @Nullable Instant keptAt) {}

  @Select("SELECT sealed, kept_at FROM secret WHERE name = #{name}")
  @Nullable SecretRow find(@Param("name") String name);
}
