package org.ysthmos.core.table;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.document.Nearest;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * The rows of a table as CSV (RFC 4180): a header with the columns' names, then a row a line. A
 * cell that is empty holds no value.
 */
public final class TableCsv {

  /** The most rows taken from one file. */
  public static final int MOST_ROWS = 100_000;

  private static final CSVFormat RFC_4180 = CSVFormat.RFC4180;
  private static final String BYTE_ORDER_MARK = "\uFEFF";

  private TableCsv() {}

  /**
   * The table with the rows of the file in place of its own. Columns may stand in any order; a file
   * with any mistake changes nothing.
   *
   * @throws DocumentException with every mistake found, each with its line
   */
  public static ReferenceTable read(String csv, TableDefinition definition) {
    List<DocumentProblem> problems = new ArrayList<>();
    String text = csv.startsWith(BYTE_ORDER_MARK) ? csv.substring(1) : csv;
    CSVFormat format = RFC_4180.builder().setHeader().setSkipHeaderRecord(true).get();
    try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
      Map<String, Integer> header = parser.getHeaderMap();
      checkHeader(header.keySet(), definition, problems);
      if (!problems.isEmpty()) {
        throw new DocumentException(problems);
      }
      Map<List<String>, Long> lineOf = new HashMap<>();
      List<ReferenceTable.Row> rows = new ArrayList<>();
      long line = parser.getCurrentLineNumber() + 1;
      for (CSVRecord record : parser) {
        if (rows.size() >= MOST_ROWS) {
          throw refuse(line, "", "a table takes at most " + MOST_ROWS + " rows");
        }
        if (record.size() != header.size()) {
          String message = "the row has %d cells, the header has %d";
          problems.add(problem(line, "", message.formatted(record.size(), header.size())));
        } else {
          row(record, definition, line, lineOf, problems).ifPresent(rows::add);
        }
        line = parser.getCurrentLineNumber() + 1;
      }
      if (!problems.isEmpty()) {
        throw new DocumentException(problems);
      }
      return ReferenceTable.of(definition, rows);
    } catch (IOException | UncheckedIOException | IllegalArgumentException e) {
      throw refuse(0, "", "this is no CSV: " + e.getMessage());
    }
  }

  private static void checkHeader(
      Set<String> header, TableDefinition definition, List<DocumentProblem> problems) {
    for (String column : header) {
      if (!definition.columns().contains(column)) {
        problems.add(problem(1, column, Nearest.unknown("column", column, definition.columns())));
      }
    }
    for (String column : definition.columns()) {
      if (!header.contains(column)) {
        problems.add(problem(1, column, "the column “" + column + "” is missing"));
      }
    }
  }

  private static Optional<ReferenceTable.Row> row(
      CSVRecord record,
      TableDefinition definition,
      long line,
      Map<List<String>, Long> lineOf,
      List<DocumentProblem> problems) {
    int before = problems.size();
    List<String> keys = new ArrayList<>();
    for (String column : definition.keys()) {
      String cell = record.get(column);
      if (cell.isBlank()) {
        problems.add(problem(line, column, "a key is empty"));
      }
      keys.add(cell);
    }
    Long earlier = lineOf.putIfAbsent(definition.folded(keys), line);
    if (earlier != null) {
      String key = String.join("” and “", keys);
      problems.add(
          problem(
              line,
              String.join(", ", definition.keys()),
              "the key “" + key + "” stands in line " + earlier + " already"));
    }
    List<Value> values = new ArrayList<>();
    definition
        .values()
        .forEach(
            (column, type) -> {
              String cell = record.get(column);
              try {
                values.add(cell.isEmpty() ? Nothing.NOTHING : Constant.parse(cell, type));
              } catch (IllegalArgumentException e) {
                problems.add(problem(line, column, String.valueOf(e.getMessage())));
              }
            });
    return problems.size() == before
        ? Optional.of(new ReferenceTable.Row(keys, values))
        : Optional.empty();
  }

  private static DocumentProblem problem(long line, String column, String message) {
    return new DocumentProblem(column, Math.toIntExact(line), 0, message);
  }

  private static DocumentException refuse(long line, String column, String message) {
    return new DocumentException(List.of(problem(line, column, message)));
  }

  /** One line, ended by CR LF as the RFC says. */
  public static String line(List<String> cells) {
    return RFC_4180.format(cells.toArray()) + "\r\n";
  }

  /** All rows, lines ended by CR LF as the RFC says; reading it again gives the same table. */
  public static String write(ReferenceTable table) {
    StringBuilder csv = new StringBuilder();
    CSVFormat format =
        RFC_4180.builder().setHeader(table.definition().columns().toArray(String[]::new)).get();
    try (CSVPrinter printer = new CSVPrinter(csv, format)) {
      for (ReferenceTable.Row row : table.rows()) {
        List<String> cells = new ArrayList<>(row.keys());
        row.values().forEach(value -> cells.add(value.display()));
        printer.printRecord(cells);
      }
    } catch (IOException e) {
      throw new UncheckedIOException("a text in memory refused to be written", e);
    }
    return csv.toString();
  }
}
