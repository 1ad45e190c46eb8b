package org.ysthmos.adapters.hook;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;

/**
 * Verifies webhooks as Standard Webhooks 1.0.0 says: HMAC-SHA256 (RFC 2104, RFC 4231) over {@code
 * id.timestamp.body}, several signatures allowed, and a timestamp not too far from now.
 */
public final class StandardWebhooks {

  /** How far the sender's clock may be from ours. */
  public static final Duration TOLERANCE = Duration.ofMinutes(5);

  private StandardWebhooks() {}

  /**
   * @param secret in Base64, with or without {@code whsec_} before it
   * @return why the webhook is not to be trusted; empty if it is
   */
  public static Optional<String> refuse(
      String secret, String id, String timestamp, String signatures, byte[] body, Instant now) {
    if (id.isBlank() || timestamp.isBlank() || signatures.isBlank()) {
      return Optional.of(
          "the headers webhook-id, webhook-timestamp and webhook-signature are all needed");
    }
    if (!timestamp.matches("\\d{1,11}")) {
      return Optional.of("webhook-timestamp is not in seconds since 1970");
    }
    Instant sent = Instant.ofEpochSecond(Long.parseLong(timestamp));
    if (Duration.between(sent, now).abs().compareTo(TOLERANCE) > 0) {
      return Optional.of(
          "webhook-timestamp is more than " + TOLERANCE.toMinutes() + " minutes from now");
    }
    byte[] expected = sign(secret, id, timestamp, body);
    for (String signature : signatures.split(" ", -1)) {
      if (signature.startsWith("v1,") && matches(expected, signature.substring(3))) {
        return Optional.empty();
      }
    }
    return Optional.of("the signature does not fit the body and the secret");
  }

  private static boolean matches(byte[] expected, String signature) {
    try {
      return MessageDigest.isEqual(expected, Base64.getDecoder().decode(signature));
    } catch (IllegalArgumentException notBase64) {
      return false;
    }
  }

  static byte[] sign(String secret, String id, String timestamp, byte[] body) {
    byte[] key = Base64.getDecoder().decode(secret.replaceFirst("^whsec_", ""));
    return Hmac.of(
        "HmacSHA256", key, (id + "." + timestamp + ".").getBytes(StandardCharsets.UTF_8), body);
  }
}
