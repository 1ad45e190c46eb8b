package org.ysthmos.core.step;

import java.util.List;
import java.util.SequencedMap;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * One step of a chain. A step is a description; {@link #compile} makes the function once, so that
 * running it parses nothing. The function is pure and total over its input type, and is never given
 * {@link org.ysthmos.core.value.Nothing}, unless {@link #takesNothing} says so: an absent value
 * stays absent through the chain.
 */
public sealed interface Step
    permits Trim,
        ChangeCase,
        PartOf,
        Replace,
        FindPattern,
        ReplacePattern,
        Shorten,
        PlainText,
        Put,
        ReadNumber,
        WriteNumber,
        Round,
        Bands,
        Calculate,
        ReadDay,
        ReadMoment,
        WriteDate,
        Move,
        MoveBy,
        DaysUntil,
        MoveWorkingDays,
        NextWeekday,
        AtTime,
        DayIn,
        EdgeOfMonth,
        ByTable,
        KeyByTable,
        As,
        ReadFlag,
        Split,
        Join,
        Take,
        FirstWhere,
        KeepWhere,
        Count,
        Sum,
        Distinct,
        ForEach,
        InList,
        IfNothing,
        If,
        FailIf {

  StepKind kind();

  /** The options as documents write them; what goes without saying is left out. */
  default SequencedMap<String, Object> options() {
    return Written.nothing();
  }

  /** The step as it reads in a rule, for example {@code moved 7 days later}. */
  String sentence();

  /**
   * Makes the function for values of a type.
   *
   * @throws Misfit if the step cannot take the type; the message says what it takes, what it got
   *     and what to put before it
   */
  Compiled compile(ValueType in, Scope scope);

  default boolean takesNothing() {
    return false;
  }

  /** The step as documents write it. */
  default Object toDocument() {
    return kind().written(options());
  }

  /** A step made into a function. */
  @FunctionalInterface
  interface Function {
    Computed apply(Value in, Reading reading);
  }

  /**
   * A compiled step.
   *
   * @param gives the type of what comes out
   * @param remarks what a person should know before using it, each a full sentence
   */
  record Compiled(ValueType gives, Function function, List<String> remarks) {
    public Compiled {
      remarks = List.copyOf(remarks);
    }

    static Compiled of(ValueType gives, Function function) {
      return new Compiled(gives, function, List.of());
    }
  }

  /** Refuses a type that a step does not take. */
  static void needs(boolean fits, ValueType in, String takes, String remedy) {
    if (!fits) {
      throw new Misfit("takes %s but gets a %s; %s".formatted(takes, in, remedy));
    }
  }

  /** Refuses any type but a text. */
  static void needsText(ValueType in) {
    needs(
        in.equals(ValueType.TEXT),
        in,
        "a text",
        in.isList()
            ? "join the list first (join), or do it to each item (for-each)"
            : "put it into a text first (put: \"{value}\")");
  }

  /** Refuses any type but a list. */
  static ValueType needsList(ValueType in) {
    needs(in.isList(), in, "a list", "make it one first (split, or in-list)");
    return in.element().orElseThrow();
  }
}
