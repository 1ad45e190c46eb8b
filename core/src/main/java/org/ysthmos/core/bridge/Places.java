package org.ysthmos.core.bridge;

import java.util.List;
import java.util.Optional;
import org.ysthmos.core.shape.PlaceId;
import org.ysthmos.core.table.TableDefinition;

/**
 * Which places of its system a bridge hears, where it hears several. All of them stand in the
 * document or in a table, so that none is ever heard because it appeared.
 *
 * @param of what its system's document calls them, where it describes many places alike; empty for
 *     collections that are described one by one
 * @param how by what they are named
 * @param named the ids of those that the document names, in order; none where a table does
 * @param table the id of the table that names them; empty where the document does
 * @param column the column of the table in which the ids stand; empty for its one key
 * @param leftOut the ids of those that a person did not want, so that they are not offered again
 */
public record Places(
    Optional<String> of,
    How how,
    List<String> named,
    String table,
    String column,
    List<String> leftOut) {

  /** By what the places are named. */
  public enum How {
    /** These and no others; none is offered. */
    NAMED,
    /** All that there are: one that appears is offered. */
    ALL,
    /** Those of a table's rows: one that appears is offered as a row. */
    TABLE
  }

  public Places {
    named = List.copyOf(named);
    leftOut = List.copyOf(leftOut);
  }

  /** Whether a place that appears is offered. */
  public boolean offers() {
    return how != How.NAMED;
  }

  /** The id of the collection that a place is. */
  public String collection(String id) {
    return of.map(many -> new PlaceId(many, id).collection()).orElse(id);
  }

  /** The column of their table in which the ids stand. */
  public String columnOf(TableDefinition names) {
    return column.isEmpty() ? names.keys().getFirst() : column;
  }

  /** The same with other places named, or others left out. */
  public Places with(List<String> nowNamed, List<String> nowLeftOut) {
    return new Places(of, how, nowNamed, table, column, nowLeftOut);
  }
}
