package org.ysthmos.core.table;

import java.util.LinkedHashMap;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentText;

/** Writes what a table is about as its document, without its rows; reading it gives the same. */
public final class TableWriter {

  private TableWriter() {}

  public static String write(TableDefinition table) {
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
    return DocumentText.write(document);
  }
}
