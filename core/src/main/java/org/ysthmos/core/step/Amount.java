package org.ysthmos.core.step;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.Optional;
import java.util.SequencedMap;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.document.DocumentNode;
import org.ysthmos.core.reading.Address;
import org.ysthmos.core.reading.BoundField;
import org.ysthmos.core.reading.Misfit;
import org.ysthmos.core.reading.Reading;
import org.ysthmos.core.reading.Scope;
import org.ysthmos.core.value.Computed;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Problem;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;
import org.ysthmos.core.value.Warned;

/** A number that a step works with: one that is written down, or what stands in a field. */
public sealed interface Amount {

  /** A number as it is written in the rule. */
  record Fixed(BigDecimal number) implements Amount {}

  /**
   * The number in a field.
   *
   * @param otherwise used where the field holds nothing that the step can work with; empty where
   *     that is a failure
   */
  record Field(Address address, Optional<BigDecimal> otherwise) implements Amount {}

  /** What a number must be so that a step can work with it. */
  enum Kind {
    ANY,
    WHOLE,
    DIVISOR
  }

  /**
   * Which numbers a step can work with.
   *
   * @param least the smallest that is taken of whole numbers
   * @param most the greatest that is taken of whole numbers
   */
  record Range(Kind kind, long least, long most) {

    static final Range ANY = new Range(Kind.ANY, Long.MIN_VALUE, Long.MAX_VALUE);
    static final Range DIVISOR = new Range(Kind.DIVISOR, Long.MIN_VALUE, Long.MAX_VALUE);

    static Range whole(long least, long most) {
      return new Range(Kind.WHOLE, least, most);
    }

    /** Why the step cannot work with the number; null if it can. */
    private @Nullable String refusal(BigDecimal number) {
      return switch (kind) {
        case ANY -> null;
        case DIVISOR -> number.signum() == 0 ? "nothing can be divided by 0" : null;
        case WHOLE -> {
          if (number.stripTrailingZeros().scale() > 0) {
            yield "“%s” is no whole number".formatted(number.toPlainString());
          }
          boolean within =
              number.compareTo(BigDecimal.valueOf(least)) >= 0
                  && number.compareTo(BigDecimal.valueOf(most)) <= 0;
          yield within
              ? null
              : "“%s” is not from %d to %d".formatted(number.toPlainString(), least, most);
        }
      };
    }
  }

  /** An amount made into a function: a {@link Decimal} within the range, or a problem. */
  @FunctionalInterface
  interface Compiled {
    Computed read(Reading reading);
  }

  /**
   * Reads a number, or a group {@code { value: address, otherwise: number }}.
   *
   * @throws org.ysthmos.core.document.DocumentException if it is neither, or a number that the step
   *     cannot work with
   */
  static Amount read(DocumentNode node, Range range) {
    if (!node.isGroup()) {
      return new Fixed(within(node, range));
    }
    node.only("value", "otherwise");
    return new Field(
        Address.read(node.need("value")), node.get("otherwise").map(one -> within(one, range)));
  }

  private static BigDecimal within(DocumentNode node, Range range) {
    BigDecimal number = node.number();
    if (!(Decimal.checked(number) instanceof Decimal)) {
      throw node.refuse("the number has too many digits");
    }
    String refusal = range.refusal(number);
    if (refusal != null) {
      throw node.refuse(refusal);
    }
    return number;
  }

  /**
   * @throws Misfit if the field holds no numbers
   */
  default Compiled compile(Range range, Scope scope) {
    return switch (this) {
      case Fixed fixed -> {
        Decimal number = new Decimal(fixed.number());
        yield reading -> number;
      }
      case Field field -> {
        BoundField bound = scope.bind(field.address());
        if (!bound.shape().type().equals(ValueType.NUMBER)) {
          throw new Misfit(
              "“%s” is a %s where a number is needed; name it under values and read it as a number"
                      .formatted(field.address(), bound.shape().type())
                  + " there (read-number)");
        }
        yield reading -> of(bound, bound.read(reading), field, range);
      }
    };
  }

  private static Computed of(BoundField bound, Computed found, Field field, Range range) {
    String refusal;
    String shown;
    switch (found) {
      case Problem problem -> {
        return problem;
      }
      case Warned warned -> {
        return of(bound, warned.value(), field, range);
      }
      case Nothing nothing -> {
        refusal = "there is no number";
        shown = "";
      }
      case Value value -> {
        refusal = range.refusal(((Decimal) value).number());
        shown = value.display();
        if (refusal == null) {
          return value;
        }
      }
    }
    return field.otherwise().isPresent()
        ? new Decimal(field.otherwise().get())
        : new Problem(
            bound.shape().name() + ": " + refusal,
            shown,
            "Correct it at its source, or state in the rule what is used then (otherwise), then"
                + " send again");
  }

  /** Whether it is a number below 0 that is written down. */
  default boolean isNegative() {
    return this instanceof Fixed fixed && fixed.number().signum() < 0;
  }

  /** As it reads in a sentence, without the sign of a number that is written down. */
  default String sentence() {
    return switch (this) {
      case Fixed fixed -> fixed.number().abs().toPlainString();
      case Field field ->
          field.address()
              + field.otherwise().map(other -> " (or " + other.toPlainString() + ")").orElse("");
    };
  }

  /** As documents write it. */
  default Object toDocument() {
    return switch (this) {
      case Fixed fixed -> fixed.number();
      case Field field -> {
        SequencedMap<String, Object> group = new LinkedHashMap<>();
        group.put("value", field.address().toString());
        field.otherwise().ifPresent(other -> group.put("otherwise", other));
        yield group;
      }
    };
  }
}
