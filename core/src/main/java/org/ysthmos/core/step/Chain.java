package org.ysthmos.core.step;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/** Steps in a row, type-checked and made into functions. */
public final class Chain {

  /** Follows a chain as it is computed. */
  public interface Trail {

    /**
     * @param sentence the step in words; empty for what the chain starts from
     */
    void reached(String sentence, Computed computed);
  }

  /** Takes what a person should look at, though there is a value. */
  @FunctionalInterface
  public interface Warnings {
    void warned(String warning);

    /** Lets warnings pass; for values that only decide something and are delivered nowhere. */
    Warnings NONE = warning -> {};
  }

  /** Something a person should know about a step before using it. */
  public record Remark(String path, String message) {}

  private static final Chain NO_STEPS_OF_TEXT = new Chain(List.of(), List.of(), ValueType.TEXT);

  private final ValueType takes;
  private final Step.Function[] functions;
  private final boolean[] takesNothing;
  private final String[] sentences;
  private final List<Step.Compiled> compiled;

  private Chain(List<Step> steps, List<Step.Compiled> compiled, ValueType takes) {
    this.takes = takes;
    this.compiled = List.copyOf(compiled);
    this.functions = compiled.stream().map(Step.Compiled::function).toArray(Step.Function[]::new);
    this.sentences = steps.stream().map(Step::sentence).toArray(String[]::new);
    this.takesNothing = new boolean[functions.length];
    for (int i = 0; i < functions.length; i++) {
      takesNothing[i] = steps.get(i).takesNothing();
    }
  }

  /**
   * @throws Misfit if a step cannot take what the one before it gives; the message names the step
   *     and the remedy, the path is {@code steps/} and its place
   */
  public static Chain compile(List<Step> steps, ValueType takes, Scope scope) {
    if (steps.isEmpty() && takes.equals(ValueType.TEXT)) {
      return NO_STEPS_OF_TEXT;
    }
    List<Step.Compiled> compiled = new ArrayList<>(steps.size());
    ValueType type = takes;
    for (int i = 0; i < steps.size(); i++) {
      Step.Compiled step = compileOne(steps.get(i), i, type, scope);
      compiled.add(step);
      type = step.gives();
    }
    return new Chain(steps, compiled, takes);
  }

  private static Step.Compiled compileOne(Step step, int place, ValueType type, Scope scope) {
    try {
      return step.compile(type, scope);
    } catch (Misfit misfit) {
      Misfit named =
          misfit.path().isEmpty()
              ? new Misfit("the step “" + step.sentence() + "” " + misfit.message())
              : misfit;
      throw named.under(Integer.toString(place)).under("steps");
    }
  }

  /** The type of what goes in. */
  public ValueType takes() {
    return takes;
  }

  /** The type of what comes out. */
  public ValueType gives() {
    return compiled.isEmpty() ? takes : compiled.getLast().gives();
  }

  /** The type after each step, in order: what an editor shows beside them. */
  public List<ValueType> types() {
    return compiled.stream().map(Step.Compiled::gives).toList();
  }

  /** The steps in words, in order. */
  public List<String> sentences() {
    return List.of(sentences);
  }

  public List<Remark> remarks() {
    List<Remark> remarks = new ArrayList<>();
    for (int i = 0; i < compiled.size(); i++) {
      for (String message : compiled.get(i).remarks()) {
        remarks.add(new Remark("steps/" + i, message));
      }
    }
    return remarks;
  }

  /**
   * Runs the chain; gives a value, or the first problem met, never a warned value.
   *
   * @param trail told of each value; null in plain mode
   */
  public Computed run(Computed start, Reading reading, Warnings warnings, @Nullable Trail trail) {
    if (trail == null && functions.length == 0 && start instanceof Value) {
      return start;
    }
    Computed now = settle(start, "", warnings, trail);
    for (int i = 0; i < functions.length; i++) {
      if (!(now instanceof Value value)) {
        return now;
      }
      if (value != Nothing.NOTHING || takesNothing[i]) {
        now = settle(functions[i].apply(value, reading), sentences[i], warnings, trail);
      }
    }
    return now;
  }

  private static Computed settle(
      Computed computed, String sentence, Warnings warnings, @Nullable Trail trail) {
    if (trail != null) {
      trail.reached(sentence, computed);
    }
    if (computed instanceof Warned warned) {
      warnings.warned(warned.warning());
      return warned.value();
    }
    return computed;
  }
}
