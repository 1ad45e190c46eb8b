package org.ysthmos.core.rehearsal;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.decide.World.PairState;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.rehearsal.Rehearsed.FieldDifference;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueJson;

/**
 * What was decided of an event, as much of it as is kept to be compared with what others decide.
 *
 * @param because why it was passed by or failed; empty otherwise
 * @param tasks what was made of each task, and of what comes after them
 */
public record Outcome(Verdict verdict, String because, List<Task> tasks) {

  public Outcome {
    tasks = List.copyOf(tasks);
  }

  /**
   * What was made of a task.
   *
   * @param member which of several; empty where there is one
   * @param key the hash of its match key
   * @param target the id of its record; empty while it was never made
   * @param kept all of its fields, written or not, as {@link ValueJson} writes them; read when they
   *     are asked for alone
   * @param keptBefore what those of them that were changed held until then
   */
  public record Task(
      String member,
      Verdict verdict,
      String key,
      Optional<String> target,
      JsonNode kept,
      JsonNode keptBefore) {

    /** How its pair stood once this was carried out. */
    public PairState after() {
      return state(ValueJson.readAll(kept));
    }

    /** How its pair stood before; empty if there was none. */
    Optional<PairState> before() {
      if (verdict == Verdict.CREATE) {
        return Optional.empty();
      }
      Map<String, Value> agreed = ValueJson.readAll(kept);
      agreed.putAll(ValueJson.readAll(keptBefore));
      return Optional.of(state(agreed));
    }

    private PairState state(Map<String, Value> agreed) {
      agreed.values().removeIf(value -> value == Nothing.NOTHING);
      return new PairState(Optional.of(target.orElse("made")), agreed);
    }

    /** The fields that a task holds otherwise than this. */
    List<FieldDifference> differences(TaskDecision now) {
      List<FieldDifference> found = new ArrayList<>();
      int common = 0;
      for (Map.Entry<String, Value> field : now.fields().entrySet()) {
        JsonNode then = kept.get(field.getKey());
        common += then == null ? 0 : 1;
        if (then == null
            ? field.getValue() != Nothing.NOTHING
            : !then.equals(ValueJson.write(field.getValue()))) {
          found.add(difference(field.getKey(), field.getValue()));
        }
      }
      if (common < kept.size()) {
        for (Map.Entry<String, JsonNode> field : kept.properties()) {
          if (!now.fields().containsKey(field.getKey())
              && ValueJson.read(field.getValue()) != Nothing.NOTHING) {
            found.add(difference(field.getKey(), Nothing.NOTHING));
          }
        }
      }
      return found;
    }

    private FieldDifference difference(String field, Value now) {
      JsonNode then = kept.get(field);
      return new FieldDifference(
          member, field, then == null ? Nothing.NOTHING : ValueJson.read(then), now);
    }
  }

  /**
   * @param pairs how a pair stood when it was decided
   */
  public static Outcome of(Decision decision, Function<MatchKey, Optional<PairState>> pairs) {
    return new Outcome(
        decision.verdict(),
        because(decision),
        decision.tasks().stream().map(task -> task(task, pairs)).toList());
  }

  /** Why an event was passed by or failed; empty otherwise. */
  static String because(Decision decision) {
    return decision.failures().isEmpty()
        ? decision.because()
        : decision.failures().getFirst().message();
  }

  private static Task task(TaskDecision task, Function<MatchKey, Optional<PairState>> pairs) {
    Map<String, Value> before = new LinkedHashMap<>();
    if (task.verdict() == Verdict.UPDATE) {
      Map<String, Value> agreed = pairs.apply(task.key()).map(PairState::agreed).orElse(Map.of());
      task.delivery()
          .ifPresent(
              written ->
                  written
                      .fields()
                      .keySet()
                      .forEach(
                          field -> before.put(field, agreed.getOrDefault(field, Nothing.NOTHING))));
    }
    return new Task(
        task.member(),
        task.verdict(),
        task.key().hash(),
        task.target(),
        ValueJson.writeAll(task.fields()),
        ValueJson.writeAll(before));
  }

  /** The task of a match key. */
  public Optional<Task> task(String key) {
    for (Task task : tasks) {
      if (task.key().equals(key)) {
        return Optional.of(task);
      }
    }
    return Optional.empty();
  }

  /** For keeping; see {@link #read}. */
  public ObjectNode write() {
    ObjectNode node = JsonNodeFactory.instance.objectNode().put("verdict", verdict.name());
    if (!because.isEmpty()) {
      node.put("because", because);
    }
    ArrayNode all = node.putArray("tasks");
    for (Task task : tasks) {
      ObjectNode one = all.addObject().put("verdict", task.verdict().name()).put("key", task.key());
      if (!task.member().isEmpty()) {
        one.put("member", task.member());
      }
      task.target().ifPresent(target -> one.put("target", target));
      one.set("fields", task.kept());
      if (!task.keptBefore().isEmpty()) {
        one.set("before", task.keptBefore());
      }
    }
    return node;
  }

  /**
   * @throws IllegalArgumentException if the node was not made by {@link #write}
   */
  public static Outcome read(JsonNode node) {
    List<Task> tasks = new ArrayList<>();
    for (JsonNode one : node.path("tasks")) {
      tasks.add(
          new Task(
              one.path("member").asText(""),
              Verdict.valueOf(one.path("verdict").asText()),
              one.path("key").asText(),
              one.has("target") ? Optional.of(one.get("target").asText()) : Optional.empty(),
              one.path("fields"),
              one.path("before")));
    }
    return new Outcome(
        Verdict.valueOf(node.path("verdict").asText()), node.path("because").asText(""), tasks);
  }
}
