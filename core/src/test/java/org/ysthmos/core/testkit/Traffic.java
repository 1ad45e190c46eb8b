package org.ysthmos.core.testkit;

import java.util.Random;

/**
 * Honest traffic: busy by day on working days, less at weekends, with slow and busy days and hours.
 * Each count is a Poisson count whose mean is the usual one times a gamma of the day and one of the
 * hour. Invented; the same for the same seed.
 */
public final class Traffic {

  /** How much days and hours differ: the share by which a busy hour is above the usual one. */
  public enum Temper {
    /** By about a fifth: programs, sensors, many people. */
    STEADY(50, 50),
    /** By about a half: a few people. */
    FITFUL(12, 8);

    private final int daySize;
    private final int hourSize;

    Temper(int daySize, int hourSize) {
      this.daySize = daySize;
      this.hourSize = hourSize;
    }
  }

  private static final double AT_WEEKENDS = 0.25;

  private final Temper temper;
  private final Random random;
  private final double[] usual = new double[168];

  /**
   * @param aWeek how many events usually come in a week
   */
  public Traffic(int aWeek, Temper temper, long seed) {
    this.temper = temper;
    this.random = new Random(seed * 7919 + aWeek);
    double sum = 0;
    for (int h = 0; h < usual.length; h++) {
      double clock = h % 24;
      double byDay = 0.03 + Math.exp(-(clock - 12) * (clock - 12) / 18);
      usual[h] = byDay * (h / 24 < 5 ? 1 : AT_WEEKENDS);
      sum += usual[h];
    }
    for (int h = 0; h < usual.length; h++) {
      usual[h] *= aWeek / sum;
    }
  }

  /** The counts of the hours of one week. */
  public int[] week() {
    int[] counts = new int[usual.length];
    double day = 1;
    for (int h = 0; h < counts.length; h++) {
      if (h % 24 == 0) {
        day = gamma(temper.daySize);
      }
      counts[h] = poisson(usual[h] * day * gamma(temper.hourSize));
    }
    return counts;
  }

  /** Of the mean 1, as the sum of exponential waits. */
  private double gamma(int size) {
    double sum = 0;
    for (int i = 0; i < size; i++) {
      sum -= Math.log(1 - random.nextDouble());
    }
    return sum / size;
  }

  /** By exponential waits; a great mean in parts, so that nothing underflows. */
  private int poisson(double mean) {
    int count = 0;
    double left = mean;
    while (left > 0) {
      double part = Math.min(left, 100);
      left -= part;
      double product = random.nextDouble();
      double floor = Math.exp(-part);
      while (product > floor) {
        count++;
        product *= random.nextDouble();
      }
    }
    return count;
  }
}
