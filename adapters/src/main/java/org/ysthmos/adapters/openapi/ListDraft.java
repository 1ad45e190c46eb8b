package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A call that lists records.
 *
 * @param path of the call
 * @param pointer where the list stands in the answer
 * @param items the schema of a record
 * @param query the names of its query parameters
 * @param others the other properties of the answer
 * @param linked whether a Link header comes with it
 */
record ListDraft(
    String path,
    String pointer,
    ObjectNode items,
    List<String> query,
    List<String> others,
    boolean linked) {

  /** Empty if the path lists no objects. */
  static Optional<ListDraft> of(OpenApiTree api, String path, JsonNode item) {
    JsonNode get = item.path("get");
    Optional<ObjectNode> answer = api.answer(get);
    if (answer.isEmpty()) {
      return Optional.empty();
    }
    List<String> query = new ArrayList<>();
    for (JsonNode parameter : api.parameters(item, get)) {
      if (parameter.path("in").asText().equals("query")) {
        query.add(parameter.path("name").asText());
      }
    }
    boolean linked = api.answerHeaders(get).stream().anyMatch("Link"::equalsIgnoreCase);
    Optional<ObjectNode> bare = objects(api, answer.get());
    if (bare.isPresent()) {
      return Optional.of(new ListDraft(path, "", bare.get(), query, List.of(), linked));
    }
    List<String> others = new ArrayList<>();
    answer.get().path("properties").fieldNames().forEachRemaining(others::add);
    for (String name : List.copyOf(others)) {
      Optional<ObjectNode> items =
          objects(api, api.schema(answer.get().path("properties").path(name)));
      if (items.isPresent()) {
        others.remove(name);
        return Optional.of(new ListDraft(path, "/" + name, items.get(), query, others, linked));
      }
    }
    return Optional.empty();
  }

  private static Optional<ObjectNode> objects(OpenApiTree api, ObjectNode schema) {
    if (!OpenApiTree.type(schema).equals("array")) {
      return Optional.empty();
    }
    return Optional.of(api.schema(schema.path("items"))).filter(items -> items.has("properties"));
  }
}
