package org.ysthmos.core.guard;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;

/**
 * The busiest span of a past that is counted in slots.
 *
 * @param effects how many there were in it
 * @param from when its first slot began; the epoch if there never was one
 */
public record BusyPast(long effects, Instant from) {

  /** How long the slots are in which a past is counted. */
  public static final Duration SLOT = Duration.ofMinutes(30);

  public static final BusyPast NONE = new BusyPast(0, Instant.EPOCH);

  /**
   * How many effects there were in a slot.
   *
   * @param start when it began
   */
  public record Slot(Instant start, long effects) {}

  /**
   * The slots next to each other, as many as a span takes, that hold most.
   *
   * @param slots in any order, each start once
   * @param span counted as whole slots, at least one
   */
  public static BusyPast of(List<Slot> slots, Duration span) {
    Duration whole = whole(span);
    List<Slot> ordered = slots.stream().sorted(Comparator.comparing(Slot::start)).toList();
    BusyPast busiest = NONE;
    long effects = 0;
    int first = 0;
    for (Slot last : ordered) {
      effects += last.effects();
      while (!ordered.get(first).start().plus(whole).isAfter(last.start())) {
        effects -= ordered.get(first).effects();
        first++;
      }
      if (effects > busiest.effects()) {
        busiest = new BusyPast(effects, ordered.get(first).start());
      }
    }
    return busiest;
  }

  private static Duration whole(Duration span) {
    long slots = (span.toMillis() + SLOT.toMillis() - 1) / SLOT.toMillis();
    return SLOT.multipliedBy(Math.max(1, slots));
  }
}
