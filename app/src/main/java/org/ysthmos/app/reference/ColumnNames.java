package org.ysthmos.app.reference;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.step.ByTable;
import org.ysthmos.core.step.InList;
import org.ysthmos.core.step.Step;
import org.ysthmos.core.table.TableDefinition;

/**
 * What people call the keys that a table's columns hold. A column holds keys of the field that it
 * goes into, in the bridges that use the table.
 */
@Component
class ColumnNames {

  private final Bridges bridges;

  ColumnNames(Bridges bridges) {
    this.bridges = bridges;
  }

  /** The names by their keys; none for a column that goes into no field that has names. */
  SequencedMap<String, String> of(TableDefinition table, String column) {
    SequencedMap<String, String> names = new LinkedHashMap<>();
    bridges.live().stream()
        .map(Bridges.Live::version)
        .flatMap(ColumnNames::fields)
        .filter(field -> !field.target().names().isEmpty())
        .filter(field -> last(field).filter(step -> takes(step, table, column)).isPresent())
        .forEach(field -> field.target().names().forEach(names::putIfAbsent));
    return names;
  }

  private static Stream<CompiledField> fields(BridgeVersion version) {
    return Stream.concat(
        version.plan().allFields().stream(),
        version.then().stream().flatMap(effect -> effect.fields().stream()));
  }

  /** The lookup in a table after which the value is only put in a list. */
  private static Optional<ByTable> last(CompiledField field) {
    List<Step> steps = field.value().rule().steps();
    int end = steps.size();
    while (end > 0 && steps.get(end - 1) instanceof InList) {
      end--;
    }
    return end > 0 && steps.get(end - 1) instanceof ByTable step
        ? Optional.of(step)
        : Optional.empty();
  }

  private static boolean takes(ByTable step, TableDefinition table, String column) {
    return step.table().equals(table.id())
        && step.take()
            .or(() -> table.values().keySet().stream().findFirst())
            .filter(column::equals)
            .isPresent();
  }
}
