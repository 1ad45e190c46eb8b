package org.ysthmos.core.value;

import org.ysthmos.core.text.Letters;

/** Unicode text; may be empty, which is not the same as {@link Nothing}. */
public record Text(String text) implements Value {

  /** The longest text that is worked on, in UTF-16 code units. */
  public static final int LONGEST = 1_000_000;

  /** The text, or a problem if it is longer than {@link #LONGEST}. */
  public static Computed checked(String text) {
    return text.length() <= LONGEST ? new Text(text) : tooLong();
  }

  /** The problem of a text that grew past {@link #LONGEST}. */
  public static Problem tooLong() {
    return new Problem(
        "the text grew longer than " + LONGEST + " characters",
        "",
        "Shorten it earlier in the rule, then send again");
  }

  public static Text of(String text) {
    return new Text(text);
  }

  /** Whether both are the same text, an accent written apart or together (UAX #15). */
  @Override
  public boolean equals(Object other) {
    return other instanceof Text that && Letters.same(text, that.text);
  }

  @Override
  public int hashCode() {
    return Letters.composed(text).hashCode();
  }

  @Override
  public ValueType type() {
    return ValueType.TEXT;
  }

  @Override
  public String display() {
    return text;
  }
}
