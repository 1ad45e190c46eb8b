package org.ysthmos.core.failure;

import java.time.Duration;
import java.util.Optional;

/**
 * How long to wait before the next try: doubling from {@code first}, never more than {@code
 * longest}, but at least what the other system asked for (RFC 9110 section 10.2.3, {@code
 * Retry-After}).
 *
 * <p>What a system asks for counts up to a day: a longer wait is a slip of its clock or of its
 * mind, and nobody would see what waits.
 *
 * @param tries how many tries there are in all, the first included; counted from 1
 */
public record BackOff(Duration first, Duration longest, int tries) {

  /** The longest that a system is waited for because it asked for it. */
  public static final Duration LONGEST_ASKED = Duration.ofDays(1);

  /**
   * @throws IllegalArgumentException if a wait is not positive or there is no try at all
   */
  public BackOff {
    if (first.isNegative() || first.isZero() || longest.compareTo(first) < 0 || tries < 1) {
      throw new IllegalArgumentException(
          "a back-off needs 0 < first <= longest and at least one try, found "
              + (first + ", " + longest + ", " + tries));
    }
  }

  /**
   * The wait after try number {@code tried} failed.
   *
   * @param tried how many tries were made, counted from 1
   * @return empty if it should not be tried again by itself
   */
  public Optional<Duration> after(int tried, Failure failure) {
    if (failure.noRoom()) {
      return failure.retryAfter();
    }
    if (!failure.kind().retriesByItself() || tried >= tries) {
      return Optional.empty();
    }
    Duration own = own(tried);
    Duration asked = failure.retryAfter().orElse(Duration.ZERO);
    if (asked.compareTo(LONGEST_ASKED) > 0) {
      asked = LONGEST_ASKED;
    }
    return Optional.of(asked.compareTo(own) > 0 ? asked : own);
  }

  /** How long all waits take together, if no system asks for longer ones. */
  public Duration inAll() {
    Duration all = Duration.ZERO;
    for (int tried = 1; tried < tries; tried++) {
      all = all.plus(own(tried));
    }
    return all;
  }

  private Duration own(int tried) {
    // Past 30 doublings of any positive wait the longest has long been reached.
    Duration doubled = first.multipliedBy(1L << Math.min(tried - 1, 30));
    return doubled.compareTo(longest) > 0 ? longest : doubled;
  }
}
