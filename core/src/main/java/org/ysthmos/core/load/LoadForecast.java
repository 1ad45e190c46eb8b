package org.ysthmos.core.load;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayDeque;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * What events that really came would have asked of one system.
 *
 * <p>The wait is found by playing the events through once: the calls of an event are made in the
 * order of arrival, at most as many within any span as the limit allows, and take no time
 * themselves. So it is the wait for the limit alone, to which the system's own time comes.
 *
 * @param days how many calendar days were looked at, the first and the last included
 * @param calls all calls on them
 * @param busiestDay the day with the most calls; empty if there were none
 * @param callsOnBusiestDay the calls on it
 * @param longestWait how long an event waited for its last call at the most
 * @param longestWaitOf when the event came that waited so long; empty if none waited
 */
public record LoadForecast(
    int days,
    long calls,
    Optional<LocalDate> busiestDay,
    long callsOnBusiestDay,
    Duration longestWait,
    Optional<Instant> longestWaitOf) {

  /** Calls on an average day, rounded up. */
  public long callsPerDay() {
    return days == 0 ? 0 : Math.ceilDiv(calls, days);
  }

  /**
   * @param arrivals in any order
   * @param limit empty if the system names none, so that nothing waits
   * @param zone decides where a day begins
   */
  public static LoadForecast of(List<Arrival> arrivals, Optional<RateLimit> limit, ZoneId zone) {
    List<Arrival> ordered = arrivals.stream().sorted(Comparator.comparing(Arrival::at)).toList();
    Map<LocalDate, Long> byDay = new TreeMap<>();
    long calls = 0;
    for (Arrival arrival : ordered) {
      calls += arrival.calls();
      byDay.merge(LocalDate.ofInstant(arrival.at(), zone), (long) arrival.calls(), Long::sum);
    }
    Optional<Map.Entry<LocalDate, Long>> busiest =
        byDay.entrySet().stream()
            .filter(day -> day.getValue() > 0)
            .max(Map.Entry.<LocalDate, Long>comparingByValue());
    Wait longest = limit.map(most -> longestWait(ordered, most)).orElse(Wait.NONE);
    return new LoadForecast(
        days(ordered, zone),
        calls,
        busiest.map(Map.Entry::getKey),
        busiest.map(Map.Entry::getValue).orElse(0L),
        longest.time(),
        longest.of());
  }

  private static int days(List<Arrival> ordered, ZoneId zone) {
    if (ordered.isEmpty()) {
      return 0;
    }
    LocalDate first = LocalDate.ofInstant(ordered.getFirst().at(), zone);
    LocalDate last = LocalDate.ofInstant(ordered.getLast().at(), zone);
    return (int) (last.toEpochDay() - first.toEpochDay()) + 1;
  }

  private record Wait(Duration time, Optional<Instant> of) {
    static final Wait NONE = new Wait(Duration.ZERO, Optional.empty());
  }

  /** Keeps the times of the last calls; a new one waits until the oldest of them left the span. */
  private static Wait longestWait(List<Arrival> ordered, RateLimit limit) {
    Deque<Instant> made = new ArrayDeque<>(limit.calls());
    Wait longest = Wait.NONE;
    Instant free = Instant.MIN;
    for (Arrival arrival : ordered) {
      Instant at = arrival.at().isAfter(free) ? arrival.at() : free;
      for (int i = 0; i < arrival.calls(); i++) {
        if (made.size() == limit.calls()) {
          Instant next = made.removeFirst().plus(limit.per());
          at = next.isAfter(at) ? next : at;
        }
        made.addLast(at);
      }
      free = at;
      Duration waited = Duration.between(arrival.at(), at);
      if (arrival.calls() > 0 && waited.compareTo(longest.time()) > 0) {
        longest = new Wait(waited, Optional.of(arrival.at()));
      }
    }
    return longest;
  }
}
