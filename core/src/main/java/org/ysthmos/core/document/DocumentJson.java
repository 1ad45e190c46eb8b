package org.ysthmos.core.document;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;

/** Documents as JSON, which every YAML reader reads. */
public final class DocumentJson {

  private DocumentJson() {}

  /** A document, or a part of one, with every scalar as text. */
  public static JsonNode of(DocumentNode node) {
    if (node.isGroup()) {
      ObjectNode group = JsonNodeFactory.instance.objectNode();
      node.group().forEach((key, inner) -> group.set(key, of(inner)));
      return group;
    }
    if (node.isList()) {
      ArrayNode list = JsonNodeFactory.instance.arrayNode();
      node.list().forEach(inner -> list.add(of(inner)));
      return list;
    }
    return JsonNodeFactory.instance.textNode(node.text());
  }
}
