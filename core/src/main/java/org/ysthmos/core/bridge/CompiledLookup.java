package org.ysthmos.core.bridge;

import java.util.List;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;

/**
 * A lookup with its keys made into functions; {@code keys} and {@code by} are in the same order.
 *
 * @param fields the fields of the record found: those of the collection's records, or of what comes
 *     with its events
 */
public record CompiledLookup(
    LookupRule rule,
    CollectionShape shape,
    List<FieldShape> fields,
    List<String> keys,
    List<CompiledValue> by) {

  public CompiledLookup {
    fields = List.copyOf(fields);
    keys = List.copyOf(keys);
    by = List.copyOf(by);
  }
}
