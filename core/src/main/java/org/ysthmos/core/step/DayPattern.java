package org.ysthmos.core.step;

import java.time.LocalDate;
import java.time.Month;
import java.time.YearMonth;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Reads days by a {@link DateTimeFormatter} pattern. For the patterns people use most (days, months
 * by number or name, years of four digits, and signs between them) it reads them itself, some ten
 * times faster; whatever does not fit goes to the formatter, which alone decides what is no day. A
 * test holds both together.
 */
public final class DayPattern {

  private sealed interface Token {}

  private record Sign(char sign) implements Token {}

  /** A number of so many digits at least and at most. */
  private record Digits(char field, int least, int most) implements Token {}

  /** A month by one of its names, the longest first. */
  private record MonthName(List<Map.Entry<String, Integer>> names) implements Token {}

  private final DateTimeFormatter formatter;
  private final List<Token> tokens;

  private DayPattern(DateTimeFormatter formatter, List<Token> tokens) {
    this.formatter = formatter;
    this.tokens = tokens;
  }

  /**
   * @throws IllegalArgumentException if it is no pattern, or says no whole day
   */
  public static DayPattern of(String pattern, Locale locale) {
    DateTimeFormatter formatter = DatePatterns.day(pattern, locale);
    String plain = pattern.equals(DatePatterns.ISO) ? "uuuu-MM-dd" : pattern;
    return new DayPattern(formatter, tokens(plain, locale));
  }

  /** The tokens of a simple pattern; none if the pattern is not simple. */
  private static List<Token> tokens(String pattern, Locale locale) {
    List<Token> tokens = new ArrayList<>();
    for (int i = 0; i < pattern.length(); ) {
      char c = pattern.charAt(i);
      int end = i;
      while (end < pattern.length() && pattern.charAt(end) == c) {
        end++;
      }
      int length = end - i;
      if (!Character.isLetter(c)) {
        if ("'[]{}#".indexOf(c) >= 0) {
          return List.of();
        }
        for (int k = 0; k < length; k++) {
          tokens.add(new Sign(c));
        }
      } else if (c == 'd' && length <= 2) {
        tokens.add(new Digits('d', length, 2));
      } else if (c == 'M' && length <= 2) {
        tokens.add(new Digits('M', length, 2));
      } else if ((c == 'u' || c == 'y') && length == 4) {
        tokens.add(new Digits('u', 4, 4));
      } else if (c == 'M' && length <= 4) {
        tokens.add(new MonthName(names(length == 4 ? TextStyle.FULL : TextStyle.SHORT, locale)));
      } else {
        return List.of();
      }
      i = end;
    }
    return adjacent(tokens) ? List.of() : tokens;
  }

  private static boolean adjacent(List<Token> tokens) {
    for (int i = 1; i < tokens.size(); i++) {
      if (!(tokens.get(i - 1) instanceof Sign) && !(tokens.get(i) instanceof Sign)) {
        return true;
      }
    }
    return false;
  }

  private static List<Map.Entry<String, Integer>> names(TextStyle style, Locale locale) {
    return Arrays.stream(Month.values())
        .map(month -> Map.entry(month.getDisplayName(style, locale), month.getValue()))
        .sorted(Comparator.comparingInt((Map.Entry<String, Integer> e) -> -e.getKey().length()))
        .toList();
  }

  /** What contradicts itself in a text that is written this way and is no day. */
  Optional<String> contradiction(String written, Locale locale) {
    return DatePatterns.contradiction(DatePatterns.plain(written), formatter, locale);
  }

  /** The day that the whole text is, or nothing; digits of any script are read. */
  public Optional<LocalDate> read(String written) {
    String text = DatePatterns.plain(written);
    LocalDate quick = quick(text);
    if (quick != null) {
      return Optional.of(quick);
    }
    if (!DatePatterns.fits(text, formatter)) {
      return Optional.empty();
    }
    try {
      return Optional.of(LocalDate.parse(text, formatter));
    } catch (DateTimeParseException notThisWay) {
      return Optional.empty();
    }
  }

  private @Nullable LocalDate quick(String text) {
    if (tokens.isEmpty()) {
      return null;
    }
    int at = 0;
    int day = 0;
    int month = 0;
    int year = 0;
    for (int i = 0; i < tokens.size(); i++) {
      switch (tokens.get(i)) {
        case Sign sign -> {
          if (at >= text.length() || text.charAt(at) != sign.sign()) {
            return null;
          }
          at++;
        }
        case MonthName name -> {
          Map.Entry<String, Integer> found = nameAt(name, text, at);
          if (found == null) {
            return null;
          }
          month = found.getValue();
          at += found.getKey().length();
        }
        case Digits digits -> {
          int number = 0;
          int start = at;
          while (at < text.length() && at - start < digits.most() && isDigit(text.charAt(at))) {
            number = number * 10 + text.charAt(at) - '0';
            at++;
          }
          if (at - start < digits.least() || (at < text.length() && isDigit(text.charAt(at)))) {
            return null;
          }
          switch (digits.field()) {
            case 'd' -> day = number;
            case 'M' -> month = number;
            default -> year = number;
          }
        }
      }
    }
    boolean real =
        at == text.length()
            && month >= 1
            && month <= 12
            && day >= 1
            && (day <= 28 || day <= YearMonth.of(year, month).lengthOfMonth());
    return real ? LocalDate.of(year, month, day) : null;
  }

  private static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  private static Map.@Nullable Entry<String, Integer> nameAt(MonthName name, String text, int at) {
    List<Map.Entry<String, Integer>> names = name.names();
    for (int i = 0; i < names.size(); i++) {
      String candidate = names.get(i).getKey();
      if (text.regionMatches(true, at, candidate, 0, candidate.length())) {
        return names.get(i);
      }
    }
    return null;
  }
}
