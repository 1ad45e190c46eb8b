package org.ysthmos.app.desk.draft;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.springframework.http.HttpStatus;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.core.bridge.BridgeReader;
import org.ysthmos.core.bridge.BridgeWriter;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.document.DocumentJson;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.document.DocumentText;

/** Bridge documents as JSON, with every scalar as the text it is written as. */
public final class DraftJson {

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private DraftJson() {}

  /**
   * @throws org.ysthmos.core.document.DocumentException if the text is no YAML
   */
  public static String of(String yaml) {
    return DocumentJson.of(DocumentNode.parse(yaml)).toString();
  }

  /** A part of a document as its writer gives it, with every scalar as text. */
  public static JsonNode written(Object part) {
    return switch (part) {
      case Map<?, ?> group -> {
        ObjectNode node = JSON.createObjectNode();
        group.forEach((key, inner) -> node.set(String.valueOf(key), written(inner)));
        yield node;
      }
      case List<?> list -> {
        ArrayNode node = JSON.createArrayNode();
        list.forEach(item -> node.add(written(item)));
        yield node;
      }
      default -> JSON.getNodeFactory().textNode(String.valueOf(part));
    };
  }

  /** A draft as YAML: in the order of a bridge document if it can be read as one, else as it is. */
  public static String yaml(String json) {
    ObjectNode draft = parse(json);
    try {
      return BridgeWriter.write(BridgeReader.read(DocumentNode.parse(json)));
    } catch (DocumentException notYetABridge) {
      SequencedMap<String, Object> document = new LinkedHashMap<>();
      draft.properties().forEach(entry -> document.put(entry.getKey(), plain(entry.getValue())));
      return DocumentText.write(document);
    }
  }

  private static Object plain(JsonNode node) {
    if (node.isObject()) {
      SequencedMap<String, Object> group = new LinkedHashMap<>();
      node.properties().forEach(entry -> group.put(entry.getKey(), plain(entry.getValue())));
      return group;
    }
    if (node.isArray()) {
      List<Object> list = new ArrayList<>();
      node.forEach(item -> list.add(plain(item)));
      return list;
    }
    return node.asText();
  }

  public static ObjectNode parse(String json) {
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

  public static void requireObject(String json) {
    var unused = parse(json);
  }
}
