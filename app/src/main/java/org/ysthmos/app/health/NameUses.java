package org.ysthmos.app.health;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.table.Tables;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledEffect;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.Source;
import org.ysthmos.core.rule.ValueRule;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.step.ByTable;
import org.ysthmos.core.table.ReferenceTable;

/** Where a name of a directory is used: by which rule as it stands, and in which row of a table. */
@Component
public class NameUses {

  /**
   * A rule or a row.
   *
   * @param bridge the id of the bridge whose rule it is, or whose rule asks the table
   * @param name what people call that bridge
   */
  public record UseView(String bridge, String name, String what) {}

  /** A key of a directory of a system. */
  public record Key(String system, String directory, String key) {}

  private final Bridges bridges;
  private final Tables tables;

  NameUses(Bridges bridges, Tables tables) {
    this.bridges = bridges;
    this.tables = tables;
  }

  public List<UseView> of(Key key) {
    List<UseView> uses = new ArrayList<>();
    for (Bridges.Live live : bridges.live()) {
      BridgeVersion version = live.version();
      in(version.target(), version.plan().allFields(), key)
          .map(what -> use(version, what))
          .forEach(uses::add);
      for (CompiledEffect effect : version.then()) {
        in(effect.target(), effect.fields(), key)
            .map(what -> use(version, what))
            .forEach(uses::add);
      }
    }
    return uses.stream().distinct().toList();
  }

  private static UseView use(BridgeVersion version, String what) {
    return new UseView(version.definition().id(), version.definition().name(), what);
  }

  private Stream<String> in(CollectionShape target, List<CompiledField> fields, Key key) {
    return fields.stream()
        .filter(field -> target.system().equals(key.system()))
        .filter(field -> field.target().directory().equals(key.directory()))
        .flatMap(
            field ->
                Stream.concat(
                    constants(field.value().rule())
                        .filter(key.key()::equals)
                        .map(any -> "rule " + field.target().name()),
                    rows(field.value().rule(), key.key())));
  }

  private static Stream<String> constants(ValueRule rule) {
    return switch (rule.source()) {
      case Source.Always always -> always.written().stream();
      case Source.Cases cases ->
          Stream.concat(cases.cases().stream().map(Source.Case::then), cases.otherwise().stream())
              .flatMap(NameUses::constants);
      default -> Stream.empty();
    };
  }

  private Stream<String> rows(ValueRule rule, String key) {
    return rule.steps().stream()
        .filter(ByTable.class::isInstance)
        .flatMap(step -> tables.table(((ByTable) step).table()).stream())
        .flatMap(table -> rows(table, key));
  }

  private static Stream<String> rows(ReferenceTable table, String key) {
    return table.rows().stream()
        .filter(row -> row.values().stream().anyMatch(value -> value.display().equals(key)))
        .map(
            row ->
                "row “%s” of table %s"
                    .formatted(String.join(", ", row.keys()), table.definition().name()));
  }
}
