package org.ysthmos.app.desk;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import org.ysthmos.adapters.http.StoredText;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledLookup;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.shape.FieldShape;

/** What arrives, field by field, with the values of the sample in view and of the others. */
final class Arriving {

  /**
   * A source field.
   *
   * @param value what the sample in view holds; empty if nothing
   * @param filled how many of the samples looked at hold something
   * @param of how many samples were looked at
   * @param others a few other values that samples hold
   */
  record ArrivingField(
      String address,
      String name,
      String type,
      String value,
      int filled,
      int of,
      List<String> others) {}

  /** The fields of the event, of one lookup, or the named values. */
  record ArrivingGroup(String title, List<ArrivingField> fields) {}

  private static final int MOST_OTHERS = 4;
  private static final int LONGEST = 200;

  private final BridgeVersion bridge;
  private final List<Event> samples;
  private final List<Decision> decisions;
  private final int inView;

  Arriving(BridgeVersion bridge, List<Event> samples, List<Decision> decisions, int inView) {
    this.bridge = bridge;
    this.samples = samples;
    this.decisions = decisions;
    this.inView = inView;
  }

  List<ArrivingGroup> groups() {
    List<ArrivingGroup> groups = new ArrayList<>();
    groups.add(
        new ArrivingGroup(
            "comes with the event",
            bridge.source().eventFields().stream()
                .map(field -> view("", field, i -> samples.get(i).data()))
                .toList()));
    for (CompiledLookup lookup : bridge.lookups()) {
      String name = lookup.rule().name();
      groups.add(
          new ArrivingGroup(
              "looked up: " + lookup.shape().recordWord() + " of " + lookup.shape().systemName(),
              lookup.fields().stream()
                  .map(field -> view(name, field, i -> record(i, name)))
                  .toList()));
    }
    return groups;
  }

  private JsonNode record(int sample, String lookup) {
    return decisions.get(sample).answers().stream()
        .filter(answer -> answer.lookup().equals(lookup) && !answer.records().isEmpty())
        .findFirst()
        .map(answer -> answer.records().getFirst())
        .orElse(MissingNode.getInstance());
  }

  private ArrivingField view(String root, FieldShape field, IntFunction<JsonNode> record) {
    Pointer pointer = Pointer.parse(field.key());
    Map<String, Integer> values = new LinkedHashMap<>();
    String current = "";
    int filled = 0;
    for (int i = 0; i < samples.size(); i++) {
      JsonNode node = pointer.in(record.apply(i));
      String text = node.isMissingNode() || node.isNull() ? "" : StoredText.of(node);
      if (i == inView) {
        current = text;
      }
      if (!text.isBlank()) {
        filled++;
        values.merge(text, 1, Integer::sum);
      }
    }
    String shown = current;
    List<String> others =
        values.keySet().stream()
            .filter(value -> !value.equals(shown))
            .limit(MOST_OTHERS)
            .map(value -> Words.limited(value, LONGEST))
            .toList();
    return new ArrivingField(
        root + field.key(),
        field.name(),
        field.type().toString(),
        Words.limited(shown, LONGEST),
        filled,
        samples.size(),
        others);
  }
}
