package org.ysthmos.core.table;

import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentText;
import org.ysthmos.core.value.Value;

/** Writes tables as documents; reading one gives the same. */
public final class TableWriter {

  private TableWriter() {}

  /** What a table is about, without its rows. */
  public static String write(TableDefinition table) {
    return DocumentText.write(about(table));
  }

  /** A table with its rows, in their order. */
  public static String write(ReferenceTable table) {
    SequencedMap<String, Object> document = about(table.definition());
    if (!table.rows().isEmpty()) {
      document.put(
          "rows", table.rows().stream().map(row -> cells(table.definition(), row)).toList());
    }
    return DocumentText.write(document);
  }

  private static SequencedMap<String, Object> cells(TableDefinition table, ReferenceTable.Row row) {
    SequencedMap<String, Object> cells = new LinkedHashMap<>();
    Iterator<String> keys = row.keys().iterator();
    table.keys().forEach(column -> cells.put(column, keys.next()));
    Iterator<Value> values = row.values().iterator();
    for (String column : table.values().keySet()) {
      String text = values.next().display();
      if (!text.isEmpty()) {
        cells.put(column, text);
      }
    }
    return cells;
  }

  private static SequencedMap<String, Object> about(TableDefinition table) {
    SequencedMap<String, Object> document = new LinkedHashMap<>();
    document.put("table", table.id());
    document.put("name", table.name());
    document.put("keys", table.keys());
    SequencedMap<String, Object> values = new LinkedHashMap<>();
    table.values().forEach((column, type) -> values.put(column, type.toString()));
    document.put("values", values);
    table
        .ignoreCase()
        .ifPresent(
            locale ->
                document.put(
                    "ignore-case",
                    locale.getLanguage().isEmpty() ? "true" : locale.toLanguageTag()));
    table.notFound().ifPresent(answer -> document.put("not-found", answer.toDocument()));
    return document;
  }
}
