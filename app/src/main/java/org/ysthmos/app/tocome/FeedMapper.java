package org.ysthmos.app.tocome;

import java.time.Instant;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Param;
import org.apache.ibatis.annotations.Select;
import org.jspecify.annotations.Nullable;

/** The secret address of a calendar, in the database. */
@Mapper
interface FeedMapper {

  @Select("SELECT secret FROM feed_address WHERE name = #{name}")
  @Nullable String secret(@Param("name") String name);

  @Delete("DELETE FROM feed_address WHERE name = #{name}")
  void remove(@Param("name") String name);

  @Insert("INSERT INTO feed_address (name, secret, made_at) VALUES (#{name}, #{secret}, #{at})")
  void add(@Param("name") String name, @Param("secret") String secret, @Param("at") Instant at);
}
