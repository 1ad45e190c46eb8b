package org.ysthmos.app.reference;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.reference.Users.UserView;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.table.Tables.Change;
import org.ysthmos.app.who.By;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentText;
import org.ysthmos.core.table.NotFound;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableCsv;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.table.TableReader;

/** Making, changing and taking away reference tables. */
@RestController
@RequestMapping(path = "/api/tables/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
class TableKeeping {

  /** A column that holds values; {@code type} is the word of a simple type. */
  record ColumnView(String name, String type) {}

  /** What people call the keys of a column that has names elsewhere. */
  record NamesView(String column, Map<String, String> names) {}

  /**
   * What a table is about, who uses it, and what became of it.
   *
   * @param ignoreCase {@code false}, {@code true}, or the language in whose way case is ignored
   * @param notFound {@code fail}, {@code empty}, {@code pass-through} or {@code use}; empty where
   *     each rule says it
   * @param use the stated value for {@code use}
   * @param basedOn the order number of the newest change
   */
  record TableAbout(
      String id,
      String name,
      List<String> keys,
      List<ColumnView> values,
      String ignoreCase,
      String notFound,
      String use,
      List<NamesView> names,
      List<UserView> users,
      List<Change> changes,
      long basedOn) {}

  /**
   * A table as it is to be.
   *
   * @param csv its rows (RFC 4180), with a header of all columns
   * @param basedOn the newest change that the person saw; 0 for a new table
   */
  record TableWish(
      String name,
      List<String> keys,
      List<ColumnView> values,
      String ignoreCase,
      String notFound,
      String use,
      String csv,
      long basedOn) {}

  private final Tables tables;
  private final Users users;
  private final ColumnNames names;

  TableKeeping(Tables tables, Users users, ColumnNames names) {
    this.tables = tables;
    this.users = users;
    this.names = names;
  }

  @GetMapping("/about")
  TableAbout about(@PathVariable String id) {
    TableDefinition table = table(id).definition();
    List<Change> changes = tables.changesOfTable(id);
    Optional<NotFound> notFound = table.notFound();
    return new TableAbout(
        id,
        table.name(),
        table.keys(),
        table.values().entrySet().stream()
            .map(column -> new ColumnView(column.getKey(), column.getValue().toString()))
            .toList(),
        table
            .ignoreCase()
            .map(locale -> locale.getLanguage().isEmpty() ? "true" : locale.toLanguageTag())
            .orElse("false"),
        notFound
            .map(answer -> answer instanceof NotFound.Use ? "use" : answer.toDocument().toString())
            .orElse(""),
        notFound
            .filter(NotFound.Use.class::isInstance)
            .map(answer -> ((NotFound.Use) answer).written())
            .orElse(""),
        table.values().keySet().stream()
            .map(column -> new NamesView(column, names.of(table, column)))
            .filter(column -> !column.names().isEmpty())
            .toList(),
        users.ofTable(id),
        changes,
        changes.isEmpty() ? 0 : changes.getFirst().seq());
  }

  /** Keeps a table with all of its rows, a new one or one that is there. */
  @PutMapping
  TableAbout put(@PathVariable String id, @RequestBody TableWish wish) {
    List<Change> before = tables.changesOfTable(id);
    long newest = before.isEmpty() ? 0 : before.getFirst().seq();
    boolean there = tables.table(id).isPresent();
    if (there ? newest != wish.basedOn() : wish.basedOn() != 0) {
      throw new ApiProblem(
          HttpStatus.CONFLICT,
          "Changed meanwhile",
          there
              ? "Somebody else changed the table since you opened it. Open it again to see how."
              : "There is no such table any more.");
    }
    TableDefinition definition =
        TableReader.read(DocumentNode.parse(DocumentText.write(document(id, wish)))).definition();
    ReferenceTable table = TableCsv.read(wish.csv(), definition);
    users.requireUsable(table);
    ReferenceTable unused = tables.put(table, By.PERSON);
    users.refresh();
    return about(id);
  }

  private static SequencedMap<String, Object> document(String id, TableWish wish) {
    SequencedMap<String, Object> document = new LinkedHashMap<>();
    document.put("table", id);
    document.put("name", wish.name());
    document.put("keys", wish.keys());
    SequencedMap<String, Object> values = new LinkedHashMap<>();
    for (ColumnView column : wish.values()) {
      if (values.put(column.name(), column.type()) != null) {
        throw new IllegalArgumentException(
            "two columns of the table are called “" + column.name() + "”");
      }
    }
    document.put("values", values);
    document.put("ignore-case", wish.ignoreCase().isEmpty() ? "false" : wish.ignoreCase());
    if (!wish.notFound().isEmpty()) {
      SequencedMap<String, Object> use = new LinkedHashMap<>();
      use.put("use", wish.use());
      document.put("not-found", wish.notFound().equals("use") ? use : wish.notFound());
    }
    return document;
  }

  /** Takes a table away that no live bridge uses. */
  @DeleteMapping
  @ResponseStatus(HttpStatus.NO_CONTENT)
  void remove(@PathVariable String id) {
    ReferenceTable unused = table(id);
    Users.requireUnused(users.ofTable(id));
    tables.removeTable(id, By.PERSON);
  }

  /** The rows of a table as they were after a change. */
  record RowsThen(List<String> columns, String csv) {}

  /** The rows of a table as they were after a change. */
  @GetMapping("/changes/{seq}")
  RowsThen then(@PathVariable String id, @PathVariable long seq) {
    ReferenceTable then =
        tables
            .tableAfter(id, seq)
            .orElseThrow(() -> ApiProblem.notFound("kept change", String.valueOf(seq)));
    return new RowsThen(then.definition().columns(), TableCsv.write(then));
  }

  private ReferenceTable table(String id) {
    return tables.table(id).orElseThrow(() -> ApiProblem.notFound("reference table", id));
  }
}
