package org.ysthmos.core.value;

import java.util.Locale;

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

  /** A text as it is compared where case is ignored, in the way of no one language. */
  public static String withoutCase(String text) {
    if (isAscii(text)) {
      return text.toLowerCase(Locale.ROOT);
    }
    // Upper case first, so that letters with two small forms (σ and ς) come to one.
    return text.toUpperCase(Locale.ROOT).toLowerCase(Locale.ROOT);
  }

  /** Whether all signs are of ASCII, which have one form and one normalisation. */
  public static boolean isAscii(String text) {
    for (int i = 0; i < text.length(); i++) {
      if (text.charAt(i) >= 0x80) {
        return false;
      }
    }
    return true;
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
