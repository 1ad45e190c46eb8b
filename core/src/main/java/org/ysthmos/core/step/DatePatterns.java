package org.ysthmos.core.step;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * Patterns of days and moments: those of {@link DateTimeFormatter}, and the words {@code iso} and
 * {@code iso-week}. Weeks are read only as ISO 8601 counts them, since pattern letters count weeks
 * by the country of the language, so that the same text would be two days.
 */
final class DatePatterns {

  static final String ISO = "iso";
  static final String ISO_WEEK = "iso-week";

  private static final String WEEK_LETTERS = "YwWec";

  private DatePatterns() {}

  /**
   * @throws IllegalArgumentException if it is no pattern, or says no whole day
   */
  static DateTimeFormatter day(String pattern, Locale locale) {
    DateTimeFormatter formatter = formatter(pattern, locale, DateTimeFormatter.ISO_LOCAL_DATE);
    LocalDate probe = LocalDate.of(2024, 2, 29);
    try {
      if (LocalDate.parse(formatter.format(probe), formatter).equals(probe)) {
        return formatter;
      }
    } catch (DateTimeException incomplete) {
      throw notWhole(pattern, "year, month and day; for example d MMMM uuuu", incomplete);
    }
    throw notWhole(pattern, "year, month and day; for example d MMMM uuuu", null);
  }

  /**
   * @throws IllegalArgumentException if it is no pattern, or says no whole day and time
   */
  static DateTimeFormatter dayAndTime(String pattern, Locale locale) {
    DateTimeFormatter formatter = formatter(pattern, locale, DateTimeFormatter.ISO_LOCAL_DATE_TIME);
    LocalDateTime probe = LocalDateTime.of(2024, 2, 29, 13, 0);
    try {
      String written = formatter.format(probe.atOffset(ZoneOffset.UTC));
      if (LocalDateTime.parse(written, formatter).equals(probe)) {
        return formatter;
      }
    } catch (DateTimeException incomplete) {
      throw notWhole(pattern, "day and time; for example d MMMM uuuu HH:mm", incomplete);
    }
    throw notWhole(pattern, "day and time; for example d MMMM uuuu HH:mm", null);
  }

  private static IllegalArgumentException notWhole(
      String pattern, String whole, @Nullable Throwable cause) {
    return new IllegalArgumentException("“" + pattern + "” does not say " + whole, cause);
  }

  /**
   * A formatter for reading or writing, strict and without case.
   *
   * @throws IllegalArgumentException if it is no pattern
   */
  static DateTimeFormatter formatter(String pattern, Locale locale, DateTimeFormatter iso) {
    if (pattern.equals(ISO)) {
      return iso.withResolverStyle(ResolverStyle.STRICT);
    }
    if (pattern.equals(ISO_WEEK)) {
      return DateTimeFormatter.ISO_WEEK_DATE.withResolverStyle(ResolverStyle.STRICT);
    }
    try {
      return new DateTimeFormatterBuilder()
          .parseCaseInsensitive()
          .appendPattern(checked(pattern))
          .toFormatter(locale)
          .withResolverStyle(ResolverStyle.STRICT);
    } catch (IllegalArgumentException e) {
      throw new IllegalArgumentException(
          "“" + pattern + "” is no date pattern: " + e.getMessage(), e);
    }
  }

  /** The pattern with y for u: a year of the era, which without its era is no year at all. */
  private static String checked(String pattern) {
    StringBuilder out = new StringBuilder(pattern.length());
    boolean quoted = false;
    for (int i = 0; i < pattern.length(); i++) {
      char c = pattern.charAt(i);
      quoted ^= c == '\'';
      if (!quoted && WEEK_LETTERS.indexOf(c) >= 0) {
        throw new IllegalArgumentException(
            "the letter “" + c + "” counts weeks by country; write iso-week for ISO 8601 weeks");
      }
      out.append(!quoted && c == 'y' ? 'u' : c);
    }
    return out.toString();
  }
}
