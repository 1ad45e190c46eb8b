package org.ysthmos.app.secret;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * When a token ends by its own words: the claim {@code exp} of a JSON Web Token, in seconds since
 * 1970 (RFC 7519 sections 2 and 4.1.4). It is not verified, as it is ours and decides nothing.
 */
final class TokenEnd {

  /** Three parts in base64url (RFC 7515 section 7.1). */
  private static final Pattern COMPACT =
      Pattern.compile("[A-Za-z0-9_-]+\\.([A-Za-z0-9_-]+)\\.[A-Za-z0-9_-]*");

  private static final JsonMapper JSON = JsonMapper.builder().build();

  private static final BigDecimal LATEST = BigDecimal.valueOf(Instant.MAX.getEpochSecond());

  private TokenEnd() {}

  /** Empty if it is no such token or does not say. */
  static Optional<Instant> of(String secret) {
    var parts = COMPACT.matcher(secret);
    if (!parts.matches()) {
      return Optional.empty();
    }
    try {
      byte[] claims = Base64.getUrlDecoder().decode(parts.group(1));
      JsonNode exp = JSON.readTree(new String(claims, StandardCharsets.UTF_8)).path("exp");
      return exp.isNumber() ? moment(exp.decimalValue()) : Optional.empty();
    } catch (IllegalArgumentException | JsonProcessingException e) {
      // A secret with two dots in it that is no such token says nothing about its end.
      return Optional.empty();
    }
  }

  private static Optional<Instant> moment(BigDecimal seconds) {
    boolean inRange = seconds.signum() >= 0 && seconds.compareTo(LATEST) <= 0;
    return inRange
        ? Optional.of(Instant.ofEpochSecond(seconds.setScale(0, RoundingMode.DOWN).longValue()))
        : Optional.empty();
  }
}
