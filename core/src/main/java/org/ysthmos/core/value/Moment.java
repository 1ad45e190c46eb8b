package org.ysthmos.core.value;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A point on the time line. It has no zone of its own; a zone is chosen when it is shown. */
public record Moment(Instant instant) implements Value {

  /** RFC 3339 section 5.6; a fraction may be of any length, an offset of up to 23:59. */
  private static final Pattern RFC_3339 =
      Pattern.compile(
          "(\\d{4}-\\d\\d-\\d\\d)[Tt](\\d\\d:\\d\\d):(\\d\\d)(?:\\.(\\d+))?"
              + "(?:[Zz]|([+-])([01]\\d|2[0-3]):([0-5]\\d))");

  /** How many digits of a fraction a moment keeps. */
  private static final int KEPT_DIGITS = 9;

  /** Where the seconds stand. */
  private static final int SECONDS_START = 17;

  private static final Instant FIRST = Instant.parse("0000-01-01T00:00:00Z");
  private static final Instant LAST = Instant.parse("9999-12-31T23:59:59.999999999Z");

  /** The moment, or a problem if its year in UTC has not four digits, which RFC 3339 needs. */
  public static Computed checked(Instant instant) {
    return instant.isBefore(FIRST) || instant.isAfter(LAST)
        ? Day.outside(instant.toString())
        : new Moment(instant);
  }

  public static Moment of(Instant instant) {
    return new Moment(instant);
  }

  /**
   * Reads an RFC 3339 section 5.6 date-time. A leap second ({@code 23:59:60} in UTC) is read as the
   * second before it, since the time line of {@link Instant} has no place for it; digits of a
   * fraction behind the ninth are left out.
   *
   * @throws DateTimeParseException if the text is no such date-time
   */
  public static Moment parse(String text) {
    Matcher parts = RFC_3339.matcher(text);
    if (!parts.matches()) {
      throw new DateTimeParseException("no RFC 3339 date-time", text, 0);
    }
    boolean leap = parts.group(3).equals("60");
    LocalDateTime local =
        LocalDateTime.parse(
            parts.group(1) + "T" + parts.group(2) + ":" + (leap ? "59" : parts.group(3)));
    Instant instant = local.toInstant(ZoneOffset.UTC).minus(offset(parts)).plusNanos(nanos(parts));
    if (leap) {
      var utc = instant.atOffset(ZoneOffset.UTC);
      if (utc.getHour() != 23 || utc.getMinute() != 59) {
        throw new DateTimeParseException("second 60 exists only at 23:59 UTC", text, SECONDS_START);
      }
    }
    return new Moment(instant);
  }

  private static Duration offset(Matcher parts) {
    if (parts.group(5) == null) {
      return Duration.ZERO;
    }
    Duration offset =
        Duration.ofHours(Integer.parseInt(parts.group(6)))
            .plusMinutes(Integer.parseInt(parts.group(7)));
    return parts.group(5).equals("-") ? offset.negated() : offset;
  }

  private static long nanos(Matcher parts) {
    String fraction = parts.group(4) == null ? "0" : parts.group(4);
    String digits = (fraction + "0".repeat(KEPT_DIGITS)).substring(0, KEPT_DIGITS);
    return Long.parseLong(digits);
  }

  /**
   * The same, with a warning where the time line has no place for what is written.
   *
   * @throws DateTimeParseException if the text is no such date-time
   */
  public static Computed read(String text) {
    Moment moment = parse(text);
    return text.startsWith("60", SECONDS_START)
        ? new Warned(
            moment, "“%s” is a leap second; it is read as the second before".formatted(text))
        : moment;
  }

  @Override
  public ValueType type() {
    return ValueType.MOMENT;
  }

  @Override
  public String display() {
    return instant.toString();
  }
}
