package org.ysthmos.adapters.http;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Optional;

/** Times as headers write them: the preferred form of an HTTP-date (RFC 9110 section 5.6.7). */
final class HttpDate {

  private HttpDate() {}

  /**
   * @return empty if it is none: a header we cannot read is as good as none
   */
  static Optional<Instant> read(String value) {
    try {
      return Optional.of(
          ZonedDateTime.parse(value.strip(), DateTimeFormatter.RFC_1123_DATE_TIME).toInstant());
    } catch (DateTimeException unreadable) {
      return Optional.empty();
    }
  }
}
