package org.ysthmos.core.pair;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import org.ysthmos.core.text.Letters;
import org.ysthmos.core.value.Value;

/**
 * The values that make two events of a bridge be about the same thing.
 *
 * @param bridge the bridge whose key it is
 * @param text the values for people, joined by a middle dot
 * @param hash SHA-256 over the bridge and the values, each with its type and length, in
 *     hexadecimal; so that no two different lists of values run together into the same key
 */
public record MatchKey(String bridge, String text, String hash) {

  private static final MessageDigest SHA_256 = sha256();

  private static MessageDigest sha256() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java platform has SHA-256", e);
    }
  }

  /**
   * @throws IllegalArgumentException if there are no values
   */
  public static MatchKey of(String bridge, List<Value> values) {
    if (values.isEmpty()) {
      throw new IllegalArgumentException("a match key needs at least one value");
    }
    StringBuilder canonical = new StringBuilder(bridge);
    StringBuilder text = new StringBuilder();
    for (Value value : values) {
      // An accent written apart or together makes no other thing (UAX #15, form C).
      String shown = Letters.composed(value.display());
      canonical.append('\n').append(value.type()).append(':').append(shown.length());
      canonical.append(':').append(shown);
      text.append(text.isEmpty() ? "" : " · ").append(shown);
    }
    return new MatchKey(bridge, text.toString(), sha256(canonical.toString()));
  }

  /** The idempotency key of an effect for this key: 32 hexadecimal digits behind {@code ys-}. */
  public String effect(String purpose) {
    return "ys-" + sha256(hash + '\n' + purpose).substring(0, 32);
  }

  private static String sha256(String text) {
    try {
      // A copy is several times cheaper than asking the providers again.
      MessageDigest digest = (MessageDigest) SHA_256.clone();
      return HexFormat.of().formatHex(digest.digest(text.getBytes(StandardCharsets.UTF_8)));
    } catch (CloneNotSupportedException e) {
      throw new IllegalStateException("SHA-256 of the platform can be copied", e);
    }
  }
}
