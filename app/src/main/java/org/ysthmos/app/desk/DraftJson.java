package org.ysthmos.app.desk;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import org.springframework.http.HttpStatus;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.core.document.DocumentNode;

/** Bridge documents as JSON, with every scalar as the text it is written as. */
final class DraftJson {

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private DraftJson() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if the text is no YAML
   */
  static String of(String yaml) {
    return tree(DocumentNode.parse(yaml)).toString();
  }

  private static JsonNode tree(DocumentNode node) {
    if (node.isGroup()) {
      ObjectNode group = JSON.createObjectNode();
      node.group().forEach((key, inner) -> group.set(key, tree(inner)));
      return group;
    }
    if (node.isList()) {
      ArrayNode list = JSON.createArrayNode();
      node.list().forEach(inner -> list.add(tree(inner)));
      return list;
    }
    return JSON.getNodeFactory().textNode(node.text());
  }

  static ObjectNode parse(String json) {
    try {
      if (JSON.readTree(json) instanceof ObjectNode object) {
        return object;
      }
    } catch (JsonProcessingException e) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST, "No draft", "The draft is no JSON: " + e.getOriginalMessage(), e);
    }
    throw new ApiProblem(HttpStatus.BAD_REQUEST, "No draft", "A draft is a JSON object.");
  }

  static void requireObject(String json) {
    var unused = parse(json);
  }
}
