package org.ysthmos.core.value;

import java.time.LocalDate;

/** A calendar date with no zone. It is the same day everywhere and nothing moves it. */
public record Day(LocalDate date) implements Value {

  public static Day of(int year, int month, int dayOfMonth) {
    return new Day(LocalDate.of(year, month, dayOfMonth));
  }

  /**
   * Reads an RFC 3339 full-date, for example {@code 2026-11-30}.
   *
   * @throws java.time.format.DateTimeParseException if the text is no such date
   */
  public static Day parse(String text) {
    return new Day(LocalDate.parse(text));
  }

  @Override
  public ValueType type() {
    return ValueType.DAY;
  }

  @Override
  public String display() {
    return date.toString();
  }
}
