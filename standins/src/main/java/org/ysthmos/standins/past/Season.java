package org.ysthmos.standins.past;

import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/**
 * The span of days that is made, and how chance falls in it. The same seed and end give the same
 * days.
 *
 * @param end nothing happens at or after it
 */
record Season(Instant end, int days, long seed) {

  private static final int ENOUGH_TO_KNOW = 28;

  /** Seconds of which all happens in one moment. */
  private static final long TOGETHER = 600;

  static final ZoneId ZONE = ZoneId.of("Europe/Lisbon");

  /** How many of a hundred visitors come in each hour of the day. */
  static final int[] VISITORS = {
    0, 0, 0, 0, 0, 0, 1, 2, 4, 8, 11, 13, 11, 10, 12, 11, 8, 5, 2, 1, 1, 0, 0, 0
  };

  /** The same for those who work here. */
  static final int[] STAFF = {
    0, 0, 0, 0, 0, 0, 0, 6, 14, 15, 13, 11, 4, 8, 11, 9, 6, 2, 1, 0, 0, 0, 0, 0
  };

  /** Nothing happens in the first minutes, in which everyone begins to look. */
  Instant begin() {
    return end.minus(Duration.ofDays(days));
  }

  /** Chance of one kind of life; more of one kind leaves the others as they are. */
  SplittableRandom chance(String kind) {
    return new SplittableRandom(seed * 31 + kind.hashCode());
  }

  List<LocalDate> dates() {
    LocalDate first = begin().atZone(ZONE).toLocalDate();
    LocalDate last = end.atZone(ZONE).toLocalDate();
    return first.datesUntil(last.plusDays(1)).toList();
  }

  static boolean isWorkday(LocalDate day) {
    return day.getDayOfWeek() != DayOfWeek.SATURDAY && day.getDayOfWeek() != DayOfWeek.SUNDAY;
  }

  /**
   * Whether the form of the visitors was closed by mistake: over the last Saturday that lies some
   * days back. In a short season nobody knows yet what is usual, and it is never closed.
   */
  boolean isSilent(Instant at) {
    LocalDate last = end.atZone(ZONE).toLocalDate();
    LocalDate saturday = last.minusDays(3).with(TemporalAdjusters.previous(DayOfWeek.SATURDAY));
    return days >= ENOUGH_TO_KNOW
        && at.isAfter(at(saturday.minusDays(1), 19, 0))
        && at.isBefore(at(saturday.plusDays(1), 10, 0));
  }

  /** Whether a moment lies in the season, the first and last two minutes left out. */
  boolean holds(Instant at) {
    return at.isAfter(begin().plusSeconds(120)) && at.isBefore(end.minusSeconds(120));
  }

  /**
   * The moment in which all of a few minutes happens, so that several things are carried across
   * together, as it is where many work; it lies elsewhere in each of these spans.
   */
  Instant together(Instant at) {
    long span = Math.floorDiv(at.getEpochSecond(), TOGETHER);
    long within = new SplittableRandom(seed ^ span).nextLong(TOGETHER);
    Instant moment = Instant.ofEpochSecond(span * TOGETHER + within);
    return holds(moment) ? moment : at;
  }

  static Instant at(LocalDate day, int hour, int minute) {
    return day.atTime(LocalTime.of(hour, minute)).atZone(ZONE).toInstant();
  }

  /**
   * Moments of a day, in order.
   *
   * @param mean how many there are on average
   * @param hours how they are spread over the hours
   */
  List<Instant> moments(LocalDate day, double mean, int[] hours, SplittableRandom random) {
    int total = 0;
    for (int weight : hours) {
      total += weight;
    }
    int count = (int) Math.round(mean * (0.6 + 0.8 * random.nextDouble()));
    List<Instant> moments = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      int drawn = random.nextInt(total);
      int hour = 0;
      while (drawn >= hours[hour]) {
        drawn -= hours[hour];
        hour++;
      }
      Instant moment = at(day, hour, random.nextInt(60)).plusSeconds(random.nextInt(60));
      if (holds(moment)) {
        moments.add(moment);
      }
    }
    moments.sort(null);
    return moments;
  }
}
