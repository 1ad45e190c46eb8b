package org.ysthmos.core.value;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.io.SerializedString;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.util.TokenBuffer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;

/**
 * Values as JSON for keeping, without loss: an object with one member that names the type, for
 * example {@code {"day":"2026-11-30"}}. Numbers are kept as text, since a JSON number may lose
 * digits in readers that know only binary fractions.
 */
public final class ValueJson {

  private static final ObjectMapper JSON = new JsonMapper();

  /** The words of the types, in UTF-8 once and for all. */
  private static final Map<ValueType.Kind, SerializedString> NAMES =
      Arrays.stream(ValueType.Kind.values())
          .collect(
              Collectors.toMap(
                  kind -> kind,
                  kind -> new SerializedString(kind.word()),
                  (one, other) -> one,
                  () -> new EnumMap<>(ValueType.Kind.class)));

  private ValueJson() {}

  public static ObjectNode write(Value value) {
    return tree(json -> write(value, json));
  }

  /** Writes JSON. */
  @FunctionalInterface
  private interface Writing {
    void to(JsonGenerator json) throws IOException;
  }

  private static ObjectNode tree(Writing writing) {
    try (TokenBuffer tokens = new TokenBuffer(JSON, false)) {
      writing.to(tokens);
      return JSON.readTree(tokens.asParser());
    } catch (IOException e) {
      throw new UncheckedIOException("tokens in memory always make a tree", e);
    }
  }

  /** The same as the next value of other JSON, which costs less than a tree of it. */
  public static void write(Value value, JsonGenerator json) throws IOException {
    json.writeStartObject();
    switch (value) {
      case Link link -> {
        json.writeStringField("link", link.address().toString());
        json.writeStringField("label", link.label());
      }
      case ListValue list -> {
        json.writeStringField("of", list.element().toString());
        json.writeArrayFieldStart("list");
        for (Value item : list.items()) {
          write(item, json);
        }
        json.writeEndArray();
      }
      case Flag flag -> json.writeBooleanField("flag", flag.yes());
      case Nothing nothing -> json.writeBooleanField("nothing", true);
      case Text v -> put(json, v);
      case Decimal v -> put(json, v);
      case Day v -> put(json, v);
      case Moment v -> put(json, v);
      case Choice v -> put(json, v);
      case Person v -> put(json, v);
    }
    json.writeEndObject();
  }

  private static void put(JsonGenerator json, Value value) throws IOException {
    json.writeFieldName(NAMES.get(value.type().kind()));
    json.writeString(value.display());
  }

  /**
   * @throws IllegalArgumentException if the node was not made by {@link #write(Value)}
   */
  public static Value read(JsonNode node) {
    if (node.has("list")) {
      ValueType element = ValueType.parse(node.path("of").asText()).orElseThrow();
      List<Value> items =
          StreamSupport.stream(node.get("list").spliterator(), false).map(ValueJson::read).toList();
      return new ListValue(element, items);
    }
    if (node.has("link")) {
      return new Link(java.net.URI.create(node.get("link").asText()), node.path("label").asText());
    }
    Map.Entry<String, JsonNode> only =
        node.properties().stream()
            .findFirst()
            .orElseThrow(() -> new IllegalArgumentException("no value kept in " + node));
    String text = only.getValue().asText();
    return switch (only.getKey()) {
      case "text" -> new Text(text);
      case "number" -> new Decimal(new BigDecimal(text));
      case "flag" -> new Flag(only.getValue().booleanValue());
      case "day" -> Day.parse(text);
      case "moment" -> Moment.parse(text);
      case "choice" -> new Choice(text);
      case "person" -> new Person(text);
      case "nothing" -> Nothing.NOTHING;
      default -> throw new IllegalArgumentException("no value type is called " + only.getKey());
    };
  }

  public static ObjectNode writeAll(Map<String, Value> fields) {
    return tree(json -> writeAll(fields, json));
  }

  /** The same as the next value of other JSON. */
  public static void writeAll(Map<String, Value> fields, JsonGenerator json) throws IOException {
    json.writeStartObject();
    for (Map.Entry<String, Value> field : fields.entrySet()) {
      json.writeFieldName(field.getKey());
      write(field.getValue(), json);
    }
    json.writeEndObject();
  }

  /** The fields in the order in which they were written. */
  public static SequencedMap<String, Value> readAll(JsonNode node) {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    node.properties().forEach(entry -> fields.put(entry.getKey(), read(entry.getValue())));
    return fields;
  }
}
