package org.ysthmos.standins.choretable;

import java.util.ArrayList;
import java.util.List;

/** The lines of a CSV text (RFC 4180), quoted cells and line ends within them included. */
final class CsvLines {

  private CsvLines() {}

  static List<List<String>> read(String text) {
    List<List<String>> lines = new ArrayList<>();
    List<String> line = new ArrayList<>();
    StringBuilder cell = new StringBuilder();
    boolean quoted = false;
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (quoted && c == '"' && i + 1 < text.length() && text.charAt(i + 1) == '"') {
        cell.append('"');
        i++;
      } else if (c == '"') {
        quoted = !quoted;
      } else if (!quoted && c == ',') {
        line.add(cell.toString());
        cell.setLength(0);
      } else if (!quoted && c == '\n') {
        line.add(cell.toString().replaceFirst("\r$", ""));
        cell.setLength(0);
        lines.add(List.copyOf(line));
        line.clear();
      } else {
        cell.append(c);
      }
    }
    if (!cell.isEmpty() || !line.isEmpty()) {
      line.add(cell.toString());
      lines.add(List.copyOf(line));
    }
    return lines;
  }
}
