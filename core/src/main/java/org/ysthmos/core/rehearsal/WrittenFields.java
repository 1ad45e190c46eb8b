package org.ysthmos.core.rehearsal;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueJson;

/**
 * Fields of a task as they are kept: one JSON object in UTF-8, each value as {@link ValueJson}
 * writes it. A value is read when it is asked for alone; that it is the same as another its bytes
 * say nearly always, at a fraction of what reading both would cost. Never changed.
 */
public final class WrittenFields {

  private static final ObjectMapper JSON = new JsonMapper();
  private static final JsonFactory FACTORY = JSON.getFactory();
  private static final int SOME_FIELDS = 1_000;

  static final WrittenFields NONE = of(Map.of());

  /**
   * A field and where its value stands in the bytes.
   *
   * @param to the byte behind it
   */
  private record Written(String name, int from, int to) {}

  private final byte[] bytes;

  /** Where the object begins. */
  private final int from;

  /** The byte behind it. */
  private final int to;

  /** In a list, since two tasks of the same rules mostly have them in the same order. */
  private final List<Written> fields;

  private WrittenFields(byte[] bytes, int from, int to, List<Written> fields) {
    this.bytes = bytes;
    this.from = from;
    this.to = to;
    this.fields = fields;
  }

  public static WrittenFields of(Map<String, Value> values) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream(SOME_FIELDS);
    List<Written> fields = new ArrayList<>(values.size());
    try (JsonGenerator json = FACTORY.createGenerator(bytes)) {
      json.writeStartObject();
      for (Map.Entry<String, Value> field : values.entrySet()) {
        json.writeFieldName(field.getKey());
        // What is written next begins behind the colon.
        int from = bytes.size() + json.getOutputBuffered() + 1;
        ValueJson.write(field.getValue(), json);
        fields.add(new Written(field.getKey(), from, bytes.size() + json.getOutputBuffered()));
      }
      json.writeEndObject();
    } catch (IOException e) {
      throw new UncheckedIOException("fields cannot be written as JSON", e);
    }
    return new WrittenFields(bytes.toByteArray(), 0, bytes.size(), fields);
  }

  /**
   * Reads what {@link #json} gave.
   *
   * @throws IllegalArgumentException if it is no JSON object
   */
  public static WrittenFields read(byte[] bytes) {
    try (JsonParser json = FACTORY.createParser(bytes)) {
      if (json.nextToken() != JsonToken.START_OBJECT) {
        throw new IllegalArgumentException("fields are kept as a JSON object");
      }
      return read(bytes, json);
    } catch (IOException e) {
      throw new IllegalArgumentException("fields cannot be read as JSON", e);
    }
  }

  /**
   * Reads an object within other JSON.
   *
   * @param bytes all of the JSON
   * @param json at the beginning of the object; it is left at its end
   */
  static WrittenFields read(byte[] bytes, JsonParser json) throws IOException {
    List<Written> fields = new ArrayList<>();
    int start = at(json.currentTokenLocation());
    while (json.nextToken() == JsonToken.FIELD_NAME) {
      String name = json.currentName();
      JsonToken unused = json.nextToken();
      int from = at(json.currentTokenLocation());
      JsonParser behind = json.skipChildren();
      fields.add(new Written(name, from, at(behind.currentLocation())));
    }
    return new WrittenFields(bytes, start, at(json.currentLocation()), fields);
  }

  private static int at(JsonLocation location) {
    return Math.toIntExact(location.getByteOffset());
  }

  boolean isEmpty() {
    return fields.isEmpty();
  }

  /**
   * A field that two tasks do not hold alike.
   *
   * @param other nothing if the other has no such field
   */
  record Differing(String name, Value own, Value other) {}

  /** Those that are not the same in both; a field that is not there is nothing. */
  List<Differing> differing(WrittenFields other) {
    List<Differing> differing = new ArrayList<>();
    int common = 0;
    for (int i = 0; i < fields.size(); i++) {
      Written own = fields.get(i);
      Written others = other.find(own.name(), i);
      common += others == null ? 0 : 1;
      if (others == null || !isWrittenAlike(own, other, others)) {
        addUnlessEqual(
            own.name(),
            value(own),
            others == null ? Nothing.NOTHING : other.value(others),
            differing);
      }
    }
    if (common < other.fields.size()) {
      for (Written others : other.fields) {
        if (find(others.name(), 0) == null) {
          addUnlessEqual(others.name(), Nothing.NOTHING, other.value(others), differing);
        }
      }
    }
    return differing;
  }

  /** The same value may have been written otherwise by an earlier version of the product. */
  private static void addUnlessEqual(
      String name, Value own, Value other, List<Differing> differing) {
    if (!own.equals(other)) {
      differing.add(new Differing(name, own, other));
    }
  }

  private boolean isWrittenAlike(Written own, WrittenFields other, Written others) {
    return Arrays.equals(bytes, own.from(), own.to(), other.bytes, others.from(), others.to());
  }

  /**
   * @param likely at which place it mostly stands
   */
  private @Nullable Written find(String name, int likely) {
    if (likely < fields.size() && fields.get(likely).name().equals(name)) {
      return fields.get(likely);
    }
    for (Written field : fields) {
      if (field.name().equals(name)) {
        return field;
      }
    }
    return null;
  }

  private Value value(Written field) {
    try {
      return ValueJson.read(JSON.readTree(bytes, field.from(), field.to() - field.from()));
    } catch (IOException e) {
      throw new UncheckedIOException("a kept value cannot be read as JSON", e);
    }
  }

  /** In the order in which they were written. */
  SequencedMap<String, Value> values() {
    SequencedMap<String, Value> values = new LinkedHashMap<>();
    fields.forEach(field -> values.put(field.name(), value(field)));
    return values;
  }

  /** As JSON in UTF-8. */
  public ByteBuffer json() {
    return ByteBuffer.wrap(bytes, from, to - from).asReadOnlyBuffer();
  }

  /**
   * As the next value of other JSON.
   *
   * @param written where that is written to
   */
  void write(JsonGenerator json, OutputStream written) throws IOException {
    // What stands before a value is written with it, so with none as well.
    json.writeRawValue("");
    json.flush();
    written.write(bytes, from, to - from);
  }

  @Override
  public boolean equals(@Nullable Object other) {
    return other instanceof WrittenFields fields && values().equals(fields.values());
  }

  @Override
  public int hashCode() {
    return values().hashCode();
  }

  @Override
  public String toString() {
    return values().toString();
  }
}
