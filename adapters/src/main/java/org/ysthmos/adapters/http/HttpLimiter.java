package org.ysthmos.adapters.http;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.Header;
import org.ysthmos.core.load.RateLimiter;

/** Room for calls to a system, and what its answers say of the room that is left. */
public record HttpLimiter(RateLimiter limiter, Optional<HttpProtocol.LimitHeaders> headers) {

  /** A number larger than this counts from 1970, as no system asks for a wait of decades. */
  private static final long SINCE_1970 = 1_000_000_000;

  /** How long a call has to wait; zero if it may be made and counts as made. */
  Duration take(Instant now) {
    return limiter.take(now);
  }

  /** Closes the limiter where an answer says that there is no room. */
  void note(ClassicHttpResponse response, Optional<Duration> retryAfter, Instant now) {
    if (response.getCode() == 429 || response.getCode() == 503) {
      retryAfter.ifPresent(wait -> limiter.close(wait, now));
    }
    headers
        .filter(names -> number(response, names.left()).filter(left -> left == 0).isPresent())
        .flatMap(names -> number(response, names.until()))
        .ifPresent(until -> limiter.close(untilThen(until, now), now));
  }

  private static Duration untilThen(long until, Instant now) {
    if (until < SINCE_1970) {
      return Duration.ofSeconds(until);
    }
    Duration wait = Duration.between(now, Instant.ofEpochSecond(until));
    return wait.isNegative() ? Duration.ZERO : wait;
  }

  private static Optional<Long> number(ClassicHttpResponse response, String name) {
    return Optional.ofNullable(response.getFirstHeader(name))
        .map(Header::getValue)
        .map(String::strip)
        .filter(value -> value.matches("\\d{1,12}"))
        .map(Long::parseLong);
  }
}
