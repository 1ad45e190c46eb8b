package org.ysthmos.core.decide;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.condition.CompiledCondition.TestResult;
import org.ysthmos.core.decide.Explanation.Lineage;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.rule.CompiledField;
import org.ysthmos.core.rule.CompiledValue;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Problem;

/** What is taken down while one event is decided: failures, warnings, and the way of each value. */
final class DecisionNotes {

  private final List<Failure> failures = new ArrayList<>(0);
  private final List<Decision.Warning> warnings = new ArrayList<>(0);
  private final @Nullable Explained explained;

  private record Explained(List<TestResult> tests, List<Lineage> named, List<Lineage> fields) {}

  DecisionNotes(Mode mode) {
    explained =
        mode == Mode.EXPLAINED
            ? new Explained(new ArrayList<>(), new ArrayList<>(0), new ArrayList<>())
            : null;
  }

  void fail(Failure failure) {
    failures.add(failure);
  }

  List<Failure> failures() {
    return failures;
  }

  List<Decision.Warning> warnings() {
    return warnings;
  }

  /** Where tests are told; null in plain mode. */
  @Nullable List<TestResult> tests() {
    return explained == null ? null : explained.tests();
  }

  Explanation explanation() {
    return explained == null
        ? Explanation.NONE
        : new Explanation(explained.tests(), explained.named(), explained.fields());
  }

  static Failure mapping(String field, Problem problem) {
    return Failure.of(FailureKind.MAPPING_ERROR, field + ": " + problem.message())
        .withField(field, problem.found())
        .withRemedy(problem.remedy());
  }

  /** Computes a field of a task; nothing known of it is lost. */
  Computed field(CompiledField field, String member, Reading reading) {
    Chain.Warnings warned =
        warning -> warnings.add(new Decision.Warning(member, field.target().key(), warning));
    if (explained == null) {
      return field.compute(reading, warned, null);
    }
    WayOfValue way = new WayOfValue();
    Computed result = field.compute(reading, warned, way);
    explained.fields().add(way.lineage(member, field.target(), field.reads(), reading, result));
    return result;
  }

  /** Computes a value that the bridge names. */
  Computed named(CompiledValue value, String name, Reading reading) {
    Chain.Warnings warned =
        warning -> warnings.add(new Decision.Warning("", "values/" + name, warning));
    if (explained == null) {
      return value.compute(reading, warned, null);
    }
    WayOfValue way = new WayOfValue();
    Computed result = value.compute(reading, warned, way);
    FieldShape shape = FieldShape.of(name, name, value.gives());
    explained.named().add(way.lineage("", shape, value.reads(), reading, result));
    return result;
  }
}
