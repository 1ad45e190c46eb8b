package org.ysthmos.core.rhythm;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NegativeBinomialTest {

  /** With r successes of probability p, the failures before them have the mean r (1 - p) / p. */
  private static NegativeBinomial of(int r, double p) {
    return new NegativeBinomial(r * (1 - p) / p, r);
  }

  private static double choose(int n, int k) {
    BigInteger product = BigInteger.ONE;
    for (int i = 0; i < k; i++) {
      product = product.multiply(BigInteger.valueOf(n - i)).divide(BigInteger.valueOf(i + 1));
    }
    return product.doubleValue();
  }

  /**
   * The worked example of selling five bars with a chance of 0.4 at each door: the last is sold at
   * the tenth door with 0.1003290624, at the latest at the eighth with 0.1736704, and after the
   * thirtieth with about 0.000013 (as encyclopedias give it; value from memory, and recomputed here
   * from the binomial coefficients).
   */
  @Test
  void workedExampleOfDoors() {
    NegativeBinomial doors = of(5, 0.4);
    assertThat(doors.atLeast(5) - doors.atLeast(6)).isCloseTo(0.1003290624, within(1e-10));
    assertThat(1 - doors.atLeast(4)).isCloseTo(0.1736704, within(1e-10));
    double exact = choose(9, 4) * Math.pow(0.4, 5) * Math.pow(0.6, 5);
    assertThat(exact).isCloseTo(0.1003290624, within(1e-10));
  }

  /**
   * So many failures or fewer before the r-th success are at least r successes in as many trials
   * and r more (Johnson, Kemp, Kotz, section 5.6): the tail equals that of a binomial count.
   */
  @ParameterizedTest
  @CsvSource({"1, 0.5, 3", "3, 0.2, 10", "5, 0.4, 25", "12, 0.7, 9", "20, 0.1, 250"})
  void tailIsThatOfABinomialCount(int r, double p, int count) {
    double atMost = 0;
    int trials = count - 1 + r;
    for (int successes = r; successes <= trials; successes++) {
      atMost +=
          choose(trials, successes) * Math.pow(p, successes) * Math.pow(1 - p, trials - successes);
    }
    assertThat(of(r, p).atLeast(count)).isCloseTo(1 - atMost, within(1e-9));
  }

  /** With a great size it is a Poisson count: of the mean 4, more than 9 come with 0.0081. */
  @Test
  void nearsThePoissonDistribution() {
    NegativeBinomial poisson = new NegativeBinomial(4, 1e9);
    assertThat(poisson.atLeast(10)).isCloseTo(0.00813, within(1e-5));
    assertThat(poisson.none()).isCloseTo(Math.exp(-4), within(1e-9));
    assertThat(poisson.quantile(0.5)).isEqualTo(4);
  }

  @Test
  void holdsForLargeCounts() {
    NegativeBinomial busy = new NegativeBinomial(5000, 20);
    assertThat(busy.atLeast(0)).isEqualTo(1);
    assertThat(busy.atLeast(5000)).isBetween(0.4, 0.5);
    assertThat(busy.atLeast(20_000)).isLessThan(1e-10);
    assertThat(busy.quantile(0.95)).isBetween(6500L, 7500L);
  }
}
