package org.ysthmos.core.table;

import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.ysthmos.core.text.Letters;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** A reference table with its rows, ready to be asked. Immutable. */
public final class ReferenceTable {

  /**
   * One row.
   *
   * @param keys in the order of the key columns
   * @param values in the order of the value columns; an empty cell is {@link Nothing}
   */
  public record Row(List<String> keys, List<Value> values) {
    public Row {
      keys = List.copyOf(keys);
      values = List.copyOf(values);
    }
  }

  private final TableDefinition definition;
  private final SequencedMap<List<String>, Row> rows;

  /** Rows by the values of a column, made once somebody asks for it. */
  private final Map<Integer, Map<String, List<Row>>> rowsByValue = new ConcurrentHashMap<>();

  private ReferenceTable(TableDefinition definition, SequencedMap<List<String>, Row> rows) {
    this.definition = definition;
    this.rows = rows;
  }

  /**
   * @throws IllegalArgumentException if two rows have the same key, or a row does not fit the
   *     columns
   */
  public static ReferenceTable of(TableDefinition definition, List<Row> rows) {
    SequencedMap<List<String>, Row> byKey = new LinkedHashMap<>();
    for (Row row : rows) {
      requireFitting(definition, row);
      if (byKey.putIfAbsent(definition.folded(row.keys()), row) != null) {
        throw new IllegalArgumentException(
            "the key “" + String.join("” and “", row.keys()) + "” stands twice in the table");
      }
    }
    return new ReferenceTable(definition, byKey);
  }

  private static void requireFitting(TableDefinition definition, Row row) {
    if (row.keys().size() != definition.keys().size()
        || row.values().size() != definition.values().size()) {
      throw new IllegalArgumentException(
          "a row of %d cells does not fit the columns %s"
              .formatted(row.keys().size() + row.values().size(), definition.columns()));
    }
    Iterator<ValueType> types = definition.values().sequencedValues().iterator();
    for (Value value : row.values()) {
      ValueType type = types.next();
      if (value != Nothing.NOTHING && !value.type().equals(type)) {
        throw new IllegalArgumentException(
            "“%s” is a %s where the column holds a %s"
                .formatted(value.display(), value.type(), type));
      }
    }
  }

  public TableDefinition definition() {
    return definition;
  }

  public List<Row> rows() {
    return List.copyOf(rows.sequencedValues());
  }

  /**
   * The rows that hold a value in one of the value columns, in order.
   *
   * @param column its place, counted from 0
   * @param value as it is shown
   */
  public List<Row> holding(int column, String value) {
    return rowsByValue
        .computeIfAbsent(column, this::byValue)
        .getOrDefault(Letters.composed(value), List.of());
  }

  private Map<String, List<Row>> byValue(int column) {
    return rows.values().stream()
        .filter(row -> row.values().get(column) != Nothing.NOTHING)
        .collect(
            Collectors.groupingBy(row -> Letters.composed(row.values().get(column).display())));
  }

  public Optional<Row> find(List<String> keys) {
    return Optional.ofNullable(rows.get(definition.folded(keys)));
  }

  /** The same table with a row more, or with the row of this key replaced. */
  public ReferenceTable with(Row row) {
    requireFitting(definition, row);
    SequencedMap<List<String>, Row> more = new LinkedHashMap<>(rows);
    more.put(definition.folded(row.keys()), row);
    return new ReferenceTable(definition, more);
  }
}
