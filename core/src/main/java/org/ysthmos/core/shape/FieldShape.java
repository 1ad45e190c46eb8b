package org.ysthmos.core.shape;

import java.util.List;
import java.util.OptionalInt;
import org.ysthmos.core.value.ValueType;

/**
 * One field of a record.
 *
 * @param key the field's address in a source record (a JSON Pointer), or its key in a target
 * @param name what people call it
 * @param required whether a record cannot be made without it
 * @param longest the most characters the system keeps of a text, counted in UTF-16 code units
 * @param choices the keys of the known set for a choice; empty where the set is not known
 */
public record FieldShape(
    String key,
    String name,
    ValueType type,
    boolean required,
    OptionalInt longest,
    List<String> choices) {

  public FieldShape {
    choices = List.copyOf(choices);
  }

  public static FieldShape of(String key, String name, ValueType type) {
    return new FieldShape(key, name, type, false, OptionalInt.empty(), List.of());
  }
}
