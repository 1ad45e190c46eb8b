package org.ysthmos.adapters.dav;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * The content lines of a calendar (RFC 5545 section 3.1). Some of them are replaced; all others
 * stay letter by letter, whatever they say, as no library writes everything as it was written.
 */
final class ContentLines {

  /** A line, with those that go on with it behind a space or a tab. */
  private static final Pattern BREAK = Pattern.compile("\r?\n(?![ \t])");

  private static final Pattern NAME_ENDS = Pattern.compile("[:;]");
  private static final String END_OF_LINE = "\r\n";

  private ContentLines() {}

  /**
   * The text with other lines in one of its components.
   *
   * @param component the name of the component, for example {@code VTODO}
   * @param at which of that name, from 0, of the first calendar
   * @param names which properties of it are replaced
   * @param lines what stands in it instead
   */
  static String replaced(
      String text, String component, int at, Set<String> names, List<String> lines) {
    List<String> written = new ArrayList<>();
    int depth = 0;
    int left = at + 1;
    boolean within = false;
    boolean placed = false;
    for (String line : BREAK.split(text.strip(), -1)) {
      String name = nameOf(line);
      boolean begins = name.equals("BEGIN");
      boolean ends = name.equals("END");
      if (begins && depth == 1 && isOf(line, component)) {
        left--;
        within = left == 0;
      }
      // Properties stand before the components within a component; some programs write them behind.
      if (within && !placed && depth == 2 && (begins || ends)) {
        written.addAll(lines);
        placed = true;
      }
      depth += (begins ? 1 : 0) - (ends ? 1 : 0);
      within = within && depth > 1;
      if (!(within && depth == 2 && names.contains(name))) {
        written.add(line);
      }
    }
    if (!placed || within) {
      throw new IllegalArgumentException("the calendar holds no whole " + component);
    }
    return String.join(END_OF_LINE, written) + END_OF_LINE;
  }

  /** The lines of properties that stand right in the first component of a name. */
  static List<String> of(String text, String component) {
    List<String> lines = new ArrayList<>();
    int depth = 0;
    for (String line : BREAK.split(text.strip(), -1)) {
      String name = nameOf(line);
      if (name.equals("BEGIN")) {
        depth++;
      } else if (name.equals("END")) {
        if (depth == 2 && isOf(line, component)) {
          break;
        }
        depth--;
      } else if (depth == 2) {
        lines.add(line);
      }
    }
    return lines;
  }

  /** The name of a property, without the group that some programs write before it. */
  private static String nameOf(String line) {
    String name = NAME_ENDS.split(line, 2)[0].strip();
    return name.substring(name.lastIndexOf('.') + 1).toUpperCase(Locale.ROOT);
  }

  private static boolean isOf(String line, String component) {
    return line.substring(line.indexOf(':') + 1).strip().equalsIgnoreCase(component);
  }
}
