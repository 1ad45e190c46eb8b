package org.ysthmos.core.rhythm;

/**
 * Counts that vary more than chance alone would have it: a Poisson count whose mean is itself gamma
 * distributed. With a mean m and a size k its variance is m + m²/k; the greater the size, the
 * nearer it is to a Poisson count. Source: N. L. Johnson, A. W. Kemp, S. Kotz, Univariate Discrete
 * Distributions, 3rd edition, chapter 5.
 *
 * @param mean above 0
 * @param size above 0
 */
record NegativeBinomial(double mean, double size) {

  private static final double NEGLIGIBLE = 1e-18;

  NegativeBinomial {
    if (!(mean > 0) || !(size > 0)) {
      throw new IllegalArgumentException("a mean and a size are above 0");
    }
  }

  /** The probability of none. */
  double none() {
    return Math.exp(logNone());
  }

  private double logNone() {
    return -size * Math.log1p(mean / size);
  }

  /** The logarithm of the factor from the probability of n to that of n + 1. */
  private double logStep(long n) {
    return Math.log((n + size) / (n + 1)) + Math.log(mean / (mean + size));
  }

  /** The probability of so many or more. */
  double atLeast(long count) {
    if (count <= 0) {
      return 1;
    }
    double log = logNone();
    for (long n = 0; n < count; n++) {
      log += logStep(n);
    }
    double sum = 0;
    double term = Math.exp(log);
    for (long n = count; term > NEGLIGIBLE * Math.max(sum, NEGLIGIBLE) || n < mean; n++) {
      sum += term;
      log += logStep(n);
      term = Math.exp(log);
    }
    return Math.min(1, sum);
  }

  /** The least count of which as many or fewer come with at least this probability. */
  long quantile(double probability) {
    double log = logNone();
    double sum = Math.exp(log);
    long n = 0;
    while (sum < probability && n < 1_000_000) {
      log += logStep(n);
      n++;
      sum += Math.exp(log);
    }
    return n;
  }
}
