package org.ysthmos.core.value;

import java.util.Arrays;

/**
 * An order over values of one simple type: numbers by size, days and moments by time, no before
 * yes, all else by the Unicode code points of how they are written. Nothing comes last.
 */
public final class ValueOrder {

  private ValueOrder() {}

  /** Negative, zero or positive, as {@link Comparable#compareTo}. */
  public static int compare(Value value, Value other) {
    if (value == Nothing.NOTHING || other == Nothing.NOTHING) {
      return Boolean.compare(value == Nothing.NOTHING, other == Nothing.NOTHING);
    }
    return switch (value) {
      case Decimal number when other instanceof Decimal second ->
          number.number().compareTo(second.number());
      case Day day when other instanceof Day second -> day.date().compareTo(second.date());
      case Moment moment when other instanceof Moment second ->
          moment.instant().compareTo(second.instant());
      case Flag flag when other instanceof Flag second -> Boolean.compare(flag.yes(), second.yes());
      default -> byCodePoints(value.display(), other.display());
    };
  }

  /** By code points and not by code units, which would put emoji before some letters. */
  private static int byCodePoints(String text, String other) {
    return Arrays.compare(text.codePoints().toArray(), other.codePoints().toArray());
  }
}
