package org.ysthmos.core.text;

import java.text.Normalizer;
import java.util.Locale;
import java.util.Optional;

/**
 * Texts that look alike and are not the same. People who see two equal texts called different need
 * to be told which sign it is.
 */
public final class LookAlike {

  private LookAlike() {}

  /**
   * What keeps two texts apart that look alike; empty if they are the same, or look different.
   *
   * @param text the one that is told of
   * @param other the one it is compared with
   */
  public static Optional<String> difference(String text, String other) {
    String a = Letters.composed(text);
    String b = Letters.composed(other);
    if (a.equals(b) || !looks(a).equals(looks(b))) {
      return Optional.empty();
    }
    int at = 0;
    while (at < a.length() && at < b.length() && a.codePointAt(at) == b.codePointAt(at)) {
      at += Character.charCount(a.codePointAt(at));
    }
    return Optional.of("%s where the other has %s".formatted(signAt(a, at), signAt(b, at)));
  }

  private static String signAt(String text, int at) {
    if (at >= text.length()) {
      return "its end";
    }
    int sign = text.codePointAt(at);
    return "%s (U+%04X)".formatted(Character.getName(sign).toLowerCase(Locale.ROOT), sign);
  }

  /** A text as it looks: compatible signs alike (NFKC), white space one space, no unseen signs. */
  private static String looks(String text) {
    StringBuilder seen = new StringBuilder(text.length());
    boolean space = false;
    String plain = Normalizer.normalize(text, Normalizer.Form.NFKC);
    for (int i = 0; i < plain.length(); i++) {
      char c = plain.charAt(i);
      if (WhiteSpace.is(c)) {
        space = true;
      } else if (Character.getType(c) != Character.FORMAT) {
        if (space && !seen.isEmpty()) {
          seen.append(' ');
        }
        space = false;
        seen.append(dashed(c));
      }
    }
    return seen.toString();
  }

  private static char dashed(char c) {
    return switch (c) {
      case '\u2010', '\u2011', '\u2012', '\u2013', '\u2212' -> '-';
      case '\u2018', '\u2019', '\u02BC' -> '\'';
      case '\u201C', '\u201D' -> '"';
      default -> c;
    };
  }
}
