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
import java.util.LinkedHashSet;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.sync.Both;
import org.ysthmos.core.sync.OnceWritten;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.ValueJson;

/** What both sides agree on once what is under way is written, as it is kept. */
final class OnceWrittenJson {

  private static final String HELD = "held";
  private static final String WRITES = "writes";
  private static final String AS_MADE = "asMade";
  private static final String OPEN = "open";
  private static final String WRITTEN = "written";
  private static final String PARTS = "parts";

  private OnceWrittenJson() {}

  static byte[] write(OnceWritten once, ObjectMapper json) {
    ObjectNode node = json.createObjectNode();
    for (Side side : Side.values()) {
      ObjectNode one = node.putObject(Synced.word(side));
      one.set(HELD, ValueJson.writeAll(once.held().of(side)));
      add(one.putArray(WRITES), once.writes().of(side));
      one.put(OPEN, once.open().contains(side)).put(WRITTEN, once.written().contains(side));
    }
    add(node.putArray(AS_MADE), once.asMade());
    once.parts().ifPresent(why -> node.put(PARTS, why));
    return node.toString().getBytes(StandardCharsets.UTF_8);
  }

  private static void add(ArrayNode into, Collection<String> texts) {
    texts.forEach(into::add);
  }

  static OnceWritten read(byte[] kept, ObjectMapper json) {
    try {
      JsonNode node = json.readTree(kept);
      return new OnceWritten(
          Both.by(side -> ValueJson.readAll(node.path(Synced.word(side)).path(HELD))),
          Both.by(side -> texts(node.path(Synced.word(side)).path(WRITES))),
          texts(node.path(AS_MADE)),
          sides(node, OPEN),
          sides(node, WRITTEN),
          Optional.ofNullable(node.path(PARTS).textValue()));
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
