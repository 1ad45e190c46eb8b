package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * A field of a record as a schema describes it.
 *
 * @param pointer its address in a record
 * @param type as system documents write it
 * @param names key to name, where the values are a few known ones
 * @param longest the most characters; 0 if nothing is said
 */
record FieldDraft(
    String pointer,
    String name,
    String type,
    boolean required,
    List<String> names,
    int longest,
    List<FieldDraft> fields) {

  private static final int DEEPEST = 4;

  /** What fields are wanted for. */
  enum Use {
    READ("writeOnly"),
    WRITTEN("readOnly");

    private final String without;

    Use(String without) {
      this.without = without;
    }

    /** OpenAPI 3.0 section 4.7.24, 3.1 by JSON Schema validation section 9.4. */
    boolean takes(JsonNode schema) {
      return !schema.path(without).asBoolean();
    }
  }

  /** All fields of an object, those of objects within it by their address. */
  static List<FieldDraft> of(OpenApiTree api, ObjectNode schema, Use use) {
    List<FieldDraft> fields = new ArrayList<>();
    collect(api, schema, "", 0, use, fields);
    return fields;
  }

  private static void collect(
      OpenApiTree api, ObjectNode schema, String at, int depth, Use use, List<FieldDraft> into) {
    List<String> required = new ArrayList<>();
    schema.path("required").forEach(one -> required.add(one.asText()));
    for (var property : schema.path("properties").properties()) {
      ObjectNode inner = api.schema(property.getValue());
      if (!use.takes(inner)) {
        continue;
      }
      String pointer = at + "/" + property.getKey().replace("~", "~0").replace("/", "~1");
      if (OpenApiTree.type(inner).equals("object") && depth < DEEPEST) {
        collect(api, inner, pointer, depth + 1, use, into);
      } else {
        one(api, pointer, property.getKey(), inner, depth, use)
            .map(field -> field.withRequired(at.isEmpty() && required.contains(property.getKey())))
            .ifPresent(into::add);
      }
    }
  }

  private FieldDraft withRequired(boolean needed) {
    return new FieldDraft(pointer, name, type, needed, names, longest, fields);
  }

  private static Optional<FieldDraft> one(
      OpenApiTree api, String pointer, String key, ObjectNode schema, int depth, Use use) {
    String name = words(key);
    List<String> names = new ArrayList<>();
    schema.path("enum").forEach(value -> names.add(value.asText()));
    int longest = schema.path("maxLength").asInt(0);
    return switch (OpenApiTree.type(schema)) {
      case "string", "" ->
          Optional.of(
              new FieldDraft(pointer, name, text(schema), false, names, longest, List.of()));
      case "integer", "number" -> Optional.of(simple(pointer, name, "number"));
      case "boolean" -> Optional.of(simple(pointer, name, "flag"));
      case "array" ->
          Optional.of(list(api, pointer, name, api.schema(schema.path("items")), depth, use));
      default -> Optional.empty();
    };
  }

  private static FieldDraft simple(String pointer, String name, String type) {
    return new FieldDraft(pointer, name, type, false, List.of(), 0, List.of());
  }

  private static FieldDraft list(
      OpenApiTree api, String pointer, String name, ObjectNode items, int depth, Use use) {
    if (OpenApiTree.type(items).equals("object") && depth < DEEPEST) {
      List<FieldDraft> fields = new ArrayList<>();
      collect(api, items, "", depth + 1, use, fields);
      if (!fields.isEmpty()) {
        return new FieldDraft(pointer, name, "list of record", false, List.of(), 0, fields);
      }
    }
    List<String> names = new ArrayList<>();
    items.path("enum").forEach(value -> names.add(value.asText()));
    return new FieldDraft(pointer, name, "list of " + element(items), false, names, 0, List.of());
  }

  private static String element(JsonNode items) {
    return switch (OpenApiTree.type(items)) {
      case "integer", "number" -> "number";
      case "boolean" -> "flag";
      default -> text(items);
    };
  }

  /** Formats as JSON Schema validation section 7.3 names them. */
  private static String text(JsonNode schema) {
    if (schema.has("enum")) {
      return "choice";
    }
    return switch (schema.path("format").asText()) {
      case "date" -> "day";
      case "date-time" -> "moment";
      case "uri", "url" -> "link";
      default -> "text";
    };
  }

  /** {@code changedAt} and {@code changed_at} as people would say it. */
  static String words(String key) {
    return key.replaceAll("([a-z0-9])([A-Z])", "$1 $2")
        .replaceAll("[_.-]+", " ")
        .strip()
        .toLowerCase(Locale.ROOT);
  }

  /**
   * As a document writes it.
   *
   * @param written whether it is a field that is written, whose values are keys then
   */
  Map<String, Object> document(boolean written) {
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("name", written ? capital(name) : name);
    // What is read is a text: the names of its values are known only where it is written.
    document.put("type", written ? type : type.replace("choice", "text"));
    if (required) {
      document.put("required", true);
    }
    if (written && longest > 0) {
      document.put("longest", longest);
    }
    if (written && !names.isEmpty()) {
      Map<String, String> named = new LinkedHashMap<>();
      names.forEach(value -> named.put(value, capital(words(value))));
      document.put("names", named);
    }
    if (!fields.isEmpty()) {
      Map<String, Object> inner = new LinkedHashMap<>();
      fields.forEach(field -> inner.put(field.pointer(), field.document(false)));
      document.put("fields", inner);
    }
    return document;
  }

  static String capital(String words) {
    return words.isEmpty()
        ? words
        : words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
  }
}
