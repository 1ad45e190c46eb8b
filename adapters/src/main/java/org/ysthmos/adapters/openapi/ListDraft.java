package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.StringJoiner;

/**
 * A call that lists records.
 *
 * @param path of the call
 * @param pointer where the list stands in the answer
 * @param items the schema of a record
 * @param query the names of its query parameters
 * @param others the other properties of the answer
 * @param linked whether a Link header comes with it
 * @param asked the parameters that must be given, each with the values that it may have
 */
record ListDraft(
    String path,
    String pointer,
    ObjectNode items,
    List<String> query,
    List<String> others,
    boolean linked,
    SequencedMap<String, List<String>> asked) {

  /** The path with what must be given; a value that nobody knows is a slot. */
  String call() {
    StringJoiner query = new StringJoiner("&", "?", "").setEmptyValue("");
    asked.forEach(
        (name, values) ->
            query.add(name + "=" + (values.isEmpty() ? "{" + name + "}" : values.getFirst())));
    return path + query;
  }

  /** What a person should know of a parameter that must be given. */
  String words(String name) {
    List<String> values = Objects.requireNonNull(asked.get(name));
    if (values.isEmpty()) {
      return "Its list must be told “%s”: put a value in place of {%s}.".formatted(name, name);
    }
    String others = String.join(", ", values.subList(1, values.size()));
    return "Only those are listed whose “%s” is “%s”%s."
        .formatted(name, values.getFirst(), others.isEmpty() ? "" : "; there are also " + others);
  }

  /** Empty if the path lists no objects. */
  static Optional<ListDraft> of(OpenApiTree api, String path, JsonNode item) {
    JsonNode get = item.path("get");
    Optional<ObjectNode> answer = api.answer(get);
    if (answer.isEmpty()) {
      return Optional.empty();
    }
    List<String> query = new ArrayList<>();
    SequencedMap<String, List<String>> asked = new LinkedHashMap<>();
    for (JsonNode parameter : api.parameters(item, get)) {
      if (parameter.path("in").asText().equals("query")) {
        String name = parameter.path("name").asText();
        query.add(name);
        if (parameter.path("required").asBoolean()) {
          asked.put(name, values(api, parameter));
        }
      }
    }
    boolean linked = api.answerHeaders(get).stream().anyMatch("Link"::equalsIgnoreCase);
    Optional<ObjectNode> bare = objects(api, answer.get());
    if (bare.isPresent()) {
      return Optional.of(new ListDraft(path, "", bare.get(), query, List.of(), linked, asked));
    }
    List<String> others = new ArrayList<>();
    answer.get().path("properties").fieldNames().forEachRemaining(others::add);
    for (String name : List.copyOf(others)) {
      Optional<ObjectNode> items =
          objects(api, api.schema(answer.get().path("properties").path(name)));
      if (items.isPresent()) {
        others.remove(name);
        return Optional.of(
            new ListDraft(path, "/" + name, items.get(), query, others, linked, asked));
      }
    }
    return Optional.empty();
  }

  /** The values that a parameter may have, the one that is meant if nothing is said first. */
  private static List<String> values(OpenApiTree api, JsonNode parameter) {
    ObjectNode schema = api.schema(parameter.path("schema"));
    JsonNode inner =
        OpenApiTree.type(schema).equals("array") ? api.schema(schema.path("items")) : schema;
    Set<String> values = new LinkedHashSet<>();
    for (JsonNode likely :
        List.of(schema.path("default"), inner.path("default"), parameter.path("example"))) {
      if (likely.isValueNode() && !likely.isNull()) {
        values.add(likely.asText());
      }
    }
    inner.path("enum").forEach(value -> values.add(value.asText()));
    return List.copyOf(values);
  }

  private static Optional<ObjectNode> objects(OpenApiTree api, ObjectNode schema) {
    if (!OpenApiTree.type(schema).equals("array")) {
      return Optional.empty();
    }
    return Optional.of(api.schema(schema.path("items"))).filter(items -> items.has("properties"));
  }
}
