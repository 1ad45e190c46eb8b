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
final class DecisionNotes implements Chain.Warnings {

  private final List<Failure> failures = new ArrayList<>(0);
  private final List<Decision.Warning> warnings = new ArrayList<>(0);
  private final @Nullable Explained explained;

  /** Which task and which field or value is computed just now. */
  private String member = "";

  private String about = "";

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

  /** A warning belongs to what is computed just now. */
  @Override
  public void warned(String warning) {
    warnings.add(new Decision.Warning(member, about, warning));
  }

  /** Computes a field of a task; nothing known of it is lost. */
  Computed field(CompiledField field, String of, Reading reading) {
    member = of;
    about = field.target().key();
    if (explained == null) {
      return field.compute(reading, this, null);
    }
    WayOfValue way = new WayOfValue();
    Computed result = field.compute(reading, this, way);
    explained.fields().add(way.lineage(of, field.target(), field.reads(), reading, result));
    return result;
  }

  /** Computes the list or the day that the tasks of an event come from. */
  Computed origin(CompiledValue value, String name, Reading reading) {
    member = "";
    about = name;
    return value.compute(reading, this, null);
  }

  /** Computes a value that the bridge names, which may happen in the middle of a field. */
  Computed named(CompiledValue value, String name, Reading reading) {
    String memberBefore = member;
    String aboutBefore = about;
    member = "";
    about = "values/" + name;
    Computed result =
        explained == null
            ? value.compute(reading, this, null)
            : explain(value, name, reading, explained);
    member = memberBefore;
    about = aboutBefore;
    return result;
  }

  private Computed explain(CompiledValue value, String name, Reading reading, Explained into) {
    WayOfValue way = new WayOfValue();
    Computed result = value.compute(reading, this, way);
    FieldShape shape = FieldShape.of(name, name, value.gives());
    into.named().add(way.lineage("", shape, value.reads(), reading, result));
    return result;
  }
}
