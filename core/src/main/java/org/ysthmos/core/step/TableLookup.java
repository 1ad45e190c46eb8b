package org.ysthmos.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.table.NotFound;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.table.TableUse;
import org.ysthmos.core.text.LookAlike;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * A compiled look into a reference table. The rows are those of the moment of the decision; what
 * was asked is taken down, so that unknown keys can be offered for adding.
 *
 * @param column the place of the value column taken, counted from 0
 * @param fallback the stated value for not found; nothing if there is none
 */
record TableLookup(
    TableDefinition definition,
    List<BoundField> more,
    int column,
    ValueType gives,
    NotFound notFound,
    Value fallback) {

  Computed one(Value value, Reading reading) {
    Optional<ReferenceTable> found = reading.table(definition.id());
    if (found.isEmpty() || !fits(found.get().definition())) {
      return noTable(definition);
    }
    ReferenceTable table = found.get();
    if (more.isEmpty()) {
      return ask(table, List.of(value.display()), value, reading);
    }
    List<String> keys = new ArrayList<>(1 + more.size());
    keys.add(value.display());
    for (BoundField field : more) {
      switch (field.read(reading)) {
        case Problem problem -> {
          return problem;
        }
        case Warned warned -> keys.add(warned.value().display());
        case Value key -> keys.add(key.display());
      }
    }
    return ask(table, keys, value, reading);
  }

  /** That a table is not as it was when a rule was compiled for it. */
  static Problem noTable(TableDefinition definition) {
    return new Problem(
        "the table “" + definition.name() + "” is no longer there, or has other columns",
        definition.id(),
        "Put the rule to work again with the table as it is now, then send again");
  }

  /** Whether a table has the columns that the rule was compiled for. */
  private boolean fits(TableDefinition now) {
    return now.equals(definition) || now.columns().equals(definition.columns());
  }

  private Computed ask(ReferenceTable table, List<String> keys, Value value, Reading reading) {
    Optional<ReferenceTable.Row> row = table.find(keys);
    reading.tableAsked(new TableUse(definition.id(), keys, row.isPresent()));
    return row.isPresent() ? row.get().values().get(column) : without(value, keys, table);
  }

  Computed each(Value list, Reading reading) {
    List<Value> values = new ArrayList<>();
    for (Value item : ((ListValue) list).items()) {
      switch (one(item, reading)) {
        case Problem problem -> {
          return problem;
        }
        case Warned warned -> values.add(warned.value());
        case Value value -> {
          if (value != Nothing.NOTHING) {
            values.add(value);
          }
        }
      }
    }
    return new ListValue(gives, values);
  }

  private Computed without(Value value, List<String> keys, ReferenceTable table) {
    return switch (notFound) {
      case NotFound.Use use -> fallback;
      case NotFound.LeaveEmpty empty -> Nothing.NOTHING;
      case NotFound.PassThrough pass ->
          value.type().equals(gives) ? value : Constant.parse(value.display(), gives);
      case NotFound.Fail fail ->
          new Problem(
              "“%s” is not in the table %s%s"
                  .formatted(
                      String.join("” with “", keys), definition.name(), looksLike(keys, table)),
              String.join(", ", keys),
              "Add it to the table, then send again");
    };
  }

  /** Names the row that looks the same, if there is one, and the sign that is another. */
  private static String looksLike(List<String> keys, ReferenceTable table) {
    for (ReferenceTable.Row row : table.rows()) {
      for (int i = 0; i < keys.size(); i++) {
        Optional<String> difference = LookAlike.difference(keys.get(i), row.keys().get(i));
        if (difference.isPresent()) {
          return "; “%s” is, but this has %s".formatted(row.keys().get(i), difference.get());
        }
      }
    }
    return "";
  }
}
