package org.ysthmos.core.bridge;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.SequencedMap;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * One of the places that a bridge hears.
 *
 * @param id as the bridge's document, or its table, has it
 * @param collection the id of the collection that it is
 * @param row what the row of the table that names it says of it, by column; empty where no table
 *     does
 */
public record Place(String id, String collection, SequencedMap<String, Said> row) {

  /**
   * What a column says.
   *
   * @param type what the column holds
   * @param value of that type, or {@link Nothing}
   */
  public record Said(ValueType type, Value value) {

    static Said of(String text) {
      return new Said(ValueType.TEXT, Text.of(text));
    }
  }

  public Place {
    row = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(row));
  }

  /**
   * What rules can say of it, by what follows {@code place/}: its id, its name and its columns.
   *
   * @param name what people call it
   */
  public SequencedMap<String, Said> known(String name) {
    SequencedMap<String, Said> known = new LinkedHashMap<>(row);
    known.putIfAbsent("name", Said.of(name));
    known.put("id", Said.of(id));
    return known;
  }

  /** What people call a thing that is known of a place. */
  public String shownName(String known) {
    return row.containsKey(known) && !known.equals("id") ? known : known + " of the place";
  }

  /** What a column says as text; empty if it says nothing, or there is none. */
  String shown(String column) {
    return shown(row, column);
  }

  static String shown(SequencedMap<String, Said> row, String column) {
    Said said = row.get(column);
    return said == null || said.value() == Nothing.NOTHING ? "" : said.value().display();
  }
}
