package org.ysthmos.core.compare;

import com.google.re2j.Pattern;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.text.Letters;
import org.ysthmos.core.text.LinearPattern;
import org.ysthmos.core.text.WhiteSpace;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Flag;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueOrder;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/** What a test asks of a value. Nothing (an absent value) is only ever empty. */
public sealed interface Operator {

  /** An operator made into a function: {@link Flag}, or the problem that keeps it from knowing. */
  @FunctionalInterface
  interface Compiled {
    Computed ask(Value value, Reading reading);
  }

  /** As it reads after the value's name, for example {@code is at least 2}. */
  String sentence();

  /**
   * @throws Misfit if the operator has no meaning for values of this type
   */
  Compiled compile(ValueType type, Scope scope);

  /** There is a value and it is not blank. */
  record Present() implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      return (value, reading) -> Flag.of(!isBlank(value));
    }

    @Override
    public String sentence() {
      return "is given";
    }
  }

  /** There is no value, or a blank one, or a list without items. */
  record Empty() implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      return (value, reading) -> Flag.of(isBlank(value));
    }

    @Override
    public String sentence() {
      return "is empty";
    }
  }

  /** Whether a value is absent, a blank text, or a list without items. */
  static boolean isBlank(Value value) {
    return switch (value) {
      case Nothing nothing -> true;
      case Text text -> WhiteSpace.isBlank(text.text());
      case ListValue list -> list.items().isEmpty();
      default -> WhiteSpace.isBlank(value.display());
    };
  }

  /** The value is this one; numbers are compared as numbers, days as days. */
  record Equal(Operand operand) implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      needs(type.isSimple(), type, "one value", this);
      return comparing(operand.compile(type, scope), Object::equals);
    }

    @Override
    public String sentence() {
      return "is " + operand.sentence();
    }
  }

  /**
   * The value is this text, in capitals or in small letters.
   *
   * @param locale in the way of which language; the root where of no one
   */
  record EqualIgnoringCase(Operand operand, Locale locale) implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      needs(isWritten(type), type, "a text or a choice", this);
      return comparing(
          operand.compile(type, scope),
          (value, other) ->
              Letters.withoutCase(value.display(), locale)
                  .equals(Letters.withoutCase(other.display(), locale)));
    }

    @Override
    public String sentence() {
      String in =
          locale.equals(Locale.ROOT) ? "" : " in " + locale.getDisplayLanguage(Locale.ENGLISH);
      return "is " + operand.sentence() + ", whatever its case" + in;
    }
  }

  /** The value is one of these. */
  record OneOf(List<String> written) implements Operator {
    public OneOf {
      written = List.copyOf(written);
    }

    @Override
    public Compiled compile(ValueType type, Scope scope) {
      needs(type.isSimple(), type, "one value", this);
      Set<Value> known = new HashSet<>();
      written.forEach(one -> known.add(Operand.parse(one, type)));
      return (value, reading) -> Flag.of(known.contains(value));
    }

    @Override
    public String sentence() {
      return "is one of “" + String.join("”, “", written) + "”";
    }
  }

  /** The text holds this one somewhere, or the list has this item. */
  record Contains(Operand operand) implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      needs(isWritten(type) || type.isList(), type, "a text or a list", this);
      if (type.isList()) {
        return comparing(
            operand.compile(type.element().orElseThrow(), scope),
            (value, item) -> value instanceof ListValue list && list.items().contains(item));
      }
      return comparing(
          operand.compile(type, scope), (value, other) -> written(value).contains(written(other)));
    }

    @Override
    public String sentence() {
      return "contains " + operand.sentence();
    }
  }

  /** The text starts or ends with this one. */
  record AtEdge(boolean start, Operand operand) implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      needs(isWritten(type), type, "a text", this);
      return comparing(
          operand.compile(type, scope),
          (value, other) ->
              start
                  ? written(value).startsWith(written(other))
                  : written(value).endsWith(written(other)));
    }

    @Override
    public String sentence() {
      return (start ? "starts with " : "ends with ") + operand.sentence();
    }
  }

  /** The pattern is found somewhere in the text; in linear time (RE2 syntax). */
  record Matches(String pattern) implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      needs(isWritten(type), type, "a text", this);
      Pattern compiled = LinearPattern.compile(pattern);
      return (value, reading) ->
          Flag.of(value != Nothing.NOTHING && compiled.matcher(written(value)).find());
    }

    @Override
    public String sentence() {
      return "matches the pattern “" + pattern + "”";
    }
  }

  /** The value stands in this order to another. */
  record Ordered(Relation relation, Operand operand) implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      needs(relation.takes(type), type, relation.takesWords(), this);
      return comparing(
          operand.compile(type, scope),
          (value, other) -> relation.holds(ValueOrder.compare(value, other)));
    }

    @Override
    public String sentence() {
      return "is " + relation.words() + " " + operand.sentence().replaceAll("[“”]", "");
    }
  }

  /** The value lies between two, both included. */
  record Between(Operand from, Operand to) implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      needs(Relation.isOrdered(type), type, "a number, a day or a moment", this);
      Compiled atLeast =
          comparing(from.compile(type, scope), (value, low) -> ValueOrder.compare(value, low) >= 0);
      Compiled atMost =
          comparing(to.compile(type, scope), (value, high) -> ValueOrder.compare(value, high) <= 0);
      return (value, reading) -> {
        Computed low = atLeast.ask(value, reading);
        return Flag.isYes(low) ? atMost.ask(value, reading) : low;
      };
    }

    @Override
    public String sentence() {
      return "is between " + from.sentence() + " and " + to.sentence();
    }
  }

  /** What the operator says does not hold. */
  record Not(Operator operator) implements Operator {
    @Override
    public Compiled compile(ValueType type, Scope scope) {
      Compiled inner = operator.compile(type, scope);
      return (value, reading) -> {
        Computed answer = inner.ask(value, reading);
        return answer instanceof Flag flag ? Flag.of(!flag.yes()) : answer;
      };
    }

    @Override
    public String sentence() {
      if (operator instanceof Not twice) {
        return twice.operator().sentence();
      }
      String said = operator.sentence();
      if (said.startsWith("is ")) {
        return "is not " + said.substring("is ".length());
      }
      // The other sentences begin with a verb: contains, starts, ends, matches.
      return "does not " + said.replaceFirst("^(match)es|^(\\w+)s", "$1$2");
    }
  }

  /** A text as it is compared: an accent written apart is as one written together. */
  private static String written(Value value) {
    return Letters.composed(value.display());
  }

  private static boolean isWritten(ValueType type) {
    return switch (type.kind()) {
      case TEXT, CHOICE, PERSON, LINK -> true;
      default -> false;
    };
  }

  private static void needs(boolean fits, ValueType type, String needed, Operator operator) {
    if (!fits) {
      throw new Misfit(
          "“%s” has no meaning for a %s; it takes %s".formatted(operator.sentence(), type, needed));
    }
  }

  private static Compiled comparing(
      Operand.Compiled operand, java.util.function.BiPredicate<Value, Value> holds) {
    return (value, reading) -> {
      if (value == Nothing.NOTHING) {
        return Flag.NO;
      }
      return switch (operand.read(reading)) {
        case Problem problem -> problem;
        case Warned warned -> Flag.of(holds.test(value, warned.value()));
        case Value other -> Flag.of(other != Nothing.NOTHING && holds.test(value, other));
      };
    };
  }
}
