package org.ysthmos.core.condition;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.rule.Address;
import org.ysthmos.core.rule.BoundField;
import org.ysthmos.core.rule.Reading;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;

/** A condition made into functions. */
public sealed interface CompiledCondition {

  /** What one test came to. */
  record TestResult(String sentence, String value, boolean met) {}

  /** Whether the condition is met, or the problem that keeps it from being known. */
  sealed interface Answer {}

  /** The condition is met or not; where not, {@code because} says which test stopped the event. */
  record Known(boolean met, String because) implements Answer {
    static final Known MET = new Known(true, "");
  }

  /** A value of a test could not be computed. */
  record Unknown(BoundField field, Problem problem) implements Answer {}

  /**
   * @param results told of each test that was made; null in plain mode
   */
  Answer ask(Reading reading, @Nullable List<TestResult> results);

  /**
   * @throws IllegalArgumentException if a value is not there or an operator does not fit its type
   */
  static CompiledCondition compile(Condition condition, Function<Address, BoundField> binder) {
    return switch (condition) {
      case Condition.All all -> new All(compileAll(all.parts(), binder));
      case Condition.Any any -> new Any(compileAll(any.parts(), binder));
      case Condition.Not not -> new Not(compile(not.part(), binder));
      case Condition.Test test -> One.compile(test, binder);
    };
  }

  private static List<CompiledCondition> compileAll(
      List<Condition> parts, Function<Address, BoundField> binder) {
    return parts.stream().map(part -> compile(part, binder)).toList();
  }

  /** All parts; stops at the first that is not met. */
  record All(List<CompiledCondition> parts) implements CompiledCondition {
    @Override
    public Answer ask(Reading reading, @Nullable List<TestResult> results) {
      for (CompiledCondition part : parts) {
        Answer answer = part.ask(reading, results);
        if (!(answer instanceof Known known && known.met())) {
          return answer;
        }
      }
      return Known.MET;
    }
  }

  /** Any part; stops at the first that is met. */
  record Any(List<CompiledCondition> parts) implements CompiledCondition {
    @Override
    public Answer ask(Reading reading, @Nullable List<TestResult> results) {
      List<String> because = new ArrayList<>();
      for (CompiledCondition part : parts) {
        Answer answer = part.ask(reading, results);
        if (!(answer instanceof Known known) || known.met()) {
          return answer;
        }
        because.add(known.because());
      }
      return new Known(false, String.join("; ", because));
    }
  }

  /** Not the part. */
  record Not(CompiledCondition part) implements CompiledCondition {
    @Override
    public Answer ask(Reading reading, @Nullable List<TestResult> results) {
      return switch (part.ask(reading, results)) {
        case Known known when known.met() -> new Known(false, "what must not hold does");
        case Known known -> Known.MET;
        case Unknown unknown -> unknown;
      };
    }
  }

  /** One test. */
  record One(BoundField field, Chain chain, Operator operator, String sentence)
      implements CompiledCondition {

    static One compile(Condition.Test test, Function<Address, BoundField> binder) {
      BoundField field = binder.apply(test.value());
      Chain chain = Chain.compile(test.steps(), field.shape().type());
      if (!test.operator().takes(chain.gives())) {
        throw new IllegalArgumentException(
            "“" + test.operator().sentence() + "” has no meaning for a " + chain.gives());
      }
      return new One(
          field, chain, test.operator(), field.shape().name() + " " + test.operator().sentence());
    }

    @Override
    public Answer ask(Reading reading, @Nullable List<TestResult> results) {
      return switch (chain.run(field.read(reading), Chain.Trail.NONE)) {
        case Problem problem -> new Unknown(field, problem);
        case Value value -> {
          boolean met = operator.holds(value);
          if (results != null) {
            results.add(new TestResult(sentence, value.display(), met));
          }
          yield met ? Known.MET : new Known(false, stopped(value));
        }
        case org.ysthmos.core.value.Warned warned ->
            throw new IllegalStateException("a chain settles its warnings");
      };
    }

    private String stopped(Value value) {
      return "it passes only when "
          + sentence
          + (value.display().isBlank() ? "" : "; it was “" + value.display() + "”");
    }
  }
}
