package org.ysthmos.core.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** What became another in a table, in words. */
public final class TableChange {

  private TableChange() {}

  /** For example {@code 2 rows added, 1 changed; called “Crews”}; what is the same is left out. */
  public static String words(ReferenceTable before, ReferenceTable after) {
    List<String> parts = new ArrayList<>();
    TableDefinition was = before.definition();
    TableDefinition is = after.definition();
    if (!was.name().equals(is.name())) {
      parts.add("called “" + is.name() + "”");
    }
    if (!was.columns().equals(is.columns()) || !was.values().equals(is.values())) {
      parts.add("columns " + String.join(", ", is.columns()));
    }
    if (!was.ignoreCase().equals(is.ignoreCase())) {
      parts.add(is.ignoreCase().isPresent() ? "case is ignored" : "case counts");
    }
    if (!was.notFound().equals(is.notFound())) {
      parts.add(
          is.notFound()
              .map(answer -> "if not found, " + answer.sentence())
              .orElse("rules say what not found means"));
    }
    rows(before, after, parts);
    return parts.isEmpty() ? "nothing changed" : String.join("; ", parts);
  }

  private static void rows(ReferenceTable before, ReferenceTable after, List<String> parts) {
    Map<List<String>, List<String>> was = cells(before);
    Map<List<String>, List<String>> is = cells(after);
    long added = is.keySet().stream().filter(key -> !was.containsKey(key)).count();
    long removed = was.keySet().stream().filter(key -> !is.containsKey(key)).count();
    long changed =
        is.entrySet().stream()
            .filter(row -> was.containsKey(row.getKey()))
            .filter(row -> !Objects.equals(was.get(row.getKey()), row.getValue()))
            .count();
    count(parts, added, "added");
    count(parts, changed, "changed");
    count(parts, removed, "removed");
  }

  private static Map<List<String>, List<String>> cells(ReferenceTable table) {
    Map<List<String>, List<String>> cells = new HashMap<>();
    for (ReferenceTable.Row row : table.rows()) {
      cells.put(row.keys(), row.values().stream().map(value -> value.display()).toList());
    }
    return cells;
  }

  private static void count(List<String> parts, long count, String what) {
    if (count > 0) {
      parts.add((count == 1 ? "1 row " : count + " rows ") + what);
    }
  }
}
