package org.ysthmos.core.testplan;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Optional;
import org.ysthmos.core.recurrence.Occurrences;
import org.ysthmos.core.recurrence.OffDays;
import org.ysthmos.core.recurrence.Recurrence;
import org.ysthmos.core.recurrence.RecurrenceRule;
import org.ysthmos.core.recurrence.RuleWords;

/** How often something is tested. Days are those of the zone in which whoever asks counts them. */
public sealed interface TestRhythm {

  /** So many days after it was tested last; who tests late has as long until the next one. */
  record Every(int days) implements TestRhythm {

    /** Ten years. */
    public static final int MOST = 3660;

    public Every {
      if (days < 1 || days > MOST) {
        throw new IllegalArgumentException(
            "a test comes every 1 to %,d days, not every %,d".formatted(MOST, days));
      }
    }

    @Override
    public Optional<LocalDate> due(LocalDate first, Optional<LocalDate> tested) {
      return Optional.of(
          tested.map(day -> day.plusDays(days)).filter(day -> day.isAfter(first)).orElse(first));
    }
  }

  /** On the days that a rule names, whether or not it was tested between them. */
  record ByRule(RecurrenceRule rule) implements TestRhythm {

    public ByRule {
      if (rule.frequency().isWithinADay()) {
        throw new IllegalArgumentException("a test is due on a day; write a rule of days at least");
      }
    }

    /**
     * Reads what people say, for example {@code the first Monday of each month}, or a rule of RFC
     * 5545.
     *
     * @throws IllegalArgumentException if it says nothing that is known, or more than days; the
     *     message says what may be written
     */
    public static ByRule said(String words) {
      RuleWords.Said said = RuleWords.read(words);
      if (said.at().isPresent()) {
        throw new IllegalArgumentException("a test is due on a day; leave out the time of day");
      }
      if (said.offDays() != OffDays.KEEP) {
        throw new IllegalArgumentException(
            "a test asks no calendar; name a day of the week or of the month in place of working days");
      }
      return new ByRule(said.rule());
    }

    @Override
    public Optional<LocalDate> due(LocalDate first, Optional<LocalDate> tested) {
      Instant from =
          tested
              .map(day -> day.plusDays(1))
              .filter(day -> day.isAfter(first))
              .orElse(first)
              .atStartOfDay(ZoneOffset.UTC)
              .toInstant();
      Recurrence days = Recurrence.of(rule, ZoneOffset.UTC, first.atStartOfDay());
      return new Occurrences(days, Optional.empty())
          .next(from.minusNanos(1))
          .map(time -> time.at().toLocalDate());
    }
  }

  /**
   * The day on which it is due next, or has been since.
   *
   * @param first the first day on which it may be
   * @param tested the day on which it was tested last; empty if it never was
   * @return empty if its rule ends before
   */
  Optional<LocalDate> due(LocalDate first, Optional<LocalDate> tested);
}
