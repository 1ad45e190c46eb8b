package org.ysthmos.core.rehearsal;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SequencedMap;
import org.ysthmos.core.bridge.LookupRule;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.World.Question;

/** What lookups found, as JSON for keeping, so that who asks the same again is told the same. */
public final class AnswersJson {

  private AnswersJson() {}

  public static ArrayNode write(List<Decision.Answer> answers) {
    ArrayNode all = JsonNodeFactory.instance.arrayNode();
    answers.forEach(
        answer -> {
          ObjectNode one = all.addObject();
          one.set("question", write(answer.question()));
          one.putArray("records").addAll(answer.records());
        });
    return all;
  }

  /** What is asked, always written alike. */
  public static ObjectNode write(Question question) {
    ObjectNode node =
        JsonNodeFactory.instance
            .objectNode()
            .put("system", question.system())
            .put("collection", question.collection())
            .put("origin", question.origin().name());
    question.keys().forEach(node.putObject("keys")::put);
    return node;
  }

  /**
   * @throws IllegalArgumentException if the node was not made by {@link #write}
   */
  public static Map<Question, List<JsonNode>> read(JsonNode node) {
    Map<Question, List<JsonNode>> answers = new HashMap<>();
    for (JsonNode one : node) {
      JsonNode question = one.path("question");
      SequencedMap<String, String> keys = new LinkedHashMap<>();
      question
          .path("keys")
          .properties()
          .forEach(key -> keys.put(key.getKey(), key.getValue().asText()));
      List<JsonNode> records = new ArrayList<>();
      one.path("records").forEach(records::add);
      answers.put(
          new Question(
              question.path("system").asText(),
              question.path("collection").asText(),
              LookupRule.Origin.valueOf(question.path("origin").asText()),
              keys),
          records);
    }
    return answers;
  }
}
