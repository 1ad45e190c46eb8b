package org.ysthmos.core.recurrence;

import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * What of a recurrence is to be done now. It keeps the moment up to which all was looked at, which
 * never goes back, so that a clock that is set back makes nothing twice.
 *
 * @param made what is to be made, the earliest first
 * @param passed what was missed and is not made up for, the earliest first
 * @param until up to which moment all is looked at with this; never before the one it began with
 * @param more whether more is due than was taken at once
 */
public record Due(List<Occurrence> made, List<Occurrence> passed, Instant until, boolean more) {

  /** A time that is looked at within this is on time; common practice, no source. */
  public static final Duration ON_TIME = Duration.ofMinutes(5);

  public Due {
    made = List.copyOf(made);
    passed = List.copyOf(passed);
  }

  /**
   * What came since a moment.
   *
   * @param handled up to which all was looked at before
   * @param most how many times are taken at once
   */
  public static Due of(Occurrences times, Instant handled, Instant now, CatchUp catchUp, int most) {
    return of(times, handled, now, now, catchUp, most);
  }

  /**
   * The same for times that count only up to a moment, such as those of a version that another
   * followed.
   *
   * @param end up to which they count, which they do themselves
   */
  public static Due of(
      Occurrences times, Instant handled, Instant end, Instant now, CatchUp catchUp, int most) {
    Instant last = end.isBefore(now) ? end : now;
    if (!last.isAfter(handled)) {
      return new Due(List.of(), List.of(), handled, false);
    }
    List<Occurrence> found = times.between(handled, last, most + 1);
    boolean more = found.size() > most;
    List<Occurrence> came = more ? found.subList(0, most) : found;
    Instant until = more ? came.getLast().at().toInstant() : last;
    CatchUp.Split<Occurrence> split = catchUp.split(came, time -> isOnTime(time, now), more);
    return new Due(split.made(), split.passed(), until, more);
  }

  /** Whether a time is looked at when it comes, and not only later. */
  public static boolean isOnTime(Occurrence time, Instant now) {
    return !time.at().toInstant().isBefore(now.minus(ON_TIME));
  }
}
