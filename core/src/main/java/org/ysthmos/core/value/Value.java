package org.ysthmos.core.value;

/** An immutable value of one of the closed set of types. Absence is {@link Nothing}, never null. */
public sealed interface Value extends Computed
    permits Text, Decimal, Flag, Day, Moment, Choice, Person, Link, ListValue, Nothing {

  ValueType type();

  /**
   * The value as it reads inside a text: texts as they are, numbers without exponent, days as ISO
   * 8601, moments as RFC 3339 in UTC, lists joined by a comma and a space, nothing as the empty
   * text.
   */
  String display();
}
