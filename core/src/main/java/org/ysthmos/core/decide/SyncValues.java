package org.ysthmos.core.decide;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.HashMap;
import java.util.Map;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.bridge.TwoWay;
import org.ysthmos.core.reading.Made;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;

/** What a task holds in the fields that are kept alike. */
sealed interface SyncValues {

  /** The values by the names of the fields. */
  record Read(Map<String, Value> values) implements SyncValues {}

  /**
   * One of them is no value of its field.
   *
   * @param field as people call it
   */
  record Unread(String field, Problem problem) implements SyncValues {}

  /**
   * @param id of the task
   * @param record the task as it was read
   */
  static SyncValues of(CompiledTwoWay both, Side side, String id, JsonNode record, World world) {
    TwoWay.Place place = both.place(side).rule();
    Made task = Made.of(id, world.page(place.system(), place.collection(), id));
    Map<String, Value> values = new HashMap<>();
    for (CompiledTwoWay.Field field : both.fields()) {
      CompiledTwoWay.FieldOf at = field.at().of(side);
      Computed read = at.of(record, task);
      if (read instanceof Problem problem) {
        return new Unread(at.shape().name(), problem);
      }
      values.put(field.rule().name(), (Value) read);
    }
    return new Read(values);
  }
}
