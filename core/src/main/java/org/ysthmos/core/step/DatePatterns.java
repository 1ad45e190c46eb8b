package org.ysthmos.core.step;

import java.text.ParsePosition;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.YearMonth;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.ResolverStyle;
import java.time.format.TextStyle;
import java.time.temporal.ChronoField;
import java.time.temporal.TemporalAccessor;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.ysthmos.core.text.Letters;

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
   * A written date as the formatters know it: accents composed (UAX #15, form C), and the digits of
   * any script as the ten of ASCII.
   */
  static String plain(String text) {
    if (Letters.isAscii(text)) {
      return text;
    }
    StringBuilder plain = new StringBuilder(text.length());
    Letters.composed(text)
        .codePoints()
        .map(sign -> Character.isDigit(sign) ? '0' + Character.digit(sign, 10) : sign)
        .forEach(plain::appendCodePoint);
    return plain.toString();
  }

  /**
   * What contradicts itself in a text that fits a pattern: a weekday that its date is not.
   *
   * @return empty if there is no such thing in it
   */
  static Optional<String> contradiction(String text, DateTimeFormatter formatter, Locale locale) {
    TemporalAccessor said = said(text, formatter);
    if (said == null) {
      return Optional.empty();
    }
    for (ChronoField field :
        List.of(
            ChronoField.DAY_OF_WEEK,
            ChronoField.YEAR,
            ChronoField.MONTH_OF_YEAR,
            ChronoField.DAY_OF_MONTH)) {
      if (!said.isSupported(field)) {
        return Optional.empty();
      }
    }
    YearMonth month = YearMonth.of(said.get(ChronoField.YEAR), said.get(ChronoField.MONTH_OF_YEAR));
    int day = said.get(ChronoField.DAY_OF_MONTH);
    if (!month.isValidDay(day)) {
      return Optional.empty();
    }
    DayOfWeek is = month.atDay(day).getDayOfWeek();
    DayOfWeek named = DayOfWeek.of(said.get(ChronoField.DAY_OF_WEEK));
    return is == named
        ? Optional.empty()
        : Optional.of(
            "“%s” says %s, but %s is a %s"
                .formatted(text, name(named, locale), month.atDay(day), name(is, locale)));
  }

  /** Whether a text is written as the pattern says, be it a real date or not. */
  static boolean fits(String text, DateTimeFormatter formatter) {
    return said(text, formatter) != null;
  }

  /** The fields as they are written, without asking whether they agree; null if it does not fit. */
  private static @Nullable TemporalAccessor said(String text, DateTimeFormatter formatter) {
    ParsePosition end = new ParsePosition(0);
    TemporalAccessor said = formatter.parseUnresolved(text, end);
    return said == null || end.getErrorIndex() >= 0 || end.getIndex() < text.length() ? null : said;
  }

  private static String name(DayOfWeek day, Locale locale) {
    return day.getDisplayName(TextStyle.FULL, locale);
  }

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
