package org.ysthmos.app.table;

import java.time.Instant;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.who.By;
import org.ysthmos.core.table.ReferenceTable;
import org.ysthmos.core.table.TableCsv;
import org.ysthmos.core.table.TableDefinition;
import org.ysthmos.core.value.Value;

/** Reading reference tables, and exporting and importing their rows as CSV. */
@RestController
@RequestMapping("/api/tables")
class TableController {

  /** A table in a list. */
  record TableSummary(String id, String name, List<String> keys, int rows, int unknownKeys) {}

  /**
   * A key that rules asked for.
   *
   * @param times how often
   */
  record AskedKey(List<String> keys, long times, Instant last) {}

  /** A table with what rules asked it for. */
  record TableView(
      TableSummary table,
      List<String> columns,
      List<List<String>> rows,
      List<AskedKey> unknown,
      List<AskedKey> used) {}

  private final Tables tables;
  private final TableUsers users;

  TableController(Tables tables, TableUsers users) {
    this.tables = tables;
    this.users = users;
  }

  @GetMapping(produces = MediaType.APPLICATION_JSON_VALUE)
  List<TableSummary> all() {
    return tables.all().keySet().stream().sorted().map(id -> summary(table(id))).toList();
  }

  @GetMapping(path = "/{id}", produces = MediaType.APPLICATION_JSON_VALUE)
  TableView one(@PathVariable String id) {
    return view(table(id));
  }

  @GetMapping(path = "/{id}/rows", produces = "text/csv")
  String rows(@PathVariable String id) {
    return TableCsv.write(table(id));
  }

  @PutMapping(
      path = "/{id}/rows",
      consumes = "text/csv",
      produces = MediaType.APPLICATION_JSON_VALUE)
  TableView replaceRows(@PathVariable String id, @RequestBody String csv) {
    ReferenceTable wanted = TableCsv.read(csv, table(id).definition());
    users.requireUsable(wanted);
    ReferenceTable kept = tables.put(wanted, By.PERSON);
    users.refresh();
    return view(kept);
  }

  private ReferenceTable table(String id) {
    return tables.table(id).orElseThrow(() -> ApiProblem.notFound("reference table", id));
  }

  private TableSummary summary(ReferenceTable table) {
    TableDefinition definition = table.definition();
    int unknown = asked(definition.id(), false).size();
    return new TableSummary(
        definition.id(), definition.name(), definition.keys(), table.rows().size(), unknown);
  }

  private TableView view(ReferenceTable table) {
    String id = table.definition().id();
    return new TableView(
        summary(table),
        table.definition().columns(),
        table.rows().stream().map(TableController::cells).toList(),
        asked(id, false),
        asked(id, true));
  }

  private static List<String> cells(ReferenceTable.Row row) {
    return Stream.concat(row.keys().stream(), row.values().stream().map(Value::display)).toList();
  }

  private List<AskedKey> asked(String id, boolean found) {
    return tables.asked(id).stream()
        .filter(asked -> asked.found() == found)
        .map(asked -> new AskedKey(asked.keys(), asked.times(), asked.last()))
        .toList();
  }
}
