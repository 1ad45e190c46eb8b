package org.ysthmos.core.table;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Counts how often the keys of tables were asked for: which rows are used, and which keys are
 * unknown and how often they were met. Not safe for several threads.
 */
public final class TableTally {

  /** A key and how often it was asked for. */
  public record Counted(String table, List<String> keys, boolean found, int times) {}

  private record Use(String table, List<String> keys, boolean found) {}

  private final Map<Use, Integer> times = new LinkedHashMap<>();

  public void add(TableUse use) {
    times.merge(new Use(use.table(), use.keys(), use.found()), 1, Integer::sum);
  }

  /** The keys that a table did not have, the most frequent first, then as they were met. */
  public List<Counted> unknown() {
    return counted(false);
  }

  /** The keys that were found, the most frequent first, then as they were met. */
  public List<Counted> used() {
    return counted(true);
  }

  private List<Counted> counted(boolean found) {
    return times.entrySet().stream()
        .filter(entry -> entry.getKey().found() == found)
        .map(e -> new Counted(e.getKey().table(), e.getKey().keys(), found, e.getValue()))
        .sorted(Comparator.comparingInt(Counted::times).reversed())
        .toList();
  }
}
