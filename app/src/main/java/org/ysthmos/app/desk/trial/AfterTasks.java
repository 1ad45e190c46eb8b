package org.ysthmos.app.desk.trial;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.ysthmos.app.desk.trial.Leaving.LeavingField;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.bridge.CompiledEffect;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.shape.CollectionShape;

/** What comes after the tasks of a draft, each with its fields for the sample in view. */
final class AfterTasks {

  /**
   * Something that comes after the tasks.
   *
   * @param what what is done, as a sentence
   * @param done whether it would be done for the sample in view
   * @param because why it would not be; empty if it would
   * @param problem what is wrong with it as a whole; empty if nothing is
   */
  record AfterView(
      String name,
      String what,
      boolean done,
      String because,
      String problem,
      List<LeavingField> fields) {}

  private AfterTasks() {}

  static List<AfterView> of(
      ObjectNode draft,
      Catalog catalog,
      List<DocumentProblem> problems,
      Optional<BridgeVersion> bridge,
      Optional<Decision> decision) {
    List<AfterView> after = new ArrayList<>();
    for (Map.Entry<String, JsonNode> effect : draft.path("then").properties()) {
      place(draft, effect.getValue(), catalog)
          .ifPresent(
              target ->
                  after.add(
                      one(effect.getKey(), effect.getValue(), target, problems, bridge, decision)));
    }
    return after;
  }

  /** Where something is made or changed; empty while the draft says no place that is known. */
  static Optional<CollectionShape> place(ObjectNode draft, JsonNode part, Catalog catalog) {
    JsonNode to = part.path("to").isTextual() ? draft.path("from") : part.path("to");
    return catalog
        .collection(to.path("system").asText(), to.path("collection").asText())
        .map(CollectionShape::written);
  }

  private static AfterView one(
      String name,
      JsonNode effect,
      CollectionShape target,
      List<DocumentProblem> problems,
      Optional<BridgeVersion> bridge,
      Optional<Decision> decision) {
    Optional<CompiledEffect> compiled =
        bridge.flatMap(
            version ->
                version.then().stream().filter(one -> one.rule().name().equals(name)).findFirst());
    Optional<TaskDecision> decided =
        decision.flatMap(
            made ->
                made.tasks().stream()
                    .filter(task -> task.then() && task.member().equals(name))
                    .findFirst());
    Set<String> ruled = new LinkedHashSet<>();
    effect.path("fields").fieldNames().forEachRemaining(ruled::add);
    String path = "then/" + name;
    Leaving.Rules rules =
        new Leaving.Rules(
            path + "/fields",
            target,
            ruled,
            compiled.map(CompiledEffect::fields).orElse(List.of()),
            way -> !way.isOfTask() && way.member().endsWith(" " + name));
    return new AfterView(
        name,
        what(effect.path("to"), target),
        decided.flatMap(TaskDecision::delivery).isPresent(),
        decided.map(TaskDecision::because).orElse(""),
        problems.stream()
            .filter(problem -> isOf(problem, path))
            .map(DocumentProblem::message)
            .findFirst()
            .orElse(""),
        Leaving.fields(rules, problems, decision));
  }

  private static String what(JsonNode to, CollectionShape target) {
    if (to.isTextual()) {
      return "the record that it came from is changed";
    }
    return (to.has("record") ? "a %s that is there is changed at %s" : "a %s is made at %s")
        .formatted(target.recordWord(), target.systemName());
  }

  /** Whether a problem is of the whole, and not of one of its fields. */
  private static boolean isOf(DocumentProblem problem, String path) {
    return (problem.path().equals(path) || problem.path().startsWith(path + "/"))
        && !problem.path().startsWith(path + "/fields/");
  }
}
