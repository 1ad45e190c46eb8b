package org.ysthmos.core.bridge;

import java.util.List;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.shape.CollectionShape;

/**
 * A compiled bridge: functions and nothing to parse. Immutable and safe to share between threads.
 *
 * @param number the version, counted from 1
 * @param values the values that the bridge names, in the order of their places
 * @param valueNames their names, in the same order
 * @param lookupsBeforeWhen how many lookups must be answered before the condition can be asked; the
 *     others are spared where it is not met
 * @param remarks what a person should know before using it, each with its place in the document
 */
public record BridgeVersion(
    BridgeDefinition definition,
    int number,
    CollectionShape source,
    CollectionShape target,
    List<CompiledLookup> lookups,
    List<CompiledValue> values,
    List<String> valueNames,
    CompiledCondition when,
    int lookupsBeforeWhen,
    List<BoundField> match,
    CompiledPlan plan,
    List<DocumentProblem> remarks) {

  public BridgeVersion {
    lookups = List.copyOf(lookups);
    values = List.copyOf(values);
    valueNames = List.copyOf(valueNames);
    match = List.copyOf(match);
    remarks = List.copyOf(remarks);
  }
}
