package org.ysthmos.core.reference;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.ysthmos.core.document.DocumentNode;

/** What a JSON Schema is put together from. */
final class SchemaParts {

  static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private SchemaParts() {}

  static ObjectNode text() {
    return JSON.objectNode().put("type", "string");
  }

  static ObjectNode whole() {
    return JSON.objectNode().put("type", "integer");
  }

  static ObjectNode flag() {
    return JSON.objectNode().put("type", "boolean");
  }

  static ObjectNode types(String... names) {
    ObjectNode schema = JSON.objectNode();
    ArrayNode types = schema.putArray("type");
    for (String name : names) {
      types.add(name);
    }
    return schema;
  }

  static ObjectNode words(Class<? extends Enum<?>> kind) {
    ObjectNode schema = JSON.objectNode();
    ArrayNode words = schema.putArray("enum");
    for (Enum<?> word : kind.getEnumConstants()) {
      words.add(DocumentNode.wordOf(word));
    }
    return schema;
  }

  static ObjectNode ref(String name) {
    return JSON.objectNode().put("$ref", "#/$defs/" + name);
  }

  static ObjectNode arrayOf(ObjectNode items) {
    return JSON.objectNode().put("type", "array").set("items", items);
  }

  static ObjectNode oneOf(ObjectNode... choices) {
    ObjectNode schema = JSON.objectNode();
    schema.putArray("oneOf").addAll(List.of(choices));
    return schema;
  }

  /** A group whose keys are names that people give. */
  static ObjectNode named(ObjectNode each, boolean ids) {
    ObjectNode schema = JSON.objectNode().put("type", "object");
    if (ids) {
      schema.set("propertyNames", ref("id"));
    }
    return schema.set("additionalProperties", each);
  }

  static Group group() {
    return new Group();
  }

  static Group group(String key, ObjectNode schema) {
    return new Group().and(key, schema);
  }

  /** A group with known keys and no others. */
  static final class Group {
    private final ObjectNode properties = JSON.objectNode();
    private final ArrayNode required = JSON.arrayNode();

    Group and(String key, ObjectNode schema) {
      properties.set(key, schema);
      return this;
    }

    Group with(ObjectNode more) {
      properties.setAll(more);
      return this;
    }

    Group required(String... keys) {
      for (String key : keys) {
        required.add(key);
      }
      return this;
    }

    ObjectNode node() {
      ObjectNode schema = JSON.objectNode().put("type", "object");
      schema.set("properties", properties);
      if (!required.isEmpty()) {
        schema.set("required", required);
      }
      return schema.put("additionalProperties", false);
    }
  }
}
