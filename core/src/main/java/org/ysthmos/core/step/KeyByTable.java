package org.ysthmos.core.step;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.table.NotFound;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.table.TableUse;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/**
 * Looks the value up among those of a reference table, and gives the key of its row: the way back
 * of {@link ByTable}, so that one table serves both.
 *
 * @param column the value column in which it is looked for; empty if the table has one
 * @param notFound the answer for a value that is not there; empty for the table's own
 */
public record KeyByTable(String table, Optional<String> column, Optional<NotFound> notFound)
    implements Step {

  static final StepKind KIND =
      StepKind.of(
              "key-by-table",
              StepKind.Family.TABLE,
              "Gives the key of the row of a reference table that holds the value, the way back of"
                  + " `by-table`; in a list, of each item.")
          .bare(Option.required("table", Option.Plain.TABLE, "the table's id"))
          .with(
              Option.optional(
                  "column",
                  Option.Plain.TEXT,
                  "the column in which the value is looked for, where there is more than one"))
          .with(
              Option.optional(
                  "not-found",
                  Option.Plain.NOT_FOUND,
                  "`fail`, `empty`, `pass-through` or `{ use: … }`; the table's own if not said"))
          .example("key-by-table: stewards", "tb-07", "olive@tidewrack.example")
          .example(
              "key-by-table: { table: stewards, not-found: { use: office@tidewrack.example } }",
              "tb-99",
              "office@tidewrack.example")
          .example(
              "key-by-table: { table: stewards, not-found: fail }",
              "tb-99",
              "“tb-99” stands in no row of the table Stewards")
          .reads(
              options ->
                  new KeyByTable(
                      options.text("table"),
                      options.get("column").map(DocumentNode::text),
                      options.get("not-found").map(NotFound::read)));

  @Override
  public StepKind kind() {
    return KIND;
  }

  @Override
  public SequencedMap<String, Object> options() {
    SequencedMap<String, Object> options = Written.of("table", table);
    column.ifPresent(name -> options.put("column", name));
    notFound.ifPresent(answer -> options.put("not-found", answer.toDocument()));
    return options;
  }

  @Override
  public String sentence() {
    return "the key of its row in %s%s%s"
        .formatted(
            table,
            column.map(name -> " (" + name + ")").orElse(""),
            notFound.map(answer -> "; if not found, " + answer.sentence()).orElse(""));
  }

  @Override
  public Compiled compile(ValueType in, Scope scope) {
    ValueType item = in.element().orElse(in);
    Step.needs(item.isSimple(), in, "a value to look up", "point to one of its fields instead");
    TableDefinition definition = scope.table(table);
    if (definition.keys().size() != 1) {
      throw new Misfit(
          "gives one key but %s has the key columns %s"
              .formatted(definition.name(), String.join(", ", definition.keys())));
    }
    NotFound answer =
        notFound
            .or(definition::notFound)
            .orElseThrow(
                () ->
                    new Misfit(
                        "does not say what happens if the value is not found; write not-found:"
                            + " fail, empty, pass-through or { use: … }"));
    Back back = new Back(definition, place(definition), answer);
    return in.isList()
        ? Compiled.of(ValueType.listOf(ValueType.TEXT), back::each)
        : Compiled.of(ValueType.TEXT, back::one);
  }

  private int place(TableDefinition definition) {
    List<String> columns = List.copyOf(definition.values().sequencedKeySet());
    if (column.isEmpty() && columns.size() > 1) {
      throw new Misfit(
          "looks in one column; say in which with column: " + String.join(", ", columns));
    }
    String wanted = column.orElse(columns.getFirst());
    if (!columns.contains(wanted)) {
      throw new Misfit(Nearest.unknown("value column of " + definition.name(), wanted, columns));
    }
    return columns.indexOf(wanted);
  }

  /** A compiled look back into a table, as it stands at the moment of the decision. */
  private record Back(TableDefinition definition, int column, NotFound notFound) {

    Computed one(Value value, Reading reading) {
      Optional<ReferenceTable> table =
          reading
              .table(definition.id())
              .filter(now -> now.definition().columns().equals(definition.columns()));
      if (table.isEmpty()) {
        return TableLookup.noTable(definition);
      }
      List<ReferenceTable.Row> rows = table.get().holding(column, value.display());
      if (rows.size() > 1) {
        return new Problem(
            "“%s” stands in %d rows of the table %s, so that nobody can tell which is meant"
                .formatted(value.display(), rows.size(), definition.name()),
            value.display(),
            "Leave it in one of them, then send again");
      }
      if (rows.isEmpty()) {
        return without(value);
      }
      List<String> keys = rows.getFirst().keys();
      reading.tableAsked(new TableUse(definition.id(), keys, true));
      return Text.of(keys.getFirst());
    }

    private Computed without(Value value) {
      return switch (notFound) {
        case NotFound.Use use -> Constant.parse(use.written(), ValueType.TEXT);
        case NotFound.LeaveEmpty empty -> Nothing.NOTHING;
        case NotFound.PassThrough pass -> Text.of(value.display());
        case NotFound.Fail fail ->
            new Problem(
                "“%s” stands in no row of the table %s"
                    .formatted(value.display(), definition.name()),
                value.display(),
                "Add a row that holds it, then send again");
      };
    }

    Computed each(Value list, Reading reading) {
      List<Value> keys = new ArrayList<>();
      for (Value item : ((ListValue) list).items()) {
        switch (one(item, reading)) {
          case Problem problem -> {
            return problem;
          }
          case Warned warned -> keys.add(warned.value());
          case Value key when key == Nothing.NOTHING -> {}
          case Value key -> keys.add(key);
        }
      }
      return new ListValue(ValueType.TEXT, keys);
    }
  }
}
