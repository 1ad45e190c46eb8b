package org.ysthmos.adapters.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.json.Pointer;

/**
 * An OpenAPI description with its references followed. Only references within the document are: one
 * that leads elsewhere would have us call whatever somebody wrote down.
 */
final class OpenApiTree {

  private static final int DEEPEST = 12;
  static final List<String> METHODS = List.of("get", "post", "put", "patch", "delete");

  private final JsonNode root;

  OpenApiTree(JsonNode root) {
    this.root = root;
  }

  JsonNode root() {
    return root;
  }

  /** The node itself, or what it refers to; nothing where that is not in the document. */
  JsonNode follow(JsonNode node) {
    JsonNode found = node;
    for (int i = 0; found.has("$ref"); i++) {
      String ref = found.path("$ref").asText();
      if (i == DEEPEST || !ref.startsWith("#/")) {
        return MissingNode.getInstance();
      }
      found = Pointer.parse(ref.substring(1)).in(root);
    }
    return found;
  }

  /** Path to its item, in the order of the document. */
  Map<String, JsonNode> paths() {
    Map<String, JsonNode> paths = new LinkedHashMap<>();
    root.path("paths").properties().forEach(e -> paths.put(e.getKey(), follow(e.getValue())));
    return paths;
  }

  /** The parameters of an operation, those of its path included. */
  List<JsonNode> parameters(JsonNode item, JsonNode operation) {
    List<JsonNode> parameters = new ArrayList<>();
    item.path("parameters").forEach(one -> parameters.add(follow(one)));
    operation.path("parameters").forEach(one -> parameters.add(follow(one)));
    return parameters;
  }

  /** The schema of the JSON that a call answers with when all is well. */
  Optional<ObjectNode> answer(JsonNode operation) {
    for (var response : operation.path("responses").properties()) {
      if (response.getKey().startsWith("2")) {
        Optional<ObjectNode> schema = json(follow(response.getValue()));
        if (schema.isPresent()) {
          return schema;
        }
      }
    }
    return Optional.empty();
  }

  /** The headers that come with it. */
  List<String> answerHeaders(JsonNode operation) {
    List<String> headers = new ArrayList<>();
    for (var response : operation.path("responses").properties()) {
      if (response.getKey().startsWith("2")) {
        follow(response.getValue()).path("headers").fieldNames().forEachRemaining(headers::add);
      }
    }
    return headers;
  }

  /** The schema of the JSON that a call sends. */
  Optional<ObjectNode> body(JsonNode operation) {
    return json(follow(operation.path("requestBody")));
  }

  /** The schema of a refusal. */
  Optional<ObjectNode> refusal(JsonNode operation) {
    for (var response : operation.path("responses").properties()) {
      if (response.getKey().startsWith("4")) {
        Optional<ObjectNode> schema = json(follow(response.getValue()));
        if (schema.isPresent()) {
          return schema;
        }
      }
    }
    return Optional.empty();
  }

  private Optional<ObjectNode> json(JsonNode holder) {
    for (var content : holder.path("content").properties()) {
      if (content.getKey().contains("json")) {
        JsonNode schema = content.getValue().path("schema");
        return schema.isMissingNode() ? Optional.empty() : Optional.of(schema(schema));
      }
    }
    return Optional.empty();
  }

  /** A schema with its references followed and what {@code allOf} joins joined. */
  ObjectNode schema(JsonNode written) {
    return schema(written, 0);
  }

  private ObjectNode schema(JsonNode written, int depth) {
    ObjectNode merged = JsonNodeFactory.instance.objectNode();
    JsonNode found = follow(written);
    if (depth > DEEPEST || !found.isObject()) {
      return merged;
    }
    found.properties().forEach(e -> merged.set(e.getKey(), e.getValue()));
    merged.remove("allOf");
    for (JsonNode part : found.path("allOf")) {
      join(merged, schema(part, depth + 1));
    }
    // One of several is described by the first, which is better than by none.
    for (String choice : List.of("oneOf", "anyOf")) {
      JsonNode first = found.path(choice).path(0);
      if (!first.isMissingNode() && !merged.has("properties") && !merged.has("type")) {
        join(merged, schema(first, depth + 1));
      }
    }
    return merged;
  }

  private static void join(ObjectNode into, ObjectNode part) {
    part.properties()
        .forEach(
            e -> {
              JsonNode there = into.path(e.getKey());
              if (there.isObject() && e.getValue().isObject()) {
                ObjectNode both = there.deepCopy();
                e.getValue()
                    .properties()
                    .forEach(inner -> both.set(inner.getKey(), inner.getValue()));
                into.set(e.getKey(), both);
              } else if (there.isMissingNode()) {
                into.set(e.getKey(), e.getValue());
              } else if (there.isArray() && e.getValue().isArray()) {
                var both = JsonNodeFactory.instance.arrayNode();
                there.forEach(both::add);
                e.getValue().forEach(both::add);
                into.set(e.getKey(), both);
              }
            });
  }

  /** The type of a schema; in OpenAPI 3.1 it may be a list with {@code null} in it. */
  static String type(JsonNode schema) {
    JsonNode type = schema.path("type");
    if (type.isTextual()) {
      return type.textValue();
    }
    for (JsonNode one : type) {
      if (!one.asText().equals("null")) {
        return one.asText();
      }
    }
    return schema.has("properties") ? "object" : schema.has("items") ? "array" : "";
  }
}
