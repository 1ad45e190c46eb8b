package org.ysthmos.core.table;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Languages;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/** Reads a table document. What it does not know it refuses, with line and column. */
public final class TableReader {

  private TableReader() {}

  /**
   * Reads a table whose rows stand in the document, in a CSV beside it, or in neither.
   *
   * @throws org.ysthmos.core.document.DocumentException if the document cannot be used
   */
  public static ReferenceTable read(DocumentNode root) {
    root.only("table", "name", "keys", "values", "ignore-case", "not-found", "rows");
    DocumentNode values = root.need("values");
    SequencedMap<String, ValueType> columns = new LinkedHashMap<>();
    values.group().forEach((column, type) -> columns.put(column, type(type)));
    try {
      TableDefinition definition =
          new TableDefinition(
              root.need("table").id(),
              root.need("name").text(),
              root.need("keys").texts(),
              columns,
              root.get("ignore-case").flatMap(TableReader::ignoringCase),
              root.get("not-found").map(NotFound::read));
      definition.notFound().ifPresent(answer -> requireFitting(answer, definition, root));
      return root.get("rows")
          .map(rows -> rows(rows, definition))
          .orElseGet(() -> ReferenceTable.of(definition, List.of()));
    } catch (IllegalArgumentException e) {
      throw values.refuse(String.valueOf(e.getMessage()));
    }
  }

  /** Yes, no, or the language in whose way capitals and small letters are alike. */
  private static Optional<Locale> ignoringCase(DocumentNode node) {
    return switch (node.text()) {
      case "false" -> Optional.empty();
      case "true" -> Optional.of(Locale.ROOT);
      default -> Optional.of(Languages.read(node));
    };
  }

  private static ValueType type(DocumentNode node) {
    return ValueType.parse(node.text())
        .filter(ValueType::isSimple)
        .orElseThrow(() -> node.refuse("no column holds a “" + node.text() + "”"));
  }

  private static void requireFitting(NotFound answer, TableDefinition table, DocumentNode root) {
    if (answer instanceof NotFound.Use use) {
      if (table.values().size() > 1) {
        throw root.need("not-found")
            .refuse("which of the columns is meant? State it in the rules that use the table");
      }
      parsed(use.written(), table.values().firstEntry().getValue(), root.need("not-found"));
    }
  }

  private static ReferenceTable rows(DocumentNode node, TableDefinition definition) {
    ReferenceTable table = ReferenceTable.of(definition, List.of());
    for (DocumentNode row : node.list()) {
      row.only(definition.columns().toArray(String[]::new));
      List<String> keys = definition.keys().stream().map(key -> row.need(key).text()).toList();
      if (table.find(keys).isPresent()) {
        throw row.refuse("the key “" + String.join("” and “", keys) + "” stands twice");
      }
      List<Value> values = new ArrayList<>();
      definition
          .values()
          .forEach(
              (column, type) ->
                  values.add(
                      row.get(column)
                          .filter(cell -> !cell.text().isEmpty())
                          .map(cell -> parsed(cell.text(), type, cell))
                          .orElse(Nothing.NOTHING)));
      table = table.with(new ReferenceTable.Row(keys, values));
    }
    return table;
  }

  private static Value parsed(String text, ValueType type, DocumentNode at) {
    try {
      return Constant.parse(text, type);
    } catch (IllegalArgumentException e) {
      throw at.refuse(String.valueOf(e.getMessage()));
    }
  }
}
