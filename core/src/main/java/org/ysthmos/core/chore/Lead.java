package org.ysthmos.core.chore;

import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.ysthmos.core.calendar.WorkingCalendar;
import org.ysthmos.core.recurrence.Occurrence;

/**
 * How long before it is due a task is made.
 *
 * @param days from 0 on
 * @param working whether only working days count
 */
public record Lead(int days, boolean working) {

  /** It is made when it is due. */
  public static final Lead NONE = new Lead(0, false);

  /** More than this is a mistake. */
  private static final int MOST = 366;

  private static final Pattern WORDS =
      Pattern.compile("(\\d{1,4})(?:\\.0+)?( working)?(?: days?)?(?: before)?");

  /**
   * Reads {@code 3}, {@code 3 days} or {@code 3 working days}.
   *
   * @throws IllegalArgumentException if it is none of them; the message says what may be written
   */
  public static Lead read(String written) {
    Matcher words = WORDS.matcher(written.strip().toLowerCase(Locale.ROOT));
    if (!words.matches() || Integer.parseInt(words.group(1)) > MOST) {
      throw new IllegalArgumentException(
          "“%s” does not say how long before; write a number of days up to %d, such as 3 or 3 working days"
              .formatted(written.strip(), MOST));
    }
    return new Lead(Integer.parseInt(words.group(1)), words.group(2) != null);
  }

  /**
   * So long before a time, at the time of day that its rule says.
   *
   * @param calendar says which days are working days; needed only if those count
   */
  ZonedDateTime before(Occurrence time, Optional<WorkingCalendar> calendar) {
    if (days == 0) {
      return time.at();
    }
    LocalDate day = time.at().toLocalDate();
    LocalDate earlier =
        working ? calendar.orElseThrow().move(day, -days).orElse(day) : day.minusDays(days);
    return earlier.atTime(time.said().toLocalTime()).atZone(time.at().getZone());
  }

  /** As {@link #read} reads it. */
  @Override
  public String toString() {
    return "%d %s%s".formatted(days, working ? "working " : "", days == 1 ? "day" : "days");
  }
}
