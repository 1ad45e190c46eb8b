package org.ysthmos.core.incident;

import java.time.Duration;
import java.time.Instant;

/** How long it is from one moment to a later one, and whether the first may have led to it. */
final class TimeBetween {

  /** What is older did not lead to it. Common practice, no source. */
  private static final Duration SPAN = Duration.ofHours(6);

  private TimeBetween() {}

  static boolean isShort(Instant earlier, Instant later) {
    return !earlier.isAfter(later) && !earlier.isBefore(later.minus(SPAN));
  }

  /** How long it is from one to the other, to a minute, an hour or a day. */
  static String words(Instant earlier, Instant later) {
    Duration time = Duration.between(earlier, later);
    long minutes = Math.max(1, time.toMinutes());
    if (minutes == 1) {
      return "a minute";
    }
    if (minutes < 120) {
      return minutes + " minutes";
    }
    return time.toHours() < 48 ? time.toHours() + " hours" : "%,d days".formatted(time.toDays());
  }
}
