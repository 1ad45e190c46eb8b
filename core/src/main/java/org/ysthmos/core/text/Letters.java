package org.ysthmos.core.text;

import java.text.Normalizer;
import java.util.Locale;

/** Texts as they are compared: how their letters are put together, and whether case counts. */
public final class Letters {

  private static final char DOTLESS_I = '\u0131';
  private static final char FINAL_SIGMA = '\u03C2';
  private static final char SIGMA = '\u03C3';

  private Letters() {}

  /** Whether all signs are of ASCII, which have one form and one normalisation. */
  public static boolean isAscii(String text) {
    for (int i = 0; i < text.length(); i++) {
      if (text.charAt(i) >= 0x80) {
        return false;
      }
    }
    return true;
  }

  /**
   * The text in Unicode normalisation form C (UAX #15), in which an accent written apart is the
   * same as one written together.
   */
  public static String composed(String text) {
    return isAscii(text) || Normalizer.isNormalized(text, Normalizer.Form.NFC)
        ? text
        : Normalizer.normalize(text, Normalizer.Form.NFC);
  }

  /** Whether two texts are the same when both are composed. */
  public static boolean same(String a, String b) {
    return a.equals(b) || (!(isAscii(a) && isAscii(b)) && composed(a).equals(composed(b)));
  }

  /** The text as it is compared where case is ignored, in the way of no one language. */
  public static String withoutCase(String text) {
    return withoutCase(text, Locale.ROOT);
  }

  /**
   * The text composed, and with full case folding (Unicode 15, section 3.13, and the statuses C and
   * F of CaseFolding.txt): ẞ, ß and SS come to one, and so do Σ, σ and ς.
   *
   * @param locale Turkish and Azerbaijani fold I to ı and İ to i (status T), which are two letters
   *     there; all others are the same
   */
  public static String withoutCase(String text, Locale locale) {
    boolean turkic = locale.getLanguage().equals("tr") || locale.getLanguage().equals("az");
    if (!turkic && isAscii(text)) {
      return text.toLowerCase(Locale.ROOT);
    }
    String composed = composed(text);
    StringBuilder folded = new StringBuilder(composed.length() + 8);
    composed.codePoints().forEach(sign -> folded.append(fold(sign, turkic)));
    return composed(folded.toString());
  }

  /** One sign at a time, since a sigma is not to fold by what stands beside it. */
  private static String fold(int sign, boolean turkic) {
    if (sign == DOTLESS_I || (turkic && sign == 'I')) {
      return String.valueOf(DOTLESS_I);
    }
    if (turkic && sign == '\u0130') {
      return "i";
    }
    // Small letters first, so that ẞ comes to ß; then capitals, which write ß and ligatures out.
    return Character.toString(sign)
        .toLowerCase(Locale.ROOT)
        .toUpperCase(Locale.ROOT)
        .toLowerCase(Locale.ROOT)
        .replace(FINAL_SIGMA, SIGMA);
  }
}
