package org.ysthmos.core.condition;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.compare.Operator;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.step.Chain;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Constant;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

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

  /** The fields it reads. */
  List<BoundField> reads();

  /** The condition in words, for example {@code place is given}. */
  String sentence();

  /** Its opposite in words, for example {@code place is not given}. */
  default String denied() {
    return "it is not so that " + sentence();
  }

  /**
   * @throws Misfit if a value is not there or an operator does not fit its type
   */
  static CompiledCondition compile(Condition condition, Scope scope) {
    return switch (condition) {
      case Condition.All all -> new All(compileAll(all.parts(), "all", scope));
      case Condition.Any any -> new Any(compileAll(any.parts(), "any", scope));
      case Condition.Not not -> new Not(Misfit.at("not", () -> compile(not.part(), scope)));
      case Condition.Test test -> One.compile(test, scope);
      case Condition.Changed changed -> Change.compile(changed, scope);
    };
  }

  private static List<CompiledCondition> compileAll(
      List<Condition> parts, String key, Scope scope) {
    List<CompiledCondition> compiled = new ArrayList<>(parts.size());
    for (int i = 0; i < parts.size(); i++) {
      Condition part = parts.get(i);
      compiled.add(Misfit.at(key + "/" + i, () -> compile(part, scope)));
    }
    return List.copyOf(compiled);
  }

  private static List<BoundField> reads(List<CompiledCondition> parts) {
    return parts.stream().flatMap(part -> part.reads().stream()).distinct().toList();
  }

  private static String sentence(List<CompiledCondition> parts, String between) {
    return String.join(between, parts.stream().map(CompiledCondition::sentence).toList());
  }

  /** All parts; stops at the first that is not met. */
  record All(List<CompiledCondition> parts) implements CompiledCondition {
    @Override
    public Answer ask(Reading reading, @Nullable List<TestResult> results) {
      for (int i = 0; i < parts.size(); i++) {
        Answer answer = parts.get(i).ask(reading, results);
        if (!(answer instanceof Known known && known.met())) {
          return answer;
        }
      }
      return Known.MET;
    }

    @Override
    public List<BoundField> reads() {
      return CompiledCondition.reads(parts);
    }

    @Override
    public String sentence() {
      return parts.isEmpty() ? "always" : CompiledCondition.sentence(parts, ", and ");
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

    @Override
    public List<BoundField> reads() {
      return CompiledCondition.reads(parts);
    }

    @Override
    public String sentence() {
      return CompiledCondition.sentence(parts, ", or ");
    }
  }

  /** Not the part. */
  record Not(CompiledCondition part) implements CompiledCondition {
    @Override
    public Answer ask(Reading reading, @Nullable List<TestResult> results) {
      return switch (part.ask(reading, results)) {
        case Known known when known.met() ->
            new Known(false, "it passes unless " + part.sentence());
        case Known known -> Known.MET;
        case Unknown unknown -> unknown;
      };
    }

    @Override
    public List<BoundField> reads() {
      return part.reads();
    }

    @Override
    public String sentence() {
      return part.denied();
    }

    @Override
    public String denied() {
      return part.sentence();
    }
  }

  /** One test. */
  record One(
      BoundField field, Chain chain, Operator.Compiled operator, String sentence, String denied)
      implements CompiledCondition {

    static One compile(Condition.Test test, Scope scope) {
      BoundField field = Misfit.at("value", () -> scope.bind(test.value()));
      Chain chain = Chain.compile(test.steps(), field.shape().type(), scope);
      String name = field.shape().name() + " ";
      return new One(
          field,
          chain,
          test.operator().compile(chain.gives(), scope),
          name + test.operator().sentence(),
          name + new Operator.Not(test.operator()).sentence());
    }

    @Override
    public Answer ask(Reading reading, @Nullable List<TestResult> results) {
      Computed computed = chain.run(field.read(reading), reading, Chain.Warnings.NONE, null);
      if (!(computed instanceof Value value)) {
        return new Unknown(field, (Problem) computed);
      }
      Computed answer = operator.ask(value, reading);
      if (answer instanceof Problem problem) {
        return new Unknown(field, problem);
      }
      boolean met = Flag.isYes(answer);
      if (results != null) {
        results.add(new TestResult(sentence, value.display(), met));
      }
      return met ? Known.MET : new Known(false, stopped(sentence, value));
    }

    @Override
    public List<BoundField> reads() {
      return List.of(field);
    }
  }

  private static String stopped(String sentence, Value value) {
    return "it passes only when "
        + sentence
        + (value.display().isBlank() ? "" : "; it was “" + value.display() + "”");
  }

  /** Whether a value changed. */
  record Change(
      BoundField field,
      Function<Reading, Computed> before,
      Set<Value> from,
      Set<Value> to,
      String sentence,
      String denied)
      implements CompiledCondition {

    static Change compile(Condition.Changed changed, Scope scope) {
      BoundField field = Misfit.at("value", () -> scope.bind(changed.value()));
      ValueType type = field.shape().type();
      if (!type.isSimple()) {
        throw new Misfit(
            "“%s” is a %s; only one value is compared".formatted(changed.value(), type));
      }
      return new Change(
          field,
          before(field, changed, scope),
          values(changed.from(), type, "changed/from"),
          values(changed.to(), type, "changed/to"),
          field.shape().name() + " changed" + words(changed),
          field.shape().name() + " did not change" + words(changed));
    }

    private static Function<Reading, Computed> before(
        BoundField field, Condition.Changed changed, Scope scope) {
      ValueType type = field.shape().type();
      if (changed.was().isPresent()) {
        BoundField was = Misfit.at("changed/was", () -> scope.bind(changed.was().get()));
        if (!was.shape().type().equals(type)) {
          throw new Misfit(
                  "“%s” is a %s and was a %s".formatted(changed.value(), type, was.shape().type()))
              .under("changed/was");
        }
        return was::read;
      }
      if (!(field.reader() instanceof BoundField.OfEvent data)) {
        throw new Misfit(
            "what “%s” was before is known only for what came with the event; say where it stands"
                    .formatted(changed.value())
                + " with was");
      }
      return reading -> data.shape().read(data.pointer().in(reading.previous()));
    }

    private static Set<Value> values(List<String> written, ValueType type, String place) {
      return Misfit.at(
          place,
          () ->
              written.stream()
                  .map(one -> Constant.parse(one, type))
                  .collect(Collectors.toUnmodifiableSet()));
    }

    private static String words(Condition.Changed changed) {
      String from =
          changed.from().isEmpty() ? "" : " from “" + String.join("” or “", changed.from()) + "”";
      String to = changed.to().isEmpty() ? "" : " to “" + String.join("” or “", changed.to()) + "”";
      return from + to;
    }

    @Override
    public Answer ask(Reading reading, @Nullable List<TestResult> results) {
      Computed computed = field.read(reading);
      Computed earlier = before.apply(reading);
      if (computed instanceof Problem problem) {
        return new Unknown(field, problem);
      }
      if (earlier instanceof Problem problem) {
        return new Unknown(field, problem);
      }
      Value now = Warned.valueOf(computed);
      Value then = Warned.valueOf(earlier);
      boolean met =
          !now.equals(then)
              && (from.isEmpty() || from.contains(then))
              && (to.isEmpty() || to.contains(now));
      if (results != null) {
        results.add(new TestResult(sentence, then.display() + " → " + now.display(), met));
      }
      return met
          ? Known.MET
          : new Known(false, "it passes only when " + sentence + "; " + went(then, now));
    }

    private static String went(Value then, Value now) {
      if (now.equals(then)) {
        return now.display().isBlank() ? "it still has no value" : "it stayed " + quoted(now);
      }
      return "it went from " + quoted(then) + " to " + quoted(now);
    }

    private static String quoted(Value value) {
      return value.display().isBlank() ? "nothing" : "“" + value.display() + "”";
    }

    @Override
    public List<BoundField> reads() {
      return List.of(field);
    }
  }
}
