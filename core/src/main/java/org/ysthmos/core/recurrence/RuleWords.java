package org.ysthmos.core.recurrence;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.Month;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Reads how often something comes round, as people write it into a table: {@code every fourth
 * Friday}, {@code every 10 days}, {@code the last working day of each month}, or a rule as it is.
 */
public final class RuleWords {

  /**
   * What was read.
   *
   * @param at the time of day; empty if none is said
   * @param offDays what the words say of days that are no working days
   */
  public record Said(RecurrenceRule rule, Optional<LocalTime> at, OffDays offDays) {}

  /** How people count, from the first on. */
  static final List<String> ORDINALS =
      List.of(
          "first",
          "second",
          "third",
          "fourth",
          "fifth",
          "sixth",
          "seventh",
          "eighth",
          "ninth",
          "tenth",
          "eleventh",
          "twelfth");

  private static final Pattern AT = Pattern.compile("\\s+at\\s+(\\d{1,2}):(\\d{2})$");
  private static final Pattern NTH = Pattern.compile("(\\d{1,3})(?:st|nd|rd|th)?");
  private static final Pattern OF_MONTH =
      Pattern.compile("(?:on )?the (.+) of (?:each|every)(?: (.+))? month");
  private static final Pattern OF_YEAR =
      Pattern.compile("(?:each|every) year on (?:the )?(\\d{1,2})(?:st|nd|rd|th)?(?: of)? (\\S+)");
  private static final Pattern UNITS =
      Pattern.compile("(?:every|each)(?: (.+))? (hour|day|week|month|year)s?(?: on (.+))?");
  private static final Pattern WEEKDAY = Pattern.compile("(?:every|each)(?: (\\S+))? (\\S+day)s?");

  private RuleWords() {}

  /**
   * @throws IllegalArgumentException if it says nothing that is known; the message says what may be
   *     written
   */
  public static Said read(String written) {
    String words = written.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
    if (words.startsWith("freq=") || words.startsWith("rrule:")) {
      return new Said(RecurrenceRule.parse(written), Optional.empty(), OffDays.KEEP);
    }
    Matcher at = AT.matcher(words);
    Optional<LocalTime> time = at.find() ? Optional.of(time(at)) : Optional.empty();
    String often = time.isPresent() ? words.substring(0, at.start()) : words;
    boolean working = often.contains("working day");
    String rule =
        rule(often)
            .orElseThrow(
                () ->
                    new IllegalArgumentException(
                        "“%s” says nothing that comes round; write for example every Monday, every fourth Friday, every 10 days, the last working day of each month, or a rule such as FREQ=DAILY"
                            .formatted(written.strip())));
    return new Said(
        RecurrenceRule.parse(rule),
        time,
        !working ? OffDays.KEEP : often.contains("last") ? OffDays.BEFORE : offDaysOf(often));
  }

  private static OffDays offDaysOf(String words) {
    return words.contains("first") ? OffDays.NEXT : OffDays.LEAVE_OUT;
  }

  private static LocalTime time(Matcher at) {
    try {
      return LocalTime.of(Integer.parseInt(at.group(1)), Integer.parseInt(at.group(2)));
    } catch (DateTimeException e) {
      throw new IllegalArgumentException(
          "“%s:%s” is no time of day".formatted(at.group(1), at.group(2)), e);
    }
  }

  private static Optional<String> rule(String words) {
    switch (words) {
      case "hourly" -> {
        return Optional.of("FREQ=HOURLY");
      }
      case "daily", "every working day", "each working day" -> {
        return Optional.of("FREQ=DAILY");
      }
      case "weekly", "monthly", "yearly" -> {
        return Optional.of("FREQ=" + words.toUpperCase(Locale.ROOT));
      }
      case "every day from monday to friday", "every weekday" -> {
        return Optional.of("FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR");
      }
      default -> {}
    }
    Matcher ofMonth = OF_MONTH.matcher(words);
    if (ofMonth.matches()) {
      return interval(ofMonth.group(2)).flatMap(every -> ofMonth(ofMonth.group(1), every));
    }
    Matcher ofYear = OF_YEAR.matcher(words);
    if (ofYear.matches()) {
      return month(ofYear.group(2))
          .map(
              month ->
                  "FREQ=YEARLY;BYMONTH=%d;BYMONTHDAY=%s"
                      .formatted(month.getValue(), ofYear.group(1)));
    }
    Matcher units = UNITS.matcher(words);
    if (units.matches()) {
      return units(units);
    }
    Matcher weekday = WEEKDAY.matcher(words);
    if (weekday.matches() && interval(weekday.group(1)).isPresent()) {
      return day(weekday.group(2))
          .map(day -> "FREQ=WEEKLY;BYDAY=" + day + ";INTERVAL=" + interval(weekday.group(1)).get());
    }
    String listed = words.replaceFirst("^(weekly on|every|each|on) ", "");
    return listed.equals(words) ? Optional.empty() : days(listed).map("FREQ=WEEKLY;BYDAY="::concat);
  }

  private static Optional<String> units(Matcher units) {
    Optional<Integer> interval = interval(units.group(1));
    String on = units.group(3);
    String unit = units.group(2);
    String frequency = unit.equals("day") ? "DAILY" : unit.toUpperCase(Locale.ROOT) + "LY";
    if (interval.isEmpty() || (on != null && !unit.equals("week"))) {
      return Optional.empty();
    }
    String rule = "FREQ=%s;INTERVAL=%d".formatted(frequency, interval.get());
    return on == null ? Optional.of(rule) : days(on).map(days -> rule + ";BYDAY=" + days);
  }

  private static Optional<String> ofMonth(String which, int every) {
    String rule = "FREQ=MONTHLY;INTERVAL=%d;".formatted(every);
    if (which.equals("last day") || which.equals("last working day")) {
      return Optional.of(rule + "BYMONTHDAY=-1");
    }
    if (which.equals("first working day")) {
      return Optional.of(rule + "BYMONTHDAY=1");
    }
    List<String> monthDays = new ArrayList<>();
    List<String> weekdays = new ArrayList<>();
    for (String one : which.split(", | and ", -1)) {
      Matcher nth = NTH.matcher(one);
      int space = one.lastIndexOf(' ');
      if (nth.matches()) {
        monthDays.add(nth.group(1));
      } else if (space > 0) {
        Optional<Integer> position = position(one.substring(0, space));
        String what = one.substring(space + 1);
        if (position.isPresent() && what.equals("weekday") && which.equals(one)) {
          return Optional.of(rule + "BYDAY=MO,TU,WE,TH,FR;BYSETPOS=" + position.get());
        }
        Optional<String> day = day(what);
        if (position.isEmpty() || day.isEmpty()) {
          return Optional.empty();
        }
        weekdays.add(position.get() + day.get());
      } else {
        return Optional.empty();
      }
    }
    if (!monthDays.isEmpty() && !weekdays.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        monthDays.isEmpty()
            ? rule + "BYDAY=" + String.join(",", weekdays)
            : rule + "BYMONTHDAY=" + String.join(",", monthDays));
  }

  /** {@code other}, {@code fourth}, {@code 10}: every how many; one if nothing is said. */
  private static Optional<Integer> interval(@Nullable String words) {
    if (words == null) {
      return Optional.of(1);
    }
    if (words.equals("other")) {
      return Optional.of(2);
    }
    return number(words);
  }

  /** {@code first}, {@code last}, {@code second-to-last}: which of them. */
  private static Optional<Integer> position(String words) {
    if (words.equals("last")) {
      return Optional.of(-1);
    }
    String fromTheEnd = words.replace("-to-last", "");
    return number(fromTheEnd).map(at -> fromTheEnd.equals(words) ? at : -at);
  }

  private static Optional<Integer> number(String words) {
    int ordinal = ORDINALS.indexOf(words);
    if (ordinal >= 0) {
      return Optional.of(ordinal + 1);
    }
    Matcher nth = NTH.matcher(words);
    return nth.matches() && Integer.parseInt(nth.group(1)) > 0
        ? Optional.of(Integer.parseInt(nth.group(1)))
        : Optional.empty();
  }

  private static Optional<String> days(String listed) {
    List<String> days = new ArrayList<>();
    for (String one : listed.split(", | and |,", -1)) {
      Optional<String> day = day(one.strip());
      if (day.isEmpty()) {
        return Optional.empty();
      }
      days.add(day.get());
    }
    return Optional.of(String.join(",", days));
  }

  /** A day of the week by its name or the first three letters of that. */
  private static Optional<String> day(String word) {
    for (DayOfWeek day : DayOfWeek.values()) {
      String name = day.getDisplayName(TextStyle.FULL, Locale.ENGLISH).toLowerCase(Locale.ROOT);
      if (word.equals(name) || word.equals(name + "s") || word.equals(name.substring(0, 3))) {
        return Optional.of(name.substring(0, 2).toUpperCase(Locale.ROOT));
      }
    }
    return Optional.empty();
  }

  private static Optional<Month> month(String word) {
    for (Month month : Month.values()) {
      String name = month.getDisplayName(TextStyle.FULL, Locale.ENGLISH).toLowerCase(Locale.ROOT);
      if (word.equals(name) || word.equals(name.substring(0, 3))) {
        return Optional.of(month);
      }
    }
    return Optional.empty();
  }
}
