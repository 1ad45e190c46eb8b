package org.ysthmos.core.bridge;

import java.util.List;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.rule.BoundField;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.shape.CollectionShape;

/**
 * A compiled bridge: functions and nothing to parse. Immutable and safe to share between threads.
 *
 * @param number the version, counted from 1
 */
public record BridgeVersion(
    BridgeDefinition definition,
    int number,
    CollectionShape source,
    CollectionShape target,
    List<CompiledLookup> lookups,
    CompiledCondition when,
    List<BoundField> match,
    List<CompiledField> fields) {

  /** A lookup with its key fields bound; {@code keys} and {@code by} are in the same order. */
  public record CompiledLookup(
      BridgeDefinition.LookupRule rule,
      CollectionShape shape,
      List<String> keys,
      List<BoundField> by) {

    public CompiledLookup {
      keys = List.copyOf(keys);
      by = List.copyOf(by);
    }
  }

  public BridgeVersion {
    lookups = List.copyOf(lookups);
    match = List.copyOf(match);
    fields = List.copyOf(fields);
  }
}
