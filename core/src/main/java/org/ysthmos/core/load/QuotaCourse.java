package org.ysthmos.core.load;

import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * How a quota fills: from what was used at some moments to the day on which nothing is left, if it
 * goes on so. The pace is the median of the slopes between all pairs of moments (Theil, “A
 * rank-invariant method of linear and polynomial regression analysis”, 1950; Sen, “Estimates of the
 * regression coefficient based on Kendall's tau”, 1968), which a busy day or a wrong count does not
 * bend.
 *
 * @param since from where on the pace is reckoned: where somebody made room, it begins anew
 * @param perDay how much is added in a day; negative where it empties
 * @param fullAt when it is full at this pace; empty if it does not fill
 */
public record QuotaCourse(Instant since, double perDay, Optional<Instant> fullAt) {

  /** A shorter time says nothing about days. */
  static final Duration SHORTEST = Duration.ofHours(12);

  /** A moment at which it was looked at. */
  public record Point(Instant at, long used) {}

  /** A drop by this share of the most is room that somebody made. Common practice, no source. */
  private static final double ROOM_MADE = 0.1;

  private static final double DAY = Duration.ofDays(1).toMillis();

  /** A quota that lasts longer than this is not told as a day. */
  private static final Duration LONGEST = Duration.ofDays(3650);

  /**
   * @param points in the order of time
   * @param most how many there may be, at least 1
   * @return empty while it was looked at for too short a time
   */
  public static Optional<QuotaCourse> of(List<Point> points, long most) {
    List<Point> lately = sinceRoomWasMade(points, most);
    if (lately.size() < 3) {
      return Optional.empty();
    }
    Point last = lately.getLast();
    Instant since = lately.getFirst().at();
    if (Duration.between(since, last.at()).compareTo(SHORTEST) < 0) {
      return Optional.empty();
    }
    double perDay = medianSlope(lately);
    double days = (most - last.used()) / perDay;
    boolean fills = perDay > 0 && days <= LONGEST.toDays();
    Optional<Instant> fullAt =
        fills
            ? Optional.of(last.at().plusMillis(Math.max(0, Math.round(days * DAY))))
            : Optional.empty();
    return Optional.of(new QuotaCourse(since, perDay, fullAt));
  }

  private static List<Point> sinceRoomWasMade(List<Point> points, long most) {
    int from = 0;
    for (int i = 1; i < points.size(); i++) {
      if (points.get(i - 1).used() - points.get(i).used() >= ROOM_MADE * most) {
        from = i;
      }
    }
    return points.subList(from, points.size());
  }

  private static double medianSlope(List<Point> points) {
    double[] slopes = new double[points.size() * (points.size() - 1) / 2];
    int count = 0;
    for (int i = 0; i < points.size(); i++) {
      for (int j = i + 1; j < points.size(); j++) {
        long millis = Duration.between(points.get(i).at(), points.get(j).at()).toMillis();
        if (millis > 0) {
          slopes[count++] = (points.get(j).used() - points.get(i).used()) * DAY / millis;
        }
      }
    }
    double[] sorted = Arrays.copyOf(slopes, count);
    Arrays.sort(sorted);
    return count == 0 ? 0 : (sorted[(count - 1) / 2] + sorted[count / 2]) / 2;
  }
}
