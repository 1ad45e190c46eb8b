package org.ysthmos.core.bridge;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.ysthmos.core.condition.CompiledCondition;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.shape.CollectionShape;

/**
 * Something else that comes of an event, made into functions.
 *
 * @param target where it is made; the record's own collection if that is changed
 * @param changed the id of the record that is changed, where none is made
 * @param match the values of its match key; the bridge's own if it states none
 */
public record CompiledEffect(
    BridgeDefinition.Effect rule,
    CollectionShape target,
    CompiledCondition when,
    Optional<BoundField> changed,
    List<BoundField> match,
    List<CompiledField> fields) {

  public CompiledEffect {
    match = List.copyOf(match);
    fields = List.copyOf(fields);
  }

  /** Whether it names the task that was made. */
  public boolean namesTheTask() {
    return made().findAny().isPresent();
  }

  /** Whether it names the link of the task that was made. */
  boolean namesTheLink() {
    return made().anyMatch(BoundField.OfMade::link);
  }

  private Stream<BoundField.OfMade> made() {
    return fields.stream()
        .flatMap(field -> field.reads().stream())
        .map(BoundField::reader)
        .filter(BoundField.OfMade.class::isInstance)
        .map(BoundField.OfMade.class::cast);
  }
}
