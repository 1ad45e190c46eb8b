package org.ysthmos.app.desk.sample;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.CompiledLookup;
import org.ysthmos.core.bridge.Place;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.json.Pointer;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.suggest.SourceField;
import org.ysthmos.core.value.Nothing;

/** All fields that a bridge's rules can start from, each with what the samples hold in it. */
public final class SourceColumns {

  /** The fields of the event, or of one lookup. */
  public record Group(String title, List<SourceField> fields) {}

  private static final Map<String, String> ATTRIBUTES =
      Map.of(
          "id", "id of the event",
          "kind", "kind of event",
          "record", "id of the record",
          "time", "time of the event");

  private final List<Sample> samples;
  private final List<Decision> decisions;

  private SourceColumns(List<Sample> samples, List<Decision> decisions) {
    this.samples = samples;
    this.decisions = decisions;
  }

  /**
   * @param decisions what the bridge made of each sample, for what its lookups found
   */
  public static List<Group> of(
      BridgeVersion bridge, List<Sample> samples, List<Decision> decisions) {
    SourceColumns columns = new SourceColumns(samples, decisions);
    List<Group> groups = new ArrayList<>();
    groups.add(
        columns.group(
            "comes with the event",
            "",
            bridge.source().eventFields(),
            i -> samples.get(i).event().data()));
    for (CompiledLookup lookup : bridge.lookups()) {
      String name = lookup.rule().name();
      groups.add(
          columns.group(
              "looked up: " + lookup.shape().recordWord() + " of " + lookup.shape().systemName(),
              name,
              lookup.fields(),
              i -> columns.found(i, name)));
    }
    bridge.place().ifPresent(place -> groups.add(columns.place(bridge, place)));
    groups.add(columns.attributes());
    return groups;
  }

  /** What is said of the place that each sample came from. */
  private Group place(BridgeVersion bridge, Place any) {
    List<SequencedMap<String, Place.Said>> said = new ArrayList<>(samples.size());
    for (Sample sample : samples) {
      BridgeVersion view = bridge.seenFrom(sample.event().system(), sample.event().collection());
      said.add(view.place().orElse(any).known(view.source().name()));
    }
    List<SourceField> fields = new ArrayList<>();
    any.known("")
        .forEach(
            (name, one) ->
                fields.add(
                    new SourceField(
                        new Address(Address.PLACE, new Pointer(List.of(name))),
                        FieldShape.of("/" + name, any.shownName(name), one.type()),
                        said.stream().map(known -> held(known.get(name))).toList())));
    return new Group("about the place", fields);
  }

  private static JsonNode held(Place.@Nullable Said said) {
    return said == null || said.value() == Nothing.NOTHING
        ? MissingNode.getInstance()
        : TextNode.valueOf(said.value().display());
  }

  /** What every event says of itself, whatever comes with it. */
  private Group attributes() {
    List<SourceField> fields = new ArrayList<>();
    for (String attribute : Address.EVENT_ATTRIBUTES) {
      FieldShape shape =
          FieldShape.of(
              "/" + attribute,
              ATTRIBUTES.getOrDefault(attribute, attribute),
              BoundField.OfAttribute.type(attribute));
      List<JsonNode> held = new ArrayList<>(samples.size());
      for (Sample sample : samples) {
        held.add(TextNode.valueOf(attribute(sample.event(), attribute)));
      }
      fields.add(new SourceField(Address.parse(Address.EVENT + "/" + attribute), shape, held));
    }
    return new Group("about the event itself", fields);
  }

  private static String attribute(Event event, String attribute) {
    return switch (attribute) {
      case "id" -> event.id();
      case "kind" -> event.kind();
      case "record" -> event.record();
      default -> event.time().toString();
    };
  }

  private Group group(
      String title, String root, List<FieldShape> fields, IntFunction<JsonNode> record) {
    return new Group(title, fields.stream().map(f -> field(root, f, record)).toList());
  }

  private SourceField field(String root, FieldShape shape, IntFunction<JsonNode> record) {
    Pointer pointer = Pointer.parse(shape.key());
    List<JsonNode> held = new ArrayList<>(samples.size());
    for (int i = 0; i < samples.size(); i++) {
      held.add(pointer.in(record.apply(i)));
    }
    return new SourceField(new Address(root, pointer), shape, held);
  }

  private JsonNode found(int sample, String lookup) {
    return decisions.get(sample).answers().stream()
        .filter(answer -> answer.lookup().equals(lookup) && !answer.records().isEmpty())
        .findFirst()
        .map(answer -> answer.records().getFirst())
        .orElse(MissingNode.getInstance());
  }
}
