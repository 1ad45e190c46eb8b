package org.ysthmos.core.value;

import java.math.BigDecimal;
import java.time.DateTimeException;

/** Values as people write them into a rule: a day as 2026-11-30, a flag as yes or no. */
public final class Constant {

  private Constant() {}

  /**
   * Reads what was written as a value of the type; lists stand in no single text.
   *
   * @throws IllegalArgumentException if the text is no such value; the message says so
   */
  public static Value parse(String written, ValueType type) {
    try {
      return switch (type.kind()) {
        case TEXT -> Text.of(written);
        case NUMBER -> number(written);
        case FLAG -> flag(written);
        case DAY -> Day.parse(written);
        case MOMENT -> Moment.parse(written);
        case CHOICE -> new Choice(written);
        case PERSON -> new Person(written);
        case LINK -> Link.of(written);
        case LIST, RECORD, NOTHING ->
            throw new IllegalArgumentException("a " + type + " cannot be written as one text");
      };
    } catch (DateTimeException notADate) {
      throw new IllegalArgumentException(
          "“%s” is no %s; write it as %s".formatted(written, type, exampleOf(type)), notADate);
    }
  }

  private static Value number(String written) {
    try {
      if (Decimal.checked(new BigDecimal(written)) instanceof Decimal number) {
        return number;
      }
    } catch (NumberFormatException notANumber) {
      throw new IllegalArgumentException("“" + written + "” is no number", notANumber);
    }
    throw new IllegalArgumentException("“" + written + "” is too large a number");
  }

  private static Flag flag(String written) {
    return switch (written) {
      case "yes", "true" -> new Flag(true);
      case "no", "false" -> new Flag(false);
      default ->
          throw new IllegalArgumentException("“" + written + "” is no flag; write yes or no");
    };
  }

  private static String exampleOf(ValueType type) {
    return type.equals(ValueType.DAY) ? "2026-11-30" : "2026-11-30T17:00:00Z";
  }
}
