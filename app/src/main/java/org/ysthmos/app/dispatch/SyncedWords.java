package org.ysthmos.app.dispatch;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.ysthmos.app.trace.TraceStory.Line;
import org.ysthmos.app.trace.TraceStory.Mark;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.bridge.CompiledTwoWay;
import org.ysthmos.core.decide.Decision;
import org.ysthmos.core.decide.Synced;
import org.ysthmos.core.decide.TaskDecision;
import org.ysthmos.core.sync.FieldOutcome;
import org.ysthmos.core.sync.Side;
import org.ysthmos.core.value.Value;

/** What became of the fields of two tasks that are kept alike, in the words of a story. */
final class SyncedWords {

  private SyncedWords() {}

  static String headline(Decision decision) {
    Synced synced = decision.synced().orElseThrow();
    if (synced.parted().isPresent()) {
      return "Decided: the two are a pair no more";
    }
    List<String> written =
        decision.tasks().stream()
            .filter(task -> task.delivery().isPresent())
            .map(SyncedWords::written)
            .toList();
    String asked =
        synced.conflicts().isEmpty()
            ? ""
            : "a person says what is right in "
                + DecisionWords.counted(synced.conflicts().size(), "field");
    if (written.isEmpty()) {
      return asked.isEmpty() ? "Decided: both sides agree" : "Decided: " + asked;
    }
    return "Decided: " + String.join(", ", written) + (asked.isEmpty() ? "" : "; " + asked);
  }

  private static String written(TaskDecision task) {
    int fields = task.delivery().orElseThrow().fields().size();
    return task.target().isPresent()
        ? "%s of the %s changed".formatted(DecisionWords.counted(fields, "field"), task.member())
        : "made on the " + task.member();
  }

  /** A line for each field that is not as it was. */
  static List<Line> lines(DecisionWriter.Deciding deciding) {
    Optional<CompiledTwoWay> both = deciding.bridge().between();
    List<Line> lines = new ArrayList<>();
    deciding
        .decision()
        .synced()
        .ifPresent(
            synced ->
                synced
                    .outcomes()
                    .forEach(
                        outcome -> lines.add(line(outcome, both.orElseThrow(), deciding.start()))));
    return lines;
  }

  private static Line line(FieldOutcome outcome, CompiledTwoWay both, Instant at) {
    CompiledTwoWay.Field field =
        both.fields().stream()
            .filter(one -> one.rule().name().equals(outcome.field()))
            .findFirst()
            .orElseThrow();
    String name = Words.capital(outcome.field().replace('-', ' '));
    Mark mark =
        switch (outcome) {
          case FieldOutcome.Conflict any -> Mark.WAITING;
          case FieldOutcome.Waiting any -> Mark.WAITING;
          case FieldOutcome.Failed any -> Mark.FAILED;
          default -> Mark.DONE;
        };
    return new Line(
        at, 0, mark, name + ": " + what(outcome, both), detail(outcome, field), "", "", null);
  }

  private static String what(FieldOutcome outcome, CompiledTwoWay both) {
    return switch (outcome) {
      case FieldOutcome.Unchanged any -> "as it was";
      case FieldOutcome.Adopted any -> "both sides agree as they are";
      case FieldOutcome.Carried carried ->
          "changed at %s, goes to %s"
              .formatted(system(both, carried.to().across()), system(both, carried.to()));
      case FieldOutcome.Merged any -> "changed on both sides, brought together";
      case FieldOutcome.NotCarried not -> "changed at " + system(both, not.on()) + ", stays there";
      case FieldOutcome.Conflict any -> "a person says what is right";
      case FieldOutcome.Waiting waiting -> "changed at " + system(both, waiting.from()) + ", waits";
      case FieldOutcome.Failed failed ->
          "changed at " + system(both, failed.from()) + ", cannot be carried";
    };
  }

  private static String detail(FieldOutcome outcome, CompiledTwoWay.Field field) {
    return switch (outcome) {
      case FieldOutcome.Carried carried ->
          "“%s”%s"
              .formatted(
                  shown(field, carried.to(), carried.value()),
                  carried
                      .over()
                      .map(over -> " in place of “%s”".formatted(shown(field, carried.to(), over)))
                      .orElse(""));
      case FieldOutcome.NotCarried not -> Words.capital(not.because()) + ".";
      case FieldOutcome.Conflict conflict -> conflict.because() + ".";
      case FieldOutcome.Waiting waiting ->
          "%s; it follows once that is there.".formatted(waiting.on().because());
      case FieldOutcome.Failed failed -> Words.capital(failed.problem().message()) + ".";
      default -> "";
    };
  }

  private static String shown(CompiledTwoWay.Field field, Side side, Value value) {
    return field.at().of(side).shape().shown(value);
  }

  private static String system(CompiledTwoWay both, Side side) {
    return both.place(side).shape().systemName();
  }
}
