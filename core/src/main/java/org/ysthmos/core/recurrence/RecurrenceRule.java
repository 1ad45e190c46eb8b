package org.ysthmos.core.recurrence;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A recurrence rule as RFC 5545 section 3.3.10 writes it, such as {@code FREQ=WEEKLY;INTERVAL=4;
 * BYDAY=FR}. All that the section forbids is refused, as libraries take some of it in silence.
 *
 * @param parts name to value, in the order of the section
 */
public record RecurrenceRule(SequencedMap<String, String> parts) {

  /** How often the rule comes round by itself, before it is narrowed or widened. */
  public enum Frequency {
    SECONDLY,
    MINUTELY,
    HOURLY,
    DAILY,
    WEEKLY,
    MONTHLY,
    YEARLY;

    /** Whether it comes within a day, so that changes of the clock matter to its steps. */
    public boolean isWithinADay() {
      return compareTo(DAILY) < 0;
    }
  }

  static final String FREQ = "FREQ";
  static final String INTERVAL = "INTERVAL";
  static final String COUNT = "COUNT";
  static final String UNTIL = "UNTIL";
  static final String BYDAY = "BYDAY";
  static final String BYMONTHDAY = "BYMONTHDAY";
  static final String BYYEARDAY = "BYYEARDAY";
  static final String BYWEEKNO = "BYWEEKNO";
  static final String BYMONTH = "BYMONTH";
  static final String BYSETPOS = "BYSETPOS";
  static final String WKST = "WKST";

  /** All parts, in the order in which they are written. */
  private static final List<String> ORDER =
      List.of(
          FREQ,
          UNTIL,
          COUNT,
          INTERVAL,
          "BYSECOND",
          "BYMINUTE",
          "BYHOUR",
          BYDAY,
          BYMONTHDAY,
          BYYEARDAY,
          BYWEEKNO,
          BYMONTH,
          BYSETPOS,
          WKST);

  private static final Set<String> DAYS = Set.of("MO", "TU", "WE", "TH", "FR", "SA", "SU");
  private static final Pattern BY_DAY = Pattern.compile("([+-]?\\d{1,2})?([A-Z]{2})");
  private static final Pattern NUMBER = Pattern.compile("[+-]?\\d{1,3}");
  private static final int MOST = 1_000_000;

  private static final DateTimeFormatter LOCAL = DateTimeFormatter.ofPattern("uuuuMMdd'T'HHmmss");
  private static final DateTimeFormatter UTC = DateTimeFormatter.ofPattern("uuuuMMdd'T'HHmmss'Z'");

  public RecurrenceRule {
    parts = Collections.unmodifiableSequencedMap(new LinkedHashMap<>(parts));
  }

  /**
   * @param written with or without {@code RRULE:} before it; small letters are taken for capitals
   * @throws IllegalArgumentException if it is no rule of the section; the message says what is
   *     wrong
   */
  public static RecurrenceRule parse(String written) {
    String text = written.strip().toUpperCase(Locale.ROOT);
    text = text.startsWith("RRULE:") ? text.substring("RRULE:".length()) : text;
    SequencedMap<String, String> given = new LinkedHashMap<>();
    for (String part : text.split(";", -1)) {
      int at = part.indexOf('=');
      String name = at < 0 ? part : part.substring(0, at);
      if (at < 1 || at == part.length() - 1) {
        throw refused("“%s” is no part of a rule; write for example FREQ=DAILY".formatted(part));
      }
      if (!ORDER.contains(name)) {
        throw refused("“%s” is no part of a rule".formatted(name));
      }
      if (given.putIfAbsent(name, part.substring(at + 1)) != null) {
        throw refused("%s stands twice".formatted(name));
      }
    }
    SequencedMap<String, String> parts = new LinkedHashMap<>();
    for (String name : ORDER) {
      String value = given.get(name);
      // That it comes each time is what a rule says anyway.
      if (value != null && !(name.equals(INTERVAL) && value.equals("1"))) {
        parts.put(name, value);
      }
    }
    RecurrenceRule rule = new RecurrenceRule(parts);
    rule.check();
    return rule;
  }

  private static IllegalArgumentException refused(String message) {
    return new IllegalArgumentException(message);
  }

  private void check() {
    Frequency frequency = frequency();
    count();
    interval();
    if (parts.containsKey(COUNT) && parts.containsKey(UNTIL)) {
      throw refused("COUNT and UNTIL do not stand together");
    }
    until(ZoneOffset.UTC);
    if (parts.containsKey(WKST) && !DAYS.contains(parts.get(WKST))) {
      throw refused("WKST is a day such as MO, and not “%s”".formatted(parts.get(WKST)));
    }
    days(frequency);
    numbers("BYSECOND", 0, 60);
    numbers("BYMINUTE", 0, 59);
    numbers("BYHOUR", 0, 23);
    numbers(BYMONTH, 1, 12);
    numbers(BYMONTHDAY, -31, 31);
    numbers(BYYEARDAY, -366, 366);
    numbers(BYWEEKNO, -53, 53);
    numbers(BYSETPOS, -366, 366);
    only(BYMONTHDAY, frequency != Frequency.WEEKLY, "not with FREQ=WEEKLY");
    boolean noYearDays =
        Set.of(Frequency.DAILY, Frequency.WEEKLY, Frequency.MONTHLY).contains(frequency);
    only(BYYEARDAY, !noYearDays, "not with FREQ=DAILY, WEEKLY or MONTHLY");
    only(BYWEEKNO, frequency == Frequency.YEARLY, "with FREQ=YEARLY alone");
    boolean narrowed =
        parts.keySet().stream().anyMatch(name -> name.startsWith("BY") && !name.equals(BYSETPOS));
    only(BYSETPOS, narrowed, "beside another part that begins with BY");
  }

  private void only(String part, boolean fits, String words) {
    if (parts.containsKey(part) && !fits) {
      throw refused("%s stands %s".formatted(part, words));
    }
  }

  private void days(Frequency frequency) {
    for (String day : list(BYDAY)) {
      Matcher matcher = BY_DAY.matcher(day);
      if (!matcher.matches() || !DAYS.contains(matcher.group(2))) {
        throw refused("BYDAY has days such as MO or -1FR, and not “%s”".formatted(day));
      }
      String which = matcher.group(1);
      if (which != null) {
        int number = Integer.parseInt(which);
        if (number == 0 || Math.abs(number) > 53) {
          throw refused("“%s” in BYDAY counts from 1 to 53, or backwards from -1".formatted(day));
        }
        boolean counts = frequency == Frequency.MONTHLY || frequency == Frequency.YEARLY;
        if (!counts) {
          throw refused("“%s”: a day is counted with FREQ=MONTHLY or YEARLY alone".formatted(day));
        }
        if (parts.containsKey(BYWEEKNO)) {
          throw refused("“%s”: no day is counted beside BYWEEKNO".formatted(day));
        }
      }
    }
  }

  private void numbers(String part, int least, int most) {
    for (String written : list(part)) {
      boolean number = NUMBER.matcher(written).matches();
      int value = number ? Integer.parseInt(written) : most + 1;
      boolean nothing = value == 0 && least < 0;
      if (value < least || value > most || nothing) {
        throw refused(
            "%s goes from %s to %d%s, and “%s” is none of that"
                .formatted(
                    part,
                    least < 0 ? 1 : least,
                    most,
                    least < 0 ? ", or backwards from -1" : "",
                    written));
      }
    }
  }

  /** The values of a part that may have several. */
  List<String> list(String part) {
    String value = parts.get(part);
    return value == null ? List.of() : List.of(value.split(",", -1));
  }

  public Frequency frequency() {
    String written = parts.get(FREQ);
    for (Frequency frequency : Frequency.values()) {
      if (frequency.name().equals(written)) {
        return frequency;
      }
    }
    throw written == null
        ? refused("FREQ is missing; write for example FREQ=DAILY")
        : refused("FREQ is SECONDLY, MINUTELY, HOURLY, DAILY, WEEKLY, MONTHLY or YEARLY");
  }

  public int interval() {
    return positive(INTERVAL).orElse(1);
  }

  /** Whether it says nothing but so many days, weeks, months or years. */
  public boolean isSpan() {
    return !frequency().isWithinADay() && Set.of(FREQ, INTERVAL).containsAll(parts.keySet());
  }

  /**
   * Whether its times depend on when it starts, as no part of it says on which day they are, or in
   * which week, month or year.
   */
  public boolean needsStart() {
    return !frequency().isWithinADay()
        && (interval() > 1
            || count().isPresent()
            || (frequency() != Frequency.DAILY
                && parts.keySet().stream().noneMatch(part -> part.startsWith("BY"))));
  }

  /** How many days it takes at the most until it comes round by itself. */
  long days() {
    int unit =
        switch (frequency()) {
          case SECONDLY, MINUTELY, HOURLY, DAILY -> 1;
          case WEEKLY -> 7;
          case MONTHLY -> 31;
          case YEARLY -> 366;
        };
    return frequency().isWithinADay() ? 1 : (long) unit * interval();
  }

  /** How many times there are, those that are left out among them; empty if there is no end. */
  public Optional<Integer> count() {
    return positive(COUNT);
  }

  private Optional<Integer> positive(String part) {
    String written = parts.get(part);
    if (written == null) {
      return Optional.empty();
    }
    if (!written.matches("\\d{1,7}")
        || Integer.parseInt(written) < 1
        || Integer.parseInt(written) > MOST) {
      throw refused("%s is a number from 1 to %d, and not “%s”".formatted(part, MOST, written));
    }
    return Optional.of(Integer.parseInt(written));
  }

  /**
   * The last moment that counts: one in UTC as it is, a local one in the zone of the rule, and a
   * day until its end there.
   */
  public Optional<Instant> until(ZoneId zone) {
    String written = parts.get(UNTIL);
    if (written == null) {
      return Optional.empty();
    }
    try {
      if (written.length() == 8) {
        LocalDate day = LocalDate.parse(written, DateTimeFormatter.BASIC_ISO_DATE);
        return Optional.of(day.plusDays(1).atStartOfDay(zone).toInstant().minusNanos(1));
      }
      return Optional.of(
          written.endsWith("Z")
              ? LocalDateTime.parse(written, UTC).toInstant(ZoneOffset.UTC)
              : LocalDateTime.parse(written, LOCAL).atZone(zone).toInstant());
    } catch (DateTimeException e) {
      throw refused(
          "UNTIL is written 20261224 or 20261224T180000Z, and not “%s”".formatted(written));
    }
  }

  /** The rule without its end in time, which is held by whoever searches. */
  String endless() {
    return text(UNTIL);
  }

  private String text(String without) {
    return parts.entrySet().stream()
        .filter(part -> !part.getKey().equals(without))
        .map(part -> part.getKey() + "=" + part.getValue())
        .collect(Collectors.joining(";"));
  }

  /** As it is written in documents. */
  @Override
  public String toString() {
    return text("");
  }
}
