package org.ysthmos.core.table;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import org.ysthmos.core.text.Letters;
import org.ysthmos.core.value.ValueType;

/**
 * What a reference table is about, without its rows.
 *
 * @param id short, stable, lower case with hyphens
 * @param name what people call it
 * @param keys the key columns, at least one
 * @param values the value columns and what they hold, at least one; all are simple types
 * @param ignoreCase in the way of which language keys in capitals and in small letters are the
 *     same; empty where they are not
 * @param notFound the answer for a key that is not there, unless a rule states its own
 */
public record TableDefinition(
    String id,
    String name,
    List<String> keys,
    SequencedMap<String, ValueType> values,
    Optional<Locale> ignoreCase,
    Optional<NotFound> notFound) {

  /**
   * @throws IllegalArgumentException if there is no key or value column, or two are called the same
   */
  public TableDefinition {
    keys = List.copyOf(keys);
    values = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(values));
    if (keys.isEmpty() || values.isEmpty()) {
      throw new IllegalArgumentException("a table needs a key column and a value column");
    }
    Set<String> all = new HashSet<>(keys);
    all.addAll(values.keySet());
    if (all.size() != keys.size() + values.size()) {
      throw new IllegalArgumentException("two columns of the table are called the same");
    }
  }

  /** All columns, keys first, in the order in which they are written. */
  public List<String> columns() {
    List<String> columns = new ArrayList<>(keys);
    columns.addAll(values.keySet());
    return columns;
  }

  /**
   * Keys as they are compared: in Unicode normalisation form C, so that an accent written apart is
   * the same as one written together, and without case if the table ignores it.
   */
  List<String> folded(List<String> row) {
    if (row.size() == 1) {
      return List.of(folded(row.getFirst()));
    }
    List<String> folded = new ArrayList<>(row.size());
    for (String key : row) {
      folded.add(folded(key));
    }
    return folded;
  }

  private String folded(String key) {
    return ignoreCase
        .map(locale -> Letters.withoutCase(key, locale))
        .orElseGet(() -> Letters.composed(key));
  }
}
