package org.ysthmos.app.who;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** Whose bridges are, in the database. */
@Mapper
public interface OwnerMapper {

  /** Each is empty if nobody is said to be it. */
  record OwnerRow(String bridgeId, String owner, String standIn) {}

  @Select("SELECT bridge_id, owner, stand_in FROM bridge_card")
  List<OwnerRow> owners();

  /** The owner of each bridge that has one. */
  default Map<String, String> byBridge() {
    return owners().stream()
        .filter(row -> !row.owner().isEmpty())
        .collect(Collectors.toMap(OwnerRow::bridgeId, OwnerRow::owner));
  }
}
