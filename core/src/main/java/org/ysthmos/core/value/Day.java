package org.ysthmos.core.value;

import java.time.LocalDate;

/** A calendar date with no zone. It is the same day everywhere and nothing moves it. */
public record Day(LocalDate date) implements Value {

  public static Day of(int year, int month, int dayOfMonth) {
    return new Day(LocalDate.of(year, month, dayOfMonth));
  }

  /** The day, or a problem if its year has not four digits, which RFC 3339 needs. */
  public static Computed checked(LocalDate date) {
    return date.getYear() >= 0 && date.getYear() <= 9999 ? new Day(date) : outside(date.toString());
  }

  /** The problem of a day that lies outside of the years 0 to 9999. */
  public static Problem outside(String found) {
    return new Problem(
        "the day lies outside of the years 0 to 9999",
        found,
        "Correct the day at its source, or how far it is moved, then send again");
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
