package org.ysthmos.standins.choretable;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.http.Page;
import org.ysthmos.standins.http.Refusal;
import org.ysthmos.standins.http.Reply;
import org.ysthmos.standins.http.Request;
import org.ysthmos.standins.http.Routes;
import org.ysthmos.standins.http.StandIn;
import org.ysthmos.standins.http.StandInServer;
import org.ysthmos.standins.store.RecordLog;

/**
 * Sheets of rows under headers, every cell a text as a person typed it. Rows are listed in numbered
 * pages, all of them each time; a cell can be written back; a sheet comes and goes as CSV (RFC
 * 4180).
 */
public final class ChoreTable implements StandIn {

  static final Map<String, List<String>> SHEETS = new LinkedHashMap<>();

  static {
    SHEETS.put("exhibitions", List.of("title", "opens", "curator", "house", "handbook"));
    SHEETS.put(
        "rounds",
        List.of(
            "round",
            "place",
            "every",
            "first",
            "lead",
            "lastDone",
            "crew",
            "note",
            "lastDue",
            "nextDue",
            "job"));
  }

  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final Page PAGE = new Page("Chore Table", "#6a6320");
  private static final int ROWS_ON_A_PAGE = 25;

  private final RecordLog rows;
  private final ControlledClock clock;
  private final StandInServer server;

  /**
   * @throws IOException if the port cannot be opened
   */
  public ChoreTable(int port, String token, Path data, ControlledClock clock) throws IOException {
    this.rows = new RecordLog(data.resolve("chore-table.ndjson"));
    this.clock = clock;
    Routes routes =
        new Routes()
            .open("GET", "/", request -> page())
            .open(
                "POST", "/sheets/{sheet}/rows", request -> PAGE.made(add(request, request.form())))
            .signedIn("GET", "/api/sheets/{sheet}/rows", this::list)
            .signedIn("POST", "/api/sheets/{sheet}/rows", this::addByApi)
            .signedIn(
                "GET", "/api/sheets/{sheet}/rows/{row}", request -> Reply.json(200, find(request)))
            .signedIn("PATCH", "/api/sheets/{sheet}/rows/{row}", this::write)
            .signedIn("DELETE", "/api/sheets/{sheet}/rows/{row}", this::remove)
            .signedIn("GET", "/api/sheets/{sheet}/csv", this::csv)
            .signedIn("POST", "/api/sheets/{sheet}/csv", this::takeCsv);
    this.server =
        new StandInServer(
            port, token, StandInServer.resource("/openapi/chore-table.json"), clock, routes);
  }

  @Override
  public ChoreTable start() {
    server.start();
    return this;
  }

  @Override
  public int port() {
    return server.port();
  }

  private static List<String> headers(Request request) {
    List<String> headers = SHEETS.get(request.slot("sheet"));
    if (headers == null) {
      throw new Refusal(404, "a sheet is one of " + String.join(", ", SHEETS.keySet()));
    }
    return headers;
  }

  private synchronized ObjectNode find(Request request) {
    headers(request);
    String row = request.slot("row");
    return rows.get(row)
        .filter(one -> one.path("sheet").asText().equals(request.slot("sheet")))
        .orElseThrow(() -> new Refusal(404, "there is no row “" + row + "”"));
  }

  private synchronized String add(Request request, Map<String, String> cells) {
    ObjectNode row = JSON.createObjectNode();
    row.put("id", request.slot("sheet").charAt(0) + "-" + (101 + rows.everKept()));
    row.put("sheet", request.slot("sheet"));
    ObjectNode values = row.putObject("cells");
    headers(request).forEach(header -> values.put(header, cells.getOrDefault(header, "")));
    keep(row);
    return row.path("id").asText();
  }

  private void keep(ObjectNode row) {
    row.put("edit", row.path("edit").asInt() + 1).put("editedAt", clock.instant().toString());
    rows.keep(row);
  }

  private Reply addByApi(Request request) {
    Map<String, String> cells = new LinkedHashMap<>();
    request.json().properties().forEach(cell -> cells.put(cell.getKey(), cell.getValue().asText()));
    String id = add(request, cells);
    synchronized (this) {
      return Reply.json(201, rows.get(id).orElseThrow());
    }
  }

  private synchronized Reply write(Request request) {
    ObjectNode row = find(request).deepCopy();
    ObjectNode cells = (ObjectNode) row.path("cells");
    for (var cell : request.json().properties()) {
      if (!headers(request).contains(cell.getKey())) {
        throw Refusal.ofField(cell.getKey(), "the sheet has no such column");
      }
      cells.put(cell.getKey(), cell.getValue().asText());
    }
    keep(row);
    return Reply.json(200, row);
  }

  private synchronized Reply remove(Request request) {
    rows.remove(find(request).path("id").asText());
    return Reply.empty();
  }

  private synchronized List<ObjectNode> rowsOf(String sheet) {
    return rows.all().stream().filter(row -> row.path("sheet").asText().equals(sheet)).toList();
  }

  private Reply list(Request request) {
    headers(request);
    int page;
    try {
      page = request.query("page").map(Integer::parseInt).orElse(1);
    } catch (NumberFormatException e) {
      throw new Refusal(400, "page is a number from 1");
    }
    ArrayNode items = JSON.createArrayNode();
    rowsOf(request.slot("sheet")).stream()
        .skip((page - 1L) * ROWS_ON_A_PAGE)
        .limit(ROWS_ON_A_PAGE)
        .forEach(items::add);
    return Reply.json(200, JSON.createObjectNode().set("rows", items));
  }

  private Reply csv(Request request) {
    List<String> headers = headers(request);
    List<String> lines = new ArrayList<>();
    lines.add(line(headers));
    for (ObjectNode row : rowsOf(request.slot("sheet"))) {
      lines.add(
          line(headers.stream().map(header -> row.path("cells").path(header).asText()).toList()));
    }
    return Reply.text("text/csv; charset=utf-8; header=present", String.join("", lines));
  }

  private static String line(List<String> cells) {
    return cells.stream()
            .map(
                cell ->
                    cell.matches("(?s).*[\",\\r\\n].*")
                        ? "\"" + cell.replace("\"", "\"\"") + "\""
                        : cell)
            .collect(Collectors.joining(","))
        + "\r\n";
  }

  private Reply takeCsv(Request request) {
    List<List<String>> lines = CsvLines.read(new String(request.body(), StandardCharsets.UTF_8));
    if (lines.isEmpty() || !lines.getFirst().equals(headers(request))) {
      throw new Refusal(422, "the first line names the columns: " + line(headers(request)).strip());
    }
    int added = 0;
    for (List<String> line : lines.subList(1, lines.size())) {
      Map<String, String> cells = new LinkedHashMap<>();
      for (int i = 0; i < Math.min(line.size(), headers(request).size()); i++) {
        cells.put(headers(request).get(i), line.get(i));
      }
      String unused = add(request, cells);
      added++;
    }
    return Reply.json(200, JSON.createObjectNode().put("added", added));
  }

  private Reply page() {
    StringBuilder html = new StringBuilder();
    SHEETS.forEach(
        (sheet, headers) -> {
          Map<String, String> fields = new LinkedHashMap<>();
          headers.forEach(header -> fields.put(header, header));
          html.append("<h2>").append(sheet).append("</h2>");
          html.append(
              Page.table(
                  headers,
                  rowsOf(sheet).stream()
                      .map(
                          row ->
                              headers.stream()
                                  .map(h -> Page.escape(row.path("cells").path(h).asText()))
                                  .toList())
                      .toList()));
          html.append(Page.form("/sheets/" + sheet + "/rows", fields, "Add a row"));
        });
    return PAGE.with(html.toString());
  }

  @Override
  public void close() {
    server.close();
  }
}
