package org.ysthmos.core.table;

import java.util.List;

/**
 * That a decision asked a table.
 *
 * @param keys what was asked for, in the order of the key columns
 * @param found whether the table had it
 */
public record TableUse(String table, List<String> keys, boolean found) {
  public TableUse {
    keys = List.copyOf(keys);
  }
}
