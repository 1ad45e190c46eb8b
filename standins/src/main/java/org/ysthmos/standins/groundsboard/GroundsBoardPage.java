package org.ysthmos.standins.groundsboard;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.ysthmos.standins.http.StandInServer;

/** The page on which the crew sees its tasks and ticks them off. */
final class GroundsBoardPage {

  private GroundsBoardPage() {}

  private static final String PAGE =
      """
      <!doctype html>
      <html lang="en"><head><meta charset="utf-8"><title>Grounds Board: %1$s</title>
      <style>
        body{font:16px/1.45 Verdana,sans-serif;margin:1.5rem;color:#2a2118;background:#f6efe4}
        h1{font-size:1.4rem} h2{font-size:1.05rem;border-bottom:2px solid #a2672b;margin-top:1.6rem}
        article{background:#fff;margin:.6rem 0;padding:.6rem .8rem;border-left:5px solid #a2672b}
        article.done{opacity:.75;border-color:#7c8a6a} h3{font-size:1rem;margin:0}
        dl{display:grid;grid-template-columns:8rem 1fr;margin:.4rem 0;font-size:.85rem} dd{margin:0;white-space:pre-line}
        button{font:inherit;font-size:.85rem} ul{margin:0;padding-left:1.1rem}
      </style></head><body><main><h1>Grounds Board: %1$s</h1>%2$s</main></body></html>
      """;

  static String of(Board board, List<ObjectNode> tasks) {
    StringBuilder lanes = new StringBuilder();
    for (Board.Lane lane : board.lanes()) {
      lanes.append("<section><h2>").append(StandInServer.escape(lane.name())).append("</h2>");
      tasks.reversed().stream()
          .filter(task -> task.path("lane").asText().equals(lane.id()))
          .limit(200)
          .forEach(task -> lanes.append(article(board, task)));
      lanes
          .append("<details><summary>Call it otherwise</summary><form method=\"post\" action=\"")
          .append("/boards/%s/lanes/%s\">".formatted(board.id(), lane.id()))
          .append("<input name=\"name\" aria-label=\"New name of ")
          .append(StandInServer.escape(lane.name()))
          .append("\"> <button>Rename</button></form></details></section>");
    }
    lanes
        .append("<section><h2>Another board</h2><form method=\"post\" action=\"/boards\">")
        .append("<input name=\"name\" aria-label=\"Name of the new board\"> ")
        .append("<button>Make it</button></form></section>");
    return PAGE.formatted(StandInServer.escape(board.name()), lanes);
  }

  private static String article(Board board, JsonNode task) {
    boolean done = task.path("done").asBoolean();
    StringBuilder html = new StringBuilder();
    html.append("<article id=\"").append(text(task, "id")).append('"');
    html.append(done ? " class=\"done\">" : ">");
    html.append("<h3>").append(text(task, "title")).append("</h3><dl>");
    row(html, "Number", text(task, "id"));
    row(html, "Due", text(task, "due"));
    row(html, "Priority", text(task, "priority"));
    StringBuilder people = new StringBuilder();
    task.path("assignees")
        .forEach(
            id ->
                people.append(people.isEmpty() ? "" : ", ").append(Board.personName(id.asText())));
    row(html, "Given to", StandInServer.escape(people.toString()));
    row(html, "Notes", text(task, "notes"));
    StringBuilder checklist = new StringBuilder("<ul>");
    task.path("checklist")
        .forEach(
            item ->
                checklist
                    .append("<li>")
                    .append(StandInServer.escape(item.asText()))
                    .append("</li>"));
    row(html, "To check", checklist.append("</ul>").toString());
    html.append(
        "</dl>"
            + lanes(board, task)
            + "<form method=\"post\" action=\"/boards/%s/tasks/%s/tick\">"
                .formatted(board.id(), text(task, "id")));
    html.append("<button>").append(done ? "Open again" : "Tick off").append("</button>");
    return html.append("</form></article>").toString();
  }

  /** A task can be put into another lane, and called otherwise. */
  private static String lanes(Board board, JsonNode task) {
    StringBuilder options = new StringBuilder();
    for (Board.Lane lane : board.lanes()) {
      String selected = lane.id().equals(task.path("lane").asText()) ? " selected" : "";
      options.append(
          "<option value=\"%s\"%s>%s</option>"
              .formatted(lane.id(), selected, StandInServer.escape(lane.name())));
    }
    String at = "/boards/%s/tasks/%s".formatted(board.id(), text(task, "id"));
    return """
        <form method="post" action="%1$s/lane"><select name="lane" aria-label="Lane">%2$s</select><button>Put there</button></form>
        <form method="post" action="%1$s/title"><input name="title" aria-label="Title" value="%3$s"><button>Call it so</button></form>
        """
        .formatted(at, options, text(task, "title"));
  }

  private static void row(StringBuilder html, String name, String value) {
    html.append("<dt>").append(name).append("</dt><dd>").append(value).append("</dd>");
  }

  private static String text(JsonNode task, String field) {
    JsonNode value = task.path(field);
    return value.isNull() ? "" : StandInServer.escape(value.asText());
  }
}
