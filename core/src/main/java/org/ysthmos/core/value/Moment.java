package org.ysthmos.core.value;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.DateTimeParseException;
import java.time.format.ResolverStyle;
import java.time.temporal.ChronoField;
import java.util.Locale;

/** A point on the time line. It has no zone of its own; a zone is chosen when it is shown. */
public record Moment(Instant instant) implements Value {

  private static final DateTimeFormatter RFC_3339 =
      new DateTimeFormatterBuilder()
          .parseCaseInsensitive()
          .appendValue(ChronoField.YEAR, 4)
          .appendLiteral('-')
          .appendValue(ChronoField.MONTH_OF_YEAR, 2)
          .appendLiteral('-')
          .appendValue(ChronoField.DAY_OF_MONTH, 2)
          .appendLiteral('T')
          .appendValue(ChronoField.HOUR_OF_DAY, 2)
          .appendLiteral(':')
          .appendValue(ChronoField.MINUTE_OF_HOUR, 2)
          .appendLiteral(':')
          .appendValue(ChronoField.SECOND_OF_MINUTE, 2)
          .optionalStart()
          .appendFraction(ChronoField.NANO_OF_SECOND, 1, 9, true)
          .optionalEnd()
          .appendOffset("+HH:MM", "Z")
          .toFormatter(Locale.ROOT)
          .withResolverStyle(ResolverStyle.STRICT);

  private static final int SECONDS_START = 17;
  private static final int SECONDS_END = 19;

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
   * second before it, since the time line of {@link Instant} has no place for it.
   *
   * @throws DateTimeParseException if the text is no such date-time
   */
  public static Moment parse(String text) {
    if (text.length() > SECONDS_END && text.startsWith("60", SECONDS_START)) {
      Instant before = read(text.substring(0, SECONDS_START) + "59" + text.substring(SECONDS_END));
      var utc = before.atOffset(ZoneOffset.UTC);
      if (utc.getHour() != 23 || utc.getMinute() != 59) {
        throw new DateTimeParseException("second 60 exists only at 23:59 UTC", text, SECONDS_START);
      }
      return new Moment(before);
    }
    return new Moment(read(text));
  }

  private static Instant read(String text) {
    return RFC_3339.parse(text, Instant::from);
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
