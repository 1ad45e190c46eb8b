package org.ysthmos.app.dispatch;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.StringJoiner;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.reading.Made;
import org.ysthmos.core.value.Value;

/** All values that were seen while an event was decided, by which its trace can be found. */
final class SeenText {

  private SeenText() {}

  static String of(DecisionWriter.Deciding deciding) {
    StringJoiner text = new StringJoiner(" ");
    text.add(deciding.trace().id());
    text.add(deciding.event().id());
    text.add(deciding.event().record());
    text.add(deciding.decision().key().map(MatchKey::text).orElse(""));
    deciding.decision().tasks().stream()
        .flatMap(task -> task.fields().values().stream())
        .map(Value::display)
        .map(Made::shown)
        .forEach(text::add);
    add(deciding.event().data(), text);
    deciding.world().records().forEach(record -> add(record, text));
    return text.toString();
  }

  private static void add(JsonNode node, StringJoiner text) {
    if (node.isValueNode()) {
      text.add(node.asText());
    }
    node.forEach(inner -> add(inner, text));
  }
}
