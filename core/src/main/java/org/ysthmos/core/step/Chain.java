package org.ysthmos.core.step;

import java.util.List;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/** Steps in a row, type-checked and made into functions. */
public final class Chain {

  /** Follows a chain as it is computed. */
  public interface Trail {

    /** Follows nothing. */
    Trail NONE =
        new Trail() {
          @Override
          public void reached(int step, Computed computed) {}

          @Override
          public void warned(String warning) {}
        };

    /**
     * @param step counted from 0; -1 is what the chain starts from
     */
    void reached(int step, Computed computed);

    void warned(String warning);
  }

  private final ValueType gives;
  private final Step.Function[] functions;
  private final boolean[] takesNothing;

  private Chain(List<Step> steps, ValueType gives) {
    this.gives = gives;
    this.functions = steps.stream().map(Step::compile).toArray(Step.Function[]::new);
    this.takesNothing = new boolean[functions.length];
    for (int i = 0; i < functions.length; i++) {
      takesNothing[i] = steps.get(i).takesNothing();
    }
  }

  /**
   * @throws IllegalArgumentException if a step cannot take what the one before it gives; the
   *     message names the step and the remedy
   */
  public static Chain compile(List<Step> steps, ValueType takes) {
    ValueType type = takes;
    for (Step step : steps) {
      type =
          switch (step.typing(type)) {
            case Typing.Gives gives -> gives.type();
            case Typing.Cannot cannot ->
                throw new IllegalArgumentException(
                    "the step “" + step.sentence() + "” " + cannot.message());
          };
    }
    return new Chain(steps, type);
  }

  /** The type of what comes out. */
  public ValueType gives() {
    return gives;
  }

  /** Runs the chain; gives a value, or the first problem met. */
  public Computed run(Computed start, Trail trail) {
    Computed now = settle(start, -1, trail);
    for (int i = 0; i < functions.length; i++) {
      if (!(now instanceof Value value)) {
        return now;
      }
      if (value != Nothing.NOTHING || takesNothing[i]) {
        now = settle(functions[i].apply(value), i, trail);
      }
    }
    return now;
  }

  private static Computed settle(Computed computed, int step, Trail trail) {
    trail.reached(step, computed);
    if (computed instanceof Warned warned) {
      trail.warned(warned.warning());
      return warned.value();
    }
    return computed;
  }
}
