package org.ysthmos.core.recurrence;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.Month;
import java.time.format.DateTimeFormatter;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.ysthmos.core.recurrence.RecurrenceRule.Frequency;

/**
 * A recurrence as people say it: {@code every fourth Friday at 06:00 in Lisbon}. A rule that nobody
 * would say is told as it is written.
 */
public final class RuleSentence {

  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm");
  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("d MMMM uuuu", Locale.ENGLISH);
  private static final List<String> DAYS = List.of("MO", "TU", "WE", "TH", "FR", "SA", "SU");
  private static final Set<String> WEEKDAYS = Set.of("MO", "TU", "WE", "TH", "FR");
  private static final Pattern COUNTED = Pattern.compile("([+-]?\\d{1,2})([A-Z]{2})");

  private final RecurrenceRule rule;
  private final Recurrence recurrence;

  private RuleSentence(RecurrenceRule rule, Recurrence recurrence) {
    this.rule = rule;
    this.recurrence = recurrence;
  }

  public static String of(Recurrence recurrence) {
    Optional<String> working =
        recurrence.rule().flatMap(rule -> new RuleSentence(rule, recurrence).working());
    String often = working.orElseGet(() -> ofRule(recurrence));
    OffDays offDays = working.isPresent() ? OffDays.KEEP : recurrence.offDays();
    String zone = recurrence.zone().getId();
    String place = zone.substring(zone.lastIndexOf('/') + 1).replace('_', ' ');
    String also =
        recurrence.rule().isPresent() && !recurrence.also().isEmpty()
            ? ", and at %d more".formatted(recurrence.also().size())
            : "";
    String without =
        recurrence.without().isEmpty()
            ? ""
            : ", without %d of them".formatted(recurrence.without().size());
    String last = recurrence.last().map(day -> ", until " + DAY.format(day)).orElse("");
    return often + at(recurrence) + " in " + place + offDays(offDays) + also + without + last;
  }

  private static String ofRule(Recurrence recurrence) {
    return recurrence
        .rule()
        .map(rule -> new RuleSentence(rule, recurrence).often())
        .orElse("on the days that are listed");
  }

  /** Where what becomes of days off makes it one that people say of working days. */
  private Optional<String> working() {
    String months = rule.interval() == 1 ? "each month" : everyNth("month");
    String monthDay = String.join(",", rule.list(RecurrenceRule.BYMONTHDAY));
    boolean monthly = rule.frequency() == Frequency.MONTHLY && has(RecurrenceRule.BYMONTHDAY);
    Optional<String> words =
        switch (recurrence.offDays()) {
          case BEFORE ->
              monthly && monthDay.equals("-1")
                  ? Optional.of("on the last working day of " + months)
                  : Optional.empty();
          case NEXT ->
              monthly && monthDay.equals("1")
                  ? Optional.of("on the first working day of " + months)
                  : Optional.empty();
          case LEAVE_OUT ->
              rule.frequency() == Frequency.DAILY && rule.interval() == 1
                  ? alone("every working day")
                  : Optional.empty();
          case KEEP -> Optional.empty();
        };
    return words.map(said -> said + end());
  }

  /** The time of day, unless the rule itself says at which it is. */
  private static String at(Recurrence recurrence) {
    boolean says =
        recurrence
            .rule()
            .map(
                rule ->
                    rule.frequency().isWithinADay()
                        || rule.parts().containsKey("BYHOUR")
                        || rule.parts().containsKey("BYMINUTE"))
            .orElse(true);
    return says ? "" : " at " + TIME.format(recurrence.start());
  }

  private static String offDays(OffDays offDays) {
    return switch (offDays) {
      case KEEP -> "";
      case NEXT -> ", on the next working day if that is none";
      case BEFORE -> ", on the working day before if that is none";
      case LEAVE_OUT -> ", on working days alone";
    };
  }

  private String often() {
    return said().map(words -> words + end()).orElse("by the rule " + rule);
  }

  private String end() {
    return rule.count()
            .map(count -> count == 1 ? ", once" : ", %d times".formatted(count))
            .orElse("")
        + rule.until(recurrence.zone())
            .map(until -> ", until " + DAY.format(until.atZone(recurrence.zone())))
            .orElse("");
  }

  private Optional<String> said() {
    return switch (rule.frequency()) {
      case SECONDLY -> alone(every("second"));
      case MINUTELY -> alone(every("minute"));
      case HOURLY -> alone(every("hour"));
      case DAILY -> alone(every("day"));
      case WEEKLY -> weekly();
      case MONTHLY -> monthly();
      case YEARLY -> yearly();
    };
  }

  /** Whether there is nothing in the rule beside what is named, and what says how often. */
  private boolean has(String... parts) {
    Set<String> known =
        new HashSet<>(
            Set.of(
                RecurrenceRule.FREQ,
                RecurrenceRule.INTERVAL,
                RecurrenceRule.COUNT,
                RecurrenceRule.UNTIL,
                RecurrenceRule.WKST));
    known.addAll(List.of(parts));
    return known.containsAll(rule.parts().keySet());
  }

  private Optional<String> alone(String words) {
    return has() ? Optional.of(words) : Optional.empty();
  }

  private String every(String unit) {
    return rule.interval() == 1 ? "every " + unit : "every %d %ss".formatted(rule.interval(), unit);
  }

  /** {@code every}, or {@code every fourth} of something. */
  private String everyNth(String what) {
    int interval = rule.interval();
    return interval == 1
        ? "every " + what
        : "every %s %s".formatted(interval == 2 ? "other" : ordinal(interval), what);
  }

  private Optional<String> weekly() {
    if (!has(RecurrenceRule.BYDAY)) {
      return Optional.empty();
    }
    List<String> days = rule.list(RecurrenceRule.BYDAY);
    if (days.isEmpty()) {
      return Optional.of(everyNth(name(recurrence.start().getDayOfWeek())));
    }
    if (Set.copyOf(days).equals(WEEKDAYS)) {
      return Optional.of(
          rule.interval() == 1
              ? "every day from Monday to Friday"
              : everyNth("week") + " from Monday to Friday");
    }
    List<String> names = DAYS.stream().filter(days::contains).map(RuleSentence::name).toList();
    return Optional.of(
        names.size() == 1
            ? everyNth(names.getFirst())
            : rule.interval() == 1
                ? "every " + listed(names)
                : everyNth("week") + " on " + listed(names));
  }

  private Optional<String> monthly() {
    String months = rule.interval() == 1 ? "each month" : everyNth("month");
    List<String> monthDays = rule.list(RecurrenceRule.BYMONTHDAY);
    List<String> days = rule.list(RecurrenceRule.BYDAY);
    if (has()) {
      return Optional.of(
          "on the %s of %s".formatted(nth(recurrence.start().getDayOfMonth()), months));
    }
    if (has(RecurrenceRule.BYMONTHDAY)) {
      return Optional.of(
          "on the %s of %s"
              .formatted(
                  listed(monthDays.stream().map(day -> monthDay(Integer.parseInt(day))).toList()),
                  months));
    }
    if (has(RecurrenceRule.BYDAY)) {
      List<String> counted = days.stream().map(RuleSentence::counted).toList();
      return counted.contains("")
          ? Optional.empty()
          : Optional.of("on the %s of %s".formatted(listed(counted), months));
    }
    boolean weekdays = Set.copyOf(days).equals(WEEKDAYS);
    List<String> positions = rule.list(RecurrenceRule.BYSETPOS);
    if (has(RecurrenceRule.BYDAY, RecurrenceRule.BYSETPOS) && weekdays && positions.size() == 1) {
      int position = Integer.parseInt(positions.getFirst());
      return Optional.of("on the %s weekday of %s".formatted(which(position), months));
    }
    return Optional.empty();
  }

  private Optional<String> yearly() {
    String years = rule.interval() == 1 ? "each year" : everyNth("year");
    LocalDate start = recurrence.start().toLocalDate();
    List<String> months = rule.list(RecurrenceRule.BYMONTH);
    List<String> monthDays = rule.list(RecurrenceRule.BYMONTHDAY);
    if (!has(RecurrenceRule.BYMONTH, RecurrenceRule.BYMONTHDAY)
        || months.size() > 1
        || monthDays.size() > 1) {
      return Optional.empty();
    }
    if (months.isEmpty() && !monthDays.isEmpty()) {
      return Optional.empty();
    }
    int month = months.isEmpty() ? start.getMonthValue() : Integer.parseInt(months.getFirst());
    int day = monthDays.isEmpty() ? start.getDayOfMonth() : Integer.parseInt(monthDays.getFirst());
    String name = Month.of(month).getDisplayName(TextStyle.FULL, Locale.ENGLISH);
    return Optional.of(
        day > 0
            ? "%s on %d %s".formatted(years, day, name)
            : "%s on the %s of %s".formatted(years, monthDay(day), name));
  }

  /** {@code first Friday}; empty if the day is not counted. */
  private static String counted(String day) {
    Matcher matcher = COUNTED.matcher(day);
    return matcher.matches()
        ? which(Integer.parseInt(matcher.group(1))) + " " + name(matcher.group(2))
        : "";
  }

  private static String which(int position) {
    if (position == -1) {
      return "last";
    }
    return position > 0 ? ordinal(position) : ordinal(-position) + "-to-last";
  }

  private static String monthDay(int day) {
    return day > 0 ? nth(day) : (day == -1 ? "last" : ordinal(-day) + "-to-last") + " day";
  }

  private static String ordinal(int number) {
    return number <= RuleWords.ORDINALS.size() ? RuleWords.ORDINALS.get(number - 1) : nth(number);
  }

  private static String nth(int number) {
    boolean teen = number % 100 >= 11 && number % 100 <= 13;
    String ending =
        switch (teen ? 0 : number % 10) {
          case 1 -> "st";
          case 2 -> "nd";
          case 3 -> "rd";
          default -> "th";
        };
    return number + ending;
  }

  private static String name(String day) {
    return name(DayOfWeek.of(DAYS.indexOf(day) + 1));
  }

  private static String name(DayOfWeek day) {
    return day.getDisplayName(TextStyle.FULL, Locale.ENGLISH);
  }

  private static String listed(List<String> words) {
    List<String> all = new ArrayList<>(words);
    String last = all.removeLast();
    return all.isEmpty() ? last : all.stream().collect(Collectors.joining(", ")) + " and " + last;
  }
}
