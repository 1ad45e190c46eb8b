package org.ysthmos.app.desk.trial;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Explanation;
import org.ysthmos.core.document.DocumentProblem;
import org.ysthmos.core.reading.Made;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.shape.CollectionShape;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.Warned;

/** What leaves, field by field, with the way of each value. */
final class Leaving {

  /** A step in words, with the value after it for the sample in view. */
  record LeavingStep(String sentence, String value, String problem) {}

  /**
   * A target field with its rule.
   *
   * @param ruled whether the draft has a rule for it
   * @param start what the rule starts from
   * @param value what the task would hold; empty if nothing
   * @param shown the value as people call it, for keys of choices and people
   * @param problem why there is no value, or why the rule cannot be used
   */
  record LeavingField(
      String key,
      String name,
      String type,
      boolean required,
      boolean ruled,
      Map<String, String> names,
      String start,
      List<LeavingStep> steps,
      String value,
      String shown,
      String problem,
      List<String> warnings) {}

  private Leaving() {}

  /**
   * A group of field rules of a draft.
   *
   * @param path where the group stands in the document
   * @param ruled the fields that have a rule in it
   * @param compiled the rules as far as they could be compiled
   * @param of which ways of values are of these rules
   */
  record Rules(
      String path,
      CollectionShape target,
      Set<String> ruled,
      List<CompiledField> compiled,
      Predicate<Explanation.Lineage> of) {}

  static List<LeavingField> fields(
      Rules rules, List<DocumentProblem> problems, Optional<Decision> decision) {
    return rules.target().fields().stream()
        .map(field -> field(field, rules, problems, decision))
        .toList();
  }

  private static LeavingField field(
      FieldShape field, Rules rules, List<DocumentProblem> problems, Optional<Decision> decision) {
    Optional<Explanation.Lineage> lineage =
        decision.flatMap(
            made ->
                made.explanation().fields().stream()
                    .filter(rules.of())
                    .filter(one -> one.target().key().equals(field.key()))
                    .findFirst());
    Optional<CompiledField> compiled =
        rules.compiled().stream().filter(one -> one.target().key().equals(field.key())).findFirst();
    Computed result = lineage.map(Explanation.Lineage::result).orElse(Nothing.NOTHING);
    String refused =
        problems.stream()
            .filter(problem -> isOf(problem, rules.path(), field))
            .map(DocumentProblem::message)
            .findFirst()
            .orElse("");
    return new LeavingField(
        field.key(),
        field.name(),
        field.type().toString(),
        field.required(),
        rules.ruled().contains(field.key()),
        field.names(),
        lineage.map(one -> text(one.start())).orElse(""),
        compiled.map(one -> steps(one, lineage)).orElse(List.of()),
        refused.isEmpty() ? text(result) : "",
        refused.isEmpty() ? shown(field, result) : "",
        refused.isEmpty() ? problem(result) : refused,
        decision.map(made -> warnings(made, field)).orElse(List.of()));
  }

  private static boolean isOf(DocumentProblem problem, String group, FieldShape field) {
    String path = group + "/" + field.key();
    return problem.path().equals(path)
        || problem.path().startsWith(path + "/")
        || (problem.path().equals(group) && problem.message().contains("“" + field.key() + "”"));
  }

  /** The steps of the rule in order; one that was not reached has no value. */
  private static List<LeavingStep> steps(
      CompiledField field, Optional<Explanation.Lineage> lineage) {
    Deque<Explanation.StepValue> reached =
        new ArrayDeque<>(lineage.map(Explanation.Lineage::steps).orElse(List.of()));
    List<LeavingStep> steps = new ArrayList<>();
    for (String sentence : field.value().chain().sentences()) {
      while (!reached.isEmpty()
          && !reached.getFirst().sentence().equals(sentence)
          && reached.stream().anyMatch(step -> step.sentence().equals(sentence))) {
        reached.removeFirst();
      }
      boolean there = !reached.isEmpty() && reached.getFirst().sentence().equals(sentence);
      Computed value = there ? reached.removeFirst().value() : Nothing.NOTHING;
      steps.add(new LeavingStep(sentence, text(value), problem(value)));
    }
    return steps;
  }

  private static List<String> warnings(Decision decision, FieldShape field) {
    return decision.warnings().stream()
        .filter(warning -> warning.field().equals(field.key()))
        .map(Decision.Warning::message)
        .distinct()
        .toList();
  }

  static String text(Computed computed) {
    return computed instanceof Problem problem
        ? problem.found()
        : Made.shown(Warned.valueOf(computed).display());
  }

  static LeavingStep step(Explanation.StepValue step) {
    return new LeavingStep(step.sentence(), text(step.value()), problem(step.value()));
  }

  static String problem(Computed computed) {
    return computed instanceof Problem problem ? problem.message() : "";
  }

  /** Keys of choices and people by their names, as far as they are known. */
  static String shown(FieldShape field, Computed result) {
    if (result instanceof Problem) {
      return "";
    }
    return switch (Warned.valueOf(result)) {
      case ListValue list ->
          String.join(", ", list.items().stream().map(i -> field.nameOf(i.display())).toList());
      case Value value -> Made.shown(field.nameOf(value.display()));
    };
  }
}
