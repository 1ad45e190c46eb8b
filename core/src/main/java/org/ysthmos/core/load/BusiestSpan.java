package org.ysthmos.core.load;

import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * The span of a given length in which most happened.
 *
 * @param times how often it happened in it
 * @param start when the first of them happened; the epoch if nothing ever did
 */
public record BusiestSpan(int times, Instant start) {

  /**
   * @param at in any order
   * @param span how long; its end is not part of it
   */
  public static BusiestSpan of(List<Instant> at, Duration span) {
    List<Instant> ordered = at.stream().sorted().toList();
    BusiestSpan busiest = new BusiestSpan(0, Instant.EPOCH);
    int first = 0;
    for (int last = 0; last < ordered.size(); last++) {
      while (!ordered.get(first).plus(span).isAfter(ordered.get(last))) {
        first++;
      }
      if (last - first + 1 > busiest.times()) {
        busiest = new BusiestSpan(last - first + 1, ordered.get(first));
      }
    }
    return busiest;
  }
}
