package org.ysthmos.app.sync;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.sync.Agreed;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueJson;

/**
 * What both sides agree on once what is under way is written, with how far that is. A field that is
 * written to both sides is agreed on only once both are written: were it sooner, the one that was
 * not would count as changed, and undo the other.
 */
final class KeptOnceWritten {

  private final Both<Map<String, Value>> held;
  private final Both<Set<String>> writes;
  private final Set<String> asMade;
  private final Set<Side> open;
  private final Set<Side> written;

  private KeptOnceWritten(
      Both<Map<String, Value>> held,
      Both<Set<String>> writes,
      Set<String> asMade,
      Set<Side> open,
      Set<Side> written) {
    this.held = held;
    this.writes = writes;
    this.asMade = asMade;
    this.open = open;
    this.written = written;
  }

  /**
   * @param to the sides to which something is on its way
   */
  static KeptOnceWritten of(Synced.OnceWritten once, Collection<Side> to) {
    Set<Side> open = EnumSet.noneOf(Side.class);
    open.addAll(to);
    return new KeptOnceWritten(
        Both.by(side -> new HashMap<>(once.held().of(side))),
        once.writes(),
        once.asMade(),
        open,
        EnumSet.noneOf(Side.class));
  }

  /**
   * What was sent to a side was written.
   *
   * @param stored what that side holds now, by the names of the fields, as far as it is known
   */
  void written(Side side, Map<String, Value> stored) {
    open.remove(side);
    written.add(side);
    writes.of(side).forEach(field -> held.of(side).computeIfPresent(field, stored::getOrDefault));
    asMade.forEach(field -> held.of(side).put(field, stored.getOrDefault(field, Nothing.NOTHING)));
  }

  /** The fields whose values a side is to tell once it is written. */
  Set<String> wanted(Side side) {
    Set<String> wanted = new LinkedHashSet<>(writes.of(side));
    wanted.addAll(asMade);
    return wanted;
  }

  /** What was sent to a side was not written. */
  void notWritten(Side side) {
    open.remove(side);
  }

  boolean isOver() {
    return open.isEmpty();
  }

  /** What both agree on by now; once it is over. */
  Agreed agreed(Agreed before) {
    return before.with(of(Side.LEFT), of(Side.RIGHT));
  }

  private Map<String, Value> of(Side side) {
    Map<String, Value> values = new HashMap<>(held.of(side));
    values.keySet().removeIf(field -> !isWritten(field));
    return values;
  }

  private boolean isWritten(String field) {
    for (Side to : Side.values()) {
      boolean made = asMade.contains(field) && !writes.of(to).isEmpty();
      if ((made || writes.of(to).contains(field)) && !written.contains(to)) {
        return false;
      }
    }
    return true;
  }

  byte[] write(ObjectMapper json) {
    ObjectNode node = json.createObjectNode();
    for (Side side : Side.values()) {
      ObjectNode one = node.putObject(Synced.word(side));
      one.set("held", ValueJson.writeAll(held.of(side)));
      add(one.putArray("writes"), writes.of(side));
      one.put("open", open.contains(side)).put("written", written.contains(side));
    }
    add(node.putArray("asMade"), asMade);
    return node.toString().getBytes(StandardCharsets.UTF_8);
  }

  private static void add(ArrayNode into, Collection<String> texts) {
    texts.forEach(into::add);
  }

  static KeptOnceWritten read(byte[] kept, ObjectMapper json) {
    try {
      JsonNode node = json.readTree(kept);
      return new KeptOnceWritten(
          Both.by(side -> ValueJson.readAll(node.path(Synced.word(side)).path("held"))),
          Both.by(side -> texts(node.path(Synced.word(side)).path("writes"))),
          texts(node.path("asMade")),
          sides(node, "open"),
          sides(node, "written"));
    } catch (IOException e) {
      throw new UncheckedIOException("what is agreed on once it is written cannot be read", e);
    }
  }

  private static Set<String> texts(JsonNode array) {
    Set<String> texts = new LinkedHashSet<>();
    array.forEach(text -> texts.add(text.asText()));
    return texts;
  }

  private static Set<Side> sides(JsonNode node, String flag) {
    Set<Side> sides = EnumSet.noneOf(Side.class);
    for (Side side : Side.values()) {
      if (node.path(Synced.word(side)).path(flag).asBoolean()) {
        sides.add(side);
      }
    }
    return sides;
  }
}
