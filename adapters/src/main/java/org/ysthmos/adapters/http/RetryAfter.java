package org.ysthmos.adapters.http;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/** The header that says how long to wait (RFC 9110 section 10.2.3). */
final class RetryAfter {

  private RetryAfter() {}

  /**
   * @param value seconds, or an HTTP-date
   * @return empty if it is neither: a header we cannot read is as good as none
   */
  static Optional<Duration> read(String value, Instant now) {
    String written = value.strip();
    if (written.matches("\\d{1,9}")) {
      return Optional.of(Duration.ofSeconds(Long.parseLong(written)));
    }
    return HttpDate.read(written)
        .map(until -> Duration.between(now, until))
        .map(wait -> wait.isNegative() ? Duration.ZERO : wait);
  }
}
