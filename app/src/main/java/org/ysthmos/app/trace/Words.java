package org.ysthmos.app.trace;

import java.util.Locale;
import org.ysthmos.core.failure.Failure;

/** How words are written where they are kept and looked for. */
public final class Words {

  private static final int LONGEST_SENTENCE = 2000;

  private Words() {}

  /** A constant as it stands in the database and in addresses: {@code passed-by}. */
  public static String word(Enum<?> constant) {
    return constant.name().toLowerCase(Locale.ROOT).replace('_', '-');
  }

  /** What happened and what to do, as sentences. */
  public static String sentence(Failure failure) {
    return sentence(failure.message(), failure.remedy().orElse(""));
  }

  /** What happened and what to do, as sentences; the second may be empty. */
  public static String sentence(String message, String remedy) {
    return limited(message + "." + (remedy.isEmpty() ? "" : " " + remedy + "."), LONGEST_SENTENCE);
  }

  /** The text as a sentence starts. */
  public static String capital(String text) {
    return text.isEmpty() ? "" : Character.toUpperCase(text.charAt(0)) + text.substring(1);
  }

  /** The text, cut with an ellipsis where it is longer than the column that takes it. */
  public static String limited(String text, int longest) {
    return text.length() <= longest ? text : text.substring(0, longest - 1) + "…";
  }
}
