package org.ysthmos.app.sync;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.sync.Answer;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.ValueJson;

/** What a person said of a field on which both sides disagree, as it is kept. */
final class AnswerJson {

  private static final String WINS = "wins";
  private static final String TYPED = "typed";

  private AnswerJson() {}

  static byte[] write(Answer answer, ObjectMapper json) {
    ObjectNode node = json.createObjectNode();
    switch (answer) {
      case Answer.Wins wins -> node.put(WINS, Synced.word(wins.side()));
      case Answer.Both both -> {}
      case Answer.Typed typed -> node.set(TYPED, ValueJson.write(typed.left()));
    }
    return node.toString().getBytes(StandardCharsets.UTF_8);
  }

  static Answer read(byte[] kept, ObjectMapper json) {
    try {
      JsonNode node = json.readTree(kept);
      if (node.has(TYPED)) {
        return new Answer.Typed(ValueJson.read(node.get(TYPED)));
      }
      if (!node.has(WINS)) {
        return new Answer.Both();
      }
      boolean left = node.get(WINS).asText().equals(Synced.word(Side.LEFT));
      return new Answer.Wins(left ? Side.LEFT : Side.RIGHT);
    } catch (IOException e) {
      throw new UncheckedIOException("a kept answer cannot be read", e);
    }
  }
}
