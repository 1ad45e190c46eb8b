package org.ysthmos.core.trial;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.World.SyncedPair;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.ValueJson;

/**
 * Two tasks that were a pair when an example was pinned.
 *
 * @param records their ids; one that was not made yet has none
 * @param agreed what both held when they last agreed
 */
public record PairOfThen(Both<Optional<String>> records, Agreed agreed) {

  private static final String AGREED = "agreed";

  static PairOfThen of(SyncedPair pair) {
    return new PairOfThen(pair.records(), pair.agreed());
  }

  /**
   * Reads {@code {"left": "b1", "right": "l1", "agreed": {"left": {…}, "right": {…}}}}.
   *
   * @throws IllegalArgumentException if neither task has an id
   */
  static PairOfThen read(JsonNode node) {
    Both<Optional<String>> records =
        Both.by(side -> Optional.ofNullable(node.path(Synced.word(side)).textValue()));
    if (records.left().isEmpty() && records.right().isEmpty()) {
      throw new IllegalArgumentException("a “pair” has the id of a task, as “left” or “right”");
    }
    JsonNode agreed = node.path(AGREED);
    return new PairOfThen(
        records,
        new Agreed(
            ValueJson.readAll(agreed.path(Synced.word(Side.LEFT))),
            ValueJson.readAll(agreed.path(Synced.word(Side.RIGHT)))));
  }

  JsonNode write() {
    ObjectNode node = JsonNodeFactory.instance.objectNode();
    ObjectNode both = JsonNodeFactory.instance.objectNode();
    for (Side side : Side.values()) {
      String word = Synced.word(side);
      records.of(side).ifPresent(id -> node.put(word, id));
      both.set(word, ValueJson.writeAll(side == Side.LEFT ? agreed.left() : agreed.right()));
    }
    node.set(AGREED, both);
    return node;
  }

  /** The pair that a bridge has of a record; empty if it is not one of these two. */
  Optional<SyncedPair> of(String bridge, Side side, String record) {
    Side began = records.left().isPresent() ? Side.LEFT : Side.RIGHT;
    return records.of(side).filter(record::equals).isEmpty()
        ? Optional.empty()
        : Optional.of(
            new SyncedPair(
                Synced.key(bridge, began, records.of(began).orElseThrow()),
                records,
                agreed,
                Map.of(),
                Optional.empty()));
  }
}
