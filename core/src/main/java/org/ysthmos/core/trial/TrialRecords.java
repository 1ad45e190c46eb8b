package org.ysthmos.core.trial;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.json.Pointer;

/** Given records, as they stand in the collections of a world without effect. */
final class TrialRecords {

  /** Where the id of a record stands. */
  static final String ID = "id";

  private final Map<CollectionRef, List<JsonNode>> records = new HashMap<>();

  private List<JsonNode> at(CollectionRef place) {
    return records.computeIfAbsent(place, any -> new ArrayList<>());
  }

  void add(CollectionRef place, JsonNode record) {
    at(place).add(record);
  }

  /** The record stands so from now on. */
  void put(CollectionRef place, String id, JsonNode record) {
    remove(place, id);
    add(place, record);
  }

  void remove(CollectionRef place, String id) {
    at(place).removeIf(record -> record.path(ID).asText().equals(id));
  }

  Optional<JsonNode> find(CollectionRef place, String id) {
    return at(place).stream().filter(record -> record.path(ID).asText().equals(id)).findFirst();
  }

  /**
   * Those that hold what is asked.
   *
   * @param keys a field's address or name, with what it holds
   */
  List<JsonNode> holding(CollectionRef place, Map<String, String> keys) {
    return at(place).stream().filter(record -> holds(record, keys)).toList();
  }

  static boolean holds(JsonNode record, Map<String, String> keys) {
    for (Map.Entry<String, String> key : keys.entrySet()) {
      String address = key.getKey().startsWith("/") ? key.getKey() : "/" + key.getKey();
      JsonNode held = Pointer.parse(address).in(record);
      if (!held.isValueNode() || held.isNull() || !held.asText().equals(key.getValue())) {
        return false;
      }
    }
    return true;
  }
}
