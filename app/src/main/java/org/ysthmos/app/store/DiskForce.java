package org.ysthmos.app.store;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Update;

/** Forces what was committed to the disk, which a commit alone does not. */
@Mapper
public interface DiskForce {

  @Update("CHECKPOINT SYNC")
  void force();
}
