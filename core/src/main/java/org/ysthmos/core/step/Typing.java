package org.ysthmos.core.step;

import org.ysthmos.core.value.ValueType;

/** What a step makes of a type. */
public sealed interface Typing {

  /** The step takes the type and gives this one. */
  record Gives(ValueType type) implements Typing {}

  /** The step cannot take the type; the message names it and says what to put before. */
  record Cannot(String message) implements Typing {}

  static Typing of(ValueType expected, ValueType found, ValueType gives, String remedy) {
    return found.equals(expected)
        ? new Gives(gives)
        : new Cannot("takes a " + expected + " but gets a " + found + "; " + remedy);
  }
}
