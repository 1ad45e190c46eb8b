package org.ysthmos.app.store;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;

/** Answers as long as the database is there. */
@Mapper
interface Pulse {

  @Options(flushCache = Options.FlushCachePolicy.TRUE, useCache = false)
  @Select("SELECT 1")
  int beat();
}
