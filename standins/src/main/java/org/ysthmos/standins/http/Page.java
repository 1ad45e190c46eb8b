package org.ysthmos.standins.http;

import java.util.List;
import java.util.Map;
import java.util.StringJoiner;

/** Plain pages for people, with forms and tables, each stand-in in a colour of its own. */
public record Page(String title, String colour) {

  /**
   * @param main HTML that is safe already
   */
  public Reply with(String main) {
    return Reply.html(
        """
        <!doctype html>
        <html lang="en"><head><meta charset="utf-8"><title>%s</title>
        <meta name="viewport" content="width=device-width">
        <style>
          body{font:15px/1.5 Verdana,sans-serif;background:#f2f2ee;color:#22261f;margin:0}
          main{max-width:54rem;margin:1.5rem auto;background:#fff;padding:1.2rem 1.8rem;border-left:8px solid %s}
          h1{font-size:1.3rem;margin:0 0 .5rem} h2{font-size:1.05rem;margin:1.3rem 0 .3rem}
          label{display:block;margin:.7rem 0 .1rem} input,select,textarea{font:inherit;width:100%%;box-sizing:border-box;padding:.35rem}
          table{width:100%%;border-collapse:collapse} td,th{text-align:left;padding:.3rem .4rem;border-bottom:1px solid #d9dbd3;vertical-align:top}
          button{font:inherit;padding:.25rem .8rem;background:%s;color:#fff;border:0}
        </style></head><body><main><h1>%s</h1>%s</main></body></html>
        """
            .formatted(escape(title), colour, colour, escape(title), main));
  }

  /** The page that thanks, with the number of what was made. */
  public Reply made(String number) {
    return with(
        "<p>Kept under the number <b id=\"number\">%s</b>.</p><p><a href=\"/\">Back</a></p>"
            .formatted(escape(number)));
  }

  /**
   * @param fields name to label, in their order
   */
  public static String form(String action, Map<String, String> fields, String button) {
    StringJoiner html =
        new StringJoiner("", "<form method=\"post\" action=\"" + action + "\">", "</form>");
    fields.forEach(
        (name, label) ->
            html.add(
                "<label for=\"%1$s\">%2$s</label><textarea id=\"%1$s\" name=\"%1$s\" rows=\"1\"></textarea>"
                    .formatted(escape(name), escape(label))));
    return html.add("<p><button type=\"submit\">" + escape(button) + "</button></p>").toString();
  }

  /**
   * @param rows cells as HTML that is safe already
   */
  public static String table(List<String> heads, List<List<String>> rows) {
    StringJoiner html = new StringJoiner("", "<table><tr>", "</table>");
    heads.forEach(head -> html.add("<th>" + escape(head) + "</th>"));
    html.add("</tr>");
    for (List<String> row : rows) {
      html.add("<tr>");
      row.forEach(cell -> html.add("<td>" + cell + "</td>"));
      html.add("</tr>");
    }
    return html.toString();
  }

  public static String escape(String text) {
    return StandInServer.escape(text);
  }
}
