package org.ysthmos.adapters.http;

import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
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
    try {
      Instant until =
          ZonedDateTime.parse(written, DateTimeFormatter.RFC_1123_DATE_TIME).toInstant();
      Duration wait = Duration.between(now, until);
      return Optional.of(wait.isNegative() ? Duration.ZERO : wait);
    } catch (DateTimeException unreadable) {
      return Optional.empty();
    }
  }
}
