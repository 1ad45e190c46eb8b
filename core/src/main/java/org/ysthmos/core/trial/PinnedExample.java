package org.ysthmos.core.trial;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.CloudEventJson;
import org.ysthmos.core.event.Event;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;

/**
 * An event with its expected result.
 *
 * @param name what the example is about
 * @param event the event
 * @param answers what each lookup found then, by the lookup's name
 * @param pair the two tasks that were a pair then, where a bridge goes both ways; empty if none
 *     were
 * @param verdict the expected verdict, in the words of the screens
 * @param fields for the fields that are expected, by task and field, the expected value as it is
 *     displayed; a field that is not named may be anything
 */
public record PinnedExample(
    String name,
    Event event,
    Map<String, List<JsonNode>> answers,
    Optional<PairOfThen> pair,
    String verdict,
    Map<String, Map<String, String>> fields) {

  /** What is not as expected. */
  public record Difference(String what, String expected, String found) {}

  /**
   * Reads a line such as {@code {"example": "…", "event": {…}, "answers": {"report": [{…}]},
   * "expected": {"verdict": "create", "fields": {"title": "…"}}}}; with several tasks {@code
   * "tasks": {"invite": {"title": "…"}}} in place of {@code fields}; of a bridge that goes both
   * ways with its {@code "pair"}, and the sides as tasks.
   *
   * @throws IllegalArgumentException if it is no example; the message says what is missing
   */
  public static PinnedExample read(JsonNode node) {
    JsonNode expected = node.path("expected");
    if (!expected.isObject() || !expected.path("verdict").isTextual()) {
      throw new IllegalArgumentException("an example says its “expected” verdict");
    }
    Map<String, List<JsonNode>> answers = new LinkedHashMap<>();
    node.path("answers")
        .properties()
        .forEach(
            entry -> {
              List<JsonNode> records = new ArrayList<>();
              entry.getValue().forEach(records::add);
              answers.put(entry.getKey(), records);
            });
    Map<String, Map<String, String>> fields = new LinkedHashMap<>();
    if (expected.has("fields")) {
      fields.put("", texts(expected.get("fields")));
    }
    expected.path("tasks").properties().forEach(e -> fields.put(e.getKey(), texts(e.getValue())));
    return new PinnedExample(
        node.path("example").asText("unnamed"),
        CloudEventJson.read(node.path("event")),
        answers,
        node.has("pair") ? Optional.of(PairOfThen.read(node.get("pair"))) : Optional.empty(),
        expected.get("verdict").asText(),
        fields);
  }

  private static Map<String, String> texts(JsonNode node) {
    Map<String, String> texts = new LinkedHashMap<>();
    node.properties().forEach(entry -> texts.put(entry.getKey(), entry.getValue().asText()));
    return texts;
  }

  /**
   * Pins an event with the answers that its lookups had in a decision, and with the result that it
   * has then while no task exists; of a bridge that goes both ways with its pair as it is.
   */
  public static PinnedExample pin(
      String name, Event event, Decision seen, BridgeVersion bridge, World world) {
    Map<String, List<JsonNode>> answers = new LinkedHashMap<>();
    seen.answers().forEach(answer -> answers.put(answer.lookup(), answer.records()));
    Optional<PairOfThen> pair =
        bridge
            .between()
            .flatMap(both -> both.sideOf(event.system(), event.collection()))
            .flatMap(side -> world.synced(bridge.definition().id(), side, event.record()))
            .map(PairOfThen::of);
    Decision decision =
        new PinnedExample(name, event, answers, pair, "", Map.of()).decide(bridge, world);
    Map<String, Map<String, String>> fields = new LinkedHashMap<>();
    for (TaskDecision task : decision.tasks()) {
      Map<String, String> shown = new LinkedHashMap<>();
      task.fields().forEach((field, value) -> shown.put(field, value.display()));
      fields.put(task.member(), shown);
    }
    return new PinnedExample(name, event, answers, pair, decision.verdict().words(), fields);
  }

  public JsonNode write() {
    ObjectNode node = JsonNodeFactory.instance.objectNode().put("example", name);
    node.set("event", CloudEventJson.write(event));
    ObjectNode found = node.putObject("answers");
    answers.forEach((lookup, records) -> found.putArray(lookup).addAll(records));
    pair.ifPresent(two -> node.set("pair", two.write()));
    ObjectNode expected = node.putObject("expected").put("verdict", verdict);
    ObjectNode tasks = JsonNodeFactory.instance.objectNode();
    fields.forEach((member, shown) -> shown.forEach(tasks.withObjectProperty(member)::put));
    if (tasks.has("")) {
      expected.set("fields", tasks.get(""));
    } else if (!tasks.isEmpty()) {
      expected.set("tasks", tasks);
    }
    return node;
  }

  /** What a decision has other than expected; none if the example holds. */
  public List<Difference> check(Decision decision) {
    List<Difference> differences = new ArrayList<>();
    if (!decision.verdict().words().equals(verdict)) {
      differences.add(new Difference("verdict", verdict, decision.verdict().words()));
    }
    fields.forEach(
        (member, expected) -> {
          Map<String, Value> found = found(decision, member);
          expected.forEach(
              (field, value) -> {
                String shown = found.getOrDefault(field, Nothing.NOTHING).display();
                if (!shown.equals(value)) {
                  String what = member.isEmpty() ? field : member + "/" + field;
                  differences.add(new Difference(what, value, shown));
                }
              });
        });
    return differences;
  }

  private static Map<String, Value> found(Decision decision, String member) {
    return decision.tasks().stream()
        .filter(task -> task.member().equals(member))
        .findFirst()
        .map(TaskDecision::fields)
        .orElse(Map.of());
  }

  /**
   * Decides the example with the answers that its lookups had then, and no pair but its own.
   *
   * @param world gives tables and calendars
   */
  public Decision decide(BridgeVersion bridge, World world) {
    return Decider.decide(bridge, event, answersOfThen(world), Mode.PLAIN);
  }

  /** The world of the example: what its lookups found then, and all else as it is now. */
  public World answersOfThen(World world) {
    return new AnswersOfThen(answers, pair, world);
  }
}
