package org.ysthmos.core.text;

import java.math.BigDecimal;
import java.text.DecimalFormatSymbols;
import java.util.Locale;
import java.util.Optional;

/**
 * Numbers as a language writes them. Reading is strict where the JDK's own is lenient: a grouping
 * sign stands before every three digits, or every two above the thousands as in India, or nowhere.
 * Otherwise the German 12,5 would be read as 125 in English, and nobody would see it. Signs come
 * from Unicode CLDR, as the JDK ships it.
 */
public final class NumberText {

  private final char decimal;
  private final char grouping;
  private final char minus;

  private NumberText(DecimalFormatSymbols symbols) {
    this.decimal = symbols.getDecimalSeparator();
    this.grouping = symbols.getGroupingSeparator();
    this.minus = symbols.getMinusSign();
  }

  public static NumberText of(Locale locale) {
    return new NumberText(DecimalFormatSymbols.getInstance(locale));
  }

  /** The number that the whole text is; digits of any script are read. */
  public Optional<BigDecimal> read(String text) {
    int start = 0;
    boolean negative = false;
    if (!text.isEmpty() && (isMinus(text.charAt(0)) || text.charAt(0) == '+')) {
      negative = text.charAt(0) != '+';
      start = 1;
    }
    int point = text.indexOf(decimal, start);
    String whole = text.substring(start, point < 0 ? text.length() : point);
    String fraction = point < 0 ? "" : text.substring(point + 1);
    Optional<String> wholeDigits = whole.isEmpty() ? Optional.of("") : ungrouped(whole);
    Optional<String> fractionDigits = digits(fraction);
    if (wholeDigits.isEmpty()
        || fractionDigits.isEmpty()
        || (whole.isEmpty() && fraction.isEmpty())
        || (point >= 0 && fraction.isEmpty())) {
      return Optional.empty();
    }
    BigDecimal number =
        new BigDecimal("0" + wholeDigits.get() + (point < 0 ? "" : "." + fractionDigits.get()));
    return Optional.of(negative ? number.negate() : number);
  }

  private boolean isMinus(char c) {
    return c == minus || c == '-' || c == '\u2212';
  }

  /** The digits before the point, if they stand in groups as they should or in none. */
  private Optional<String> ungrouped(String whole) {
    StringBuilder digits = new StringBuilder();
    int sinceSign = 0;
    int groups = 0;
    int firstGroup = 0;
    boolean allPairs = true;
    boolean allTriples = true;
    for (int i = 0; i < whole.length(); i++) {
      char c = whole.charAt(i);
      if (isGrouping(c)) {
        if (groups == 0) {
          firstGroup = sinceSign;
        } else {
          allPairs &= sinceSign == 2;
          allTriples &= sinceSign == 3;
        }
        groups++;
        sinceSign = 0;
        continue;
      }
      int digit = Character.digit(c, 10);
      if (digit < 0) {
        return Optional.empty();
      }
      digits.append((char) ('0' + digit));
      sinceSign++;
    }
    boolean grouped =
        groups == 0
            || (sinceSign == 3 && firstGroup >= 1 && firstGroup <= 3 && (allPairs || allTriples));
    return grouped ? Optional.of(digits.toString()) : Optional.empty();
  }

  /** Spaces that set off groups are written in many ways, and so are apostrophes. */
  private boolean isGrouping(char c) {
    return c == grouping
        || (isSpace(grouping) && isSpace(c))
        || (isApostrophe(grouping) && isApostrophe(c));
  }

  private static boolean isSpace(char c) {
    return c == ' ' || c == '\u00a0' || c == '\u202f' || c == '\u2009';
  }

  private static boolean isApostrophe(char c) {
    return c == '\'' || c == '\u2019';
  }

  private static Optional<String> digits(String text) {
    StringBuilder digits = new StringBuilder(text.length());
    for (int i = 0; i < text.length(); i++) {
      int digit = Character.digit(text.charAt(i), 10);
      if (digit < 0) {
        return Optional.empty();
      }
      digits.append((char) ('0' + digit));
    }
    return Optional.of(digits.toString());
  }
}
