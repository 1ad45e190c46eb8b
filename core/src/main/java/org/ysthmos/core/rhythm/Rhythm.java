package org.ysthmos.core.rhythm;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;

/**
 * How many events usually come in each hour of the week, learned from the weeks before. Counts of
 * events are over-dispersed: some hours and some days are busier than chance would have it. So they
 * are taken as negative binomial ({@link NegativeBinomial}), with a size for hours and one for
 * whole days, each estimated by its moments over all hours or days.
 */
public final class Rhythm {

  public static final int HOURS = 168;
  private static final int DAYS = 7;

  /** Fewer weeks say nothing of what is usual. */
  public static final int FEWEST_WEEKS = 3;

  /** The hours of other days count as much as so many weeks, as one hour alone says little. */
  private static final double SHARED = 2;

  /** A mean is never taken to be less: what never came may come once. */
  private static final double LEAST = 0.02;

  /** A day is averaged over so many slices, up to so many times as busy as usual. */
  private static final int SLICES = 60;

  private static final double BUSIEST = 4;

  private static final double SMALLEST_SIZE = 0.3;
  private static final double LARGEST_SIZE = 500;

  private static final int WEEKS_OF_A_QUARTER = 13;

  /** How many false alarms of each sort a quarter may bring if the counts are as they are taken. */
  private static final double A_QUARTER = 0.25;

  /** The probability under which an hour is too busy, as each hour may be. */
  private static final double TOO_MANY = A_QUARTER / 10 / (WEEKS_OF_A_QUARTER * HOURS);

  /** Fewer more than usual are no trouble to anybody, however rare. Common practice, no source. */
  private static final int MORE_AT_LEAST = 10;

  private final double[] means;
  private final double hourSize;
  private final double daySize;
  private final int weeks;

  /** The probability under which a silence is too long, as there is one between any two events. */
  private final double tooLong;

  private Rhythm(double[] means, double hourSize, double daySize, int weeks) {
    this.weeks = weeks;
    this.means = means;
    this.hourSize = hourSize;
    this.daySize = daySize;
    this.tooLong = A_QUARTER / (WEEKS_OF_A_QUARTER * DoubleStream.of(means).sum());
  }

  /**
   * @param weeks the counts of each hour of past weeks, {@value #HOURS} each, beginning with the
   *     first hour of Monday
   * @return empty if these are too few, or nothing ever came
   */
  public static Optional<Rhythm> learn(List<int[]> weeks) {
    if (weeks.size() < FEWEST_WEEKS || weeks.stream().allMatch(Rhythm::isEmpty)) {
      return Optional.empty();
    }
    double[] means = means(weeks);
    double[][] hours = new double[weeks.size()][];
    double[][] days = new double[weeks.size()][];
    for (int w = 0; w < weeks.size(); w++) {
      hours[w] = new double[HOURS];
      days[w] = new double[DAYS];
      for (int h = 0; h < HOURS; h++) {
        hours[w][h] = weeks.get(w)[h];
        days[w][h / 24] += weeks.get(w)[h];
      }
    }
    double[][] dayMeans = new double[weeks.size()][DAYS];
    for (double[] week : dayMeans) {
      for (int h = 0; h < HOURS; h++) {
        week[h / 24] += means[h];
      }
    }
    double daySize = size(days, dayMeans);
    // Hours are held against what is usual on a day that is as busy as theirs was.
    double[][] onTheirDays = new double[weeks.size()][HOURS];
    for (int w = 0; w < weeks.size(); w++) {
      for (int h = 0; h < HOURS; h++) {
        onTheirDays[w][h] = means[h] * level(days[w][h / 24], dayMeans[w][h / 24], daySize);
      }
    }
    return Optional.of(new Rhythm(means, size(hours, onTheirDays), daySize, weeks.size()));
  }

  /**
   * How busy a day is, where 1 is usual, by what came of it: the mean of the gamma distribution
   * that a gamma of the mean 1 becomes by a Poisson count.
   */
  private static double level(double came, double usual, double daySize) {
    return (daySize + came) / (daySize + usual);
  }

  private static boolean isEmpty(int[] week) {
    for (int count : week) {
      if (count > 0) {
        return false;
      }
    }
    return true;
  }

  /** Each hour by its own weeks, and a little by the same hour of days of its kind. */
  private static double[] means(List<int[]> weeks) {
    double[] own = new double[HOURS];
    double[][] alike = new double[2][24];
    int[] daysOfKind = {5, 2};
    for (int[] week : weeks) {
      for (int h = 0; h < HOURS; h++) {
        own[h] += week[h];
        alike[kind(h)][h % 24] += week[h];
      }
    }
    double[] means = new double[HOURS];
    for (int h = 0; h < HOURS; h++) {
      int kind = kind(h);
      double shared = alike[kind][h % 24] / (weeks.size() * (double) daysOfKind[kind]);
      means[h] = Math.max(LEAST, (own[h] + SHARED * shared) / (weeks.size() + SHARED));
    }
    return means;
  }

  /** Working days are alike, and so are the two others. */
  private static int kind(int hour) {
    return hour / 24 < 5 ? 0 : 1;
  }

  /**
   * By the moments: what the squares of deviations exceed the counts by, over the squared means.
   */
  private static double size(double[][] counts, double[][] means) {
    double excess = 0;
    double squares = 0;
    for (int w = 0; w < counts.length; w++) {
      for (int i = 0; i < means[w].length; i++) {
        double deviation = counts[w][i] - means[w][i];
        excess += deviation * deviation - means[w][i];
        squares += means[w][i] * means[w][i];
      }
    }
    // Means that were fitted to the counts make deviations smaller than they are.
    double free = counts.length / (counts.length - 1.0);
    double inverse = excess * free / squares;
    return inverse <= 0
        ? LARGEST_SIZE
        : Math.max(SMALLEST_SIZE, Math.min(LARGEST_SIZE, 1 / inverse));
  }

  /** How many usually come in an hour of the week. */
  public double usual(int hour) {
    return means[Math.floorMod(hour, HOURS)];
  }

  /** From how many to how many come in a part of an hour, nine times of ten. */
  public record Band(long low, long high) {}

  /**
   * @param share which part of the hour, above 0
   */
  public Band band(int hour, double share) {
    NegativeBinomial counts = new NegativeBinomial(usual(hour) * share, hourSize);
    return new Band(counts.quantile(0.05), counts.quantile(0.95));
  }

  /** What is expected of an hour on a day of which some came already. */
  private NegativeBinomial today(int hour, long cameBefore) {
    double usualBefore = 0;
    for (int h = hour / 24 * 24; h < hour; h++) {
      usualBefore += means[h];
    }
    double mean = means[hour] * level((double) cameBefore, usualBefore, daySize);
    // What is not known of the day yet, and of the mean, comes to what hours differ by.
    double ofTheMean = (1 / hourSize + 1 / daySize + 1 / means[hour]) / (weeks + SHARED);
    double ofBoth = 1 / hourSize + 1 / (daySize + cameBefore) + ofTheMean;
    return new NegativeBinomial(mean, 1 / ofBoth);
  }

  /** How many are usual in an hour of a day of which so many came before. */
  public double usualToday(int hour, long cameBefore) {
    return today(hour, cameBefore).mean();
  }

  /**
   * Whether so many in an hour are far too many, on a day that is as busy as this one.
   *
   * @param hour of the week
   * @param cameBefore how many came on the same day before that hour
   */
  public boolean isTooMany(int hour, long cameBefore, long count) {
    NegativeBinomial today = today(hour, cameBefore);
    return count >= 1.5 * today.mean()
        && count >= today.mean() + MORE_AT_LEAST
        && today.atLeast(count) < TOO_MANY;
  }

  /**
   * Whether nothing came for far too long.
   *
   * @param from the hour of the week in which the silence began
   * @param hours how many hours it lasts, with the parts of the first and the last
   */
  public boolean isTooLong(int from, double hours) {
    return silence(from, hours) < tooLong;
  }

  /**
   * How likely a silence is. A day may be slow as a whole, so that each is averaged over how busy
   * it may have been.
   */
  double silence(int from, double hours) {
    double log = 0;
    List<Double> ofDay = new ArrayList<>();
    int hour = from;
    for (double left = hours; left > 0; left--) {
      ofDay.add(usual(hour) * Math.min(1, left));
      hour++;
      if (hour % 24 == 0 || left <= 1) {
        log += Math.log(silentDay(ofDay));
        ofDay.clear();
      }
    }
    return Math.exp(log);
  }

  /** By the middles of slices of the gamma distribution of how busy a day is. */
  private double silentDay(List<Double> hourMeans) {
    double sum = 0;
    double weights = 0;
    for (int i = 0; i < SLICES; i++) {
      double busy = (i + 0.5) * BUSIEST / SLICES;
      double weight = Math.exp((daySize - 1) * Math.log(busy) - daySize * (busy - 1));
      double none = 0;
      for (double mean : hourMeans) {
        none -= hourSize * Math.log1p(busy * mean / hourSize);
      }
      sum += weight * Math.exp(none);
      weights += weight;
    }
    return sum / weights;
  }

  /** How many would usually have come in so many hours. */
  public double expected(int from, double hours) {
    double sum = 0;
    int hour = from;
    for (double left = hours; left > 0; left--) {
      sum += usual(hour) * Math.min(1, left);
      hour++;
    }
    return sum;
  }
}
