package org.ysthmos.core.decide;

import java.util.List;
import org.ysthmos.core.condition.CompiledCondition.TestResult;
import org.ysthmos.core.shape.FieldShape;
import org.ysthmos.core.value.Computed;

/**
 * How a decision came about: each test, and the lineage of each field.
 *
 * @param tests the tests made, in order; one that was not needed is not there
 * @param named the values that the bridge names, as far as they were needed
 */
public record Explanation(List<TestResult> tests, List<Lineage> named, List<Lineage> fields) {

  private static final String THEN = "then ";

  /** What plain mode gives. */
  public static final Explanation NONE = new Explanation(List.of(), List.of(), List.of());

  /** How explanations call what comes after the tasks, so that it is not taken for one of them. */
  public static String ofThen(String name) {
    return THEN + name;
  }

  /**
   * From the source fields over each step to what the target gets.
   *
   * @param member which of several tasks; empty where there is one
   * @param start what the chain started from
   * @param result what came out, fitted to the target
   */
  public record Lineage(
      String member,
      FieldShape target,
      List<SourceValue> sources,
      Computed start,
      List<StepValue> steps,
      Computed result) {

    /** Whether it is a field of a task, and not of what comes after the tasks. */
    public boolean isOfTask() {
      return !member.startsWith(THEN);
    }
  }

  /**
   * A source field and what it held.
   *
   * @param where what holds the field, for example {@code report}
   */
  public record SourceValue(String address, String name, String where, Computed value) {}

  /** A step and the value after it. */
  public record StepValue(String sentence, Computed value) {}
}
