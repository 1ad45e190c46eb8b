package org.ysthmos.app.store;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Map;
import java.util.SequencedMap;
import java.util.TreeMap;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueJson;

/** Fields of tasks as they are kept: typed values as bytes, and texts as a system stores them. */
public final class KeptFields {

  private static final ObjectMapper JSON = new JsonMapper();

  private KeptFields() {}

  public static byte[] write(Map<String, Value> fields) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (JsonGenerator json = JSON.createGenerator(bytes)) {
      ValueJson.writeAll(fields, json);
    } catch (IOException e) {
      throw new UncheckedIOException("values cannot be written as JSON", e);
    }
    return bytes.toByteArray();
  }

  /**
   * @throws UncheckedIOException if it was not made by {@link #write}
   */
  public static SequencedMap<String, Value> read(byte[] kept) {
    try {
      return ValueJson.readAll(JSON.readTree(kept));
    } catch (IOException e) {
      throw new UncheckedIOException("kept values cannot be read", e);
    }
  }

  /** Texts by the keys of their fields. */
  public static String writeTexts(Map<String, String> texts) {
    return JSON.valueToTree(texts).toString();
  }

  /**
   * @throws UncheckedIOException if it was not made by {@link #writeTexts}
   */
  public static Map<String, String> readTexts(String kept) {
    try {
      Map<String, String> texts = new TreeMap<>();
      JSON.readTree(kept).properties().forEach(e -> texts.put(e.getKey(), e.getValue().asText()));
      return texts;
    } catch (JsonProcessingException e) {
      throw new UncheckedIOException("kept texts cannot be read", e);
    }
  }
}
