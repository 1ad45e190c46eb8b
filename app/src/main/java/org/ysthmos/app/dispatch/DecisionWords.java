package org.ysthmos.app.dispatch;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.decide.ChoreLook;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.pair.MatchKey;

/** Decisions in the words of a story. */
final class DecisionWords {

  private DecisionWords() {}

  static String headline(Decision decision) {
    String key = decision.key().map(MatchKey::text).orElse("");
    return switch (decision.verdict()) {
      case CREATE, UPDATE, UNCHANGED ->
          decision.synced().isPresent()
              ? SyncedWords.headline(decision)
              : ofTasks(decision, key) + then(decision);
      case PASSED_BY ->
          decision.chore().filter(ChoreLook.Comes.class::isInstance).isPresent()
              ? "Decided: its row comes round"
              : "Decided: passed by";
      case FAILED -> "Could not be decided: " + decision.failures().getFirst().kind().words();
    };
  }

  private static String ofTasks(Decision decision, String key) {
    List<TaskDecision> tasks = tasks(decision);
    if (tasks.stream().allMatch(task -> task.verdict() == Verdict.UNCHANGED)) {
      return left(decision).isPresent()
          ? "Decided: the task of " + key + " is left as it is"
          : "Decided: unchanged, the task of " + key + " has it all already";
    }
    return several(tasks).orElseGet(() -> one(tasks.getFirst().verdict(), key));
  }

  /** The tasks without what comes after them. */
  private static List<TaskDecision> tasks(Decision decision) {
    return decision.tasks().stream().filter(task -> !task.then()).toList();
  }

  /** For example {@code ; then number-back, tell}; empty if nothing comes after. */
  private static String then(Decision decision) {
    List<String> names =
        decision.tasks().stream()
            .filter(task -> task.then() && task.delivery().isPresent())
            .map(TaskDecision::member)
            .toList();
    return names.isEmpty() ? "" : "; then " + String.join(", ", names);
  }

  /** Why the one task is left as it is, where that is not for having it all. */
  private static Optional<String> left(Decision decision) {
    List<TaskDecision> tasks = tasks(decision);
    return tasks.size() == 1
        ? Optional.of(tasks.getFirst().because()).filter(because -> !because.isEmpty())
        : Optional.empty();
  }

  private static String one(Verdict verdict, String key) {
    return verdict == Verdict.CREATE
        ? "Decided: a new task, there is none yet for " + key
        : "Decided: a change to the task of " + key;
  }

  /** For example {@code Decided: 2 tasks created, 1 unchanged}; empty where there is one task. */
  private static Optional<String> several(List<TaskDecision> tasks) {
    if (tasks.size() < 2) {
      return Optional.empty();
    }
    List<String> parts = new ArrayList<>();
    for (Verdict verdict : List.of(Verdict.CREATE, Verdict.UPDATE, Verdict.UNCHANGED)) {
      long count = tasks.stream().filter(t -> t.verdict() == verdict).count();
      if (count > 0) {
        parts.add(count + " to " + (verdict == Verdict.UNCHANGED ? "leave" : verdict.words()));
      }
    }
    return Optional.of("Decided: of " + tasks.size() + " tasks " + String.join(", ", parts));
  }

  static String detail(Decision decision) {
    return switch (decision.verdict()) {
      case CREATE, UPDATE ->
          counted(decision.explanation().tests().size(), "test") + " met, " + fields(decision);
      case UNCHANGED -> unchanged(decision);
      case PASSED_BY -> Words.capital(decision.because()) + ".";
      case FAILED -> failures(decision.failures());
    };
  }

  private static String unchanged(Decision decision) {
    if (decision.synced().isPresent()) {
      return decision.because().isEmpty()
          ? "Nothing is written."
          : Words.capital(decision.because()) + ".";
    }
    return left(decision)
        .map(because -> Words.capital(because) + ".")
        .orElseGet(() -> counted(decision.task().size(), "field") + " compared");
  }

  private static String fields(Decision decision) {
    int delivered = decision.deliveries().stream().mapToInt(d -> d.fields().size()).sum();
    return counted(delivered, "field") + " to deliver";
  }

  private static String failures(List<Failure> failures) {
    return failures.stream().map(Words::sentence).collect(Collectors.joining(" "));
  }

  static String counted(int count, String noun) {
    return count + " " + noun + (count == 1 ? "" : "s");
  }

  static String span(Duration span) {
    long seconds = Math.max(1, (span.toMillis() + 500) / 1000);
    return seconds < 120 ? seconds + " s" : (seconds + 30) / 60 + " min";
  }
}
