package org.ysthmos.core.shape;

import java.util.Map;
import java.util.OptionalInt;
import org.ysthmos.core.value.ValueType;

/**
 * One field of a record.
 *
 * @param key the field's address in a source record (a JSON Pointer), or its key in a target
 * @param name what people call it
 * @param required whether a record cannot be made without it
 * @param longest the most characters the system keeps of a text, counted in UTF-16 code units
 * @param names what people call the keys of choices or people, as far as they are known
 */
public record FieldShape(
    String key,
    String name,
    ValueType type,
    boolean required,
    OptionalInt longest,
    Map<String, String> names) {

  public FieldShape {
    names = Map.copyOf(names);
  }

  public static FieldShape of(String key, String name, ValueType type) {
    return new FieldShape(key, name, type, false, OptionalInt.empty(), Map.of());
  }

  /** What people call a key, or the key itself where that is not known. */
  public String nameOf(String key) {
    return names.getOrDefault(key, key);
  }
}
