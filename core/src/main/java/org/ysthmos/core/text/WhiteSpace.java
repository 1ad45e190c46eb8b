package org.ysthmos.core.text;

/**
 * White space as Unicode knows it: the property White_Space of PropList.txt, with the no-break
 * spaces that {@link Character#isWhitespace} leaves out, and the signs of no width (U+200B, U+2060,
 * U+FEFF) that come along when texts are copied from pages and files. Nobody sees either, so a text
 * of nothing else is blank.
 */
public final class WhiteSpace {

  private WhiteSpace() {}

  public static boolean is(char c) {
    if (c < 0x80) {
      return c == ' ' || (c >= '\t' && c <= '\r');
    }
    return switch (c) {
      case 0x85, 0xA0, 0x1680, 0x2028, 0x2029, 0x202F, 0x205F, 0x3000 -> true;
      case 0x200B, 0x2060, 0xFEFF -> true;
      default -> c >= 0x2000 && c <= 0x200A;
    };
  }

  /** The text without the white space at its ends; the very text if there is none. */
  public static String strip(String text) {
    int start = 0;
    int end = text.length();
    while (start < end && is(text.charAt(start))) {
      start++;
    }
    while (end > start && is(text.charAt(end - 1))) {
      end--;
    }
    return text.substring(start, end);
  }

  public static boolean isBlank(String text) {
    for (int i = 0; i < text.length(); i++) {
      if (!is(text.charAt(i))) {
        return false;
      }
    }
    return true;
  }
}
