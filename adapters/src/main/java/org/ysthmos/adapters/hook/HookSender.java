package org.ysthmos.adapters.hook;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import java.util.function.UnaryOperator;
import org.ysthmos.adapters.system.Push.IdAt;
import org.ysthmos.adapters.system.Push.Verify;

/** Tells who sent a webhook, and by which id. */
public final class HookSender {

  private HookSender() {}

  /**
   * A webhook as it came.
   *
   * @param header gives a header, empty if it did not come
   * @param token the last part of the path; empty if the address has none
   */
  public record Delivery(UnaryOperator<String> header, String token, byte[] body) {}

  /**
   * @param secret what the name in {@code verify} stands for
   * @return why the webhook is not to be trusted; empty if it is
   */
  public static Optional<String> refuse(
      Verify verify, String secret, Delivery delivery, Instant now) {
    return switch (verify) {
      case Verify.StandardWebhooks standard ->
          StandardWebhooks.refuse(
              secret,
              delivery.header().apply("webhook-id"),
              delivery.header().apply("webhook-timestamp"),
              delivery.header().apply("webhook-signature"),
              delivery.body(),
              now);
      case Verify.SharedSecret shared ->
          same(delivery.header().apply(shared.header()), secret)
              ? Optional.empty()
              : Optional.of("the header " + shared.header() + " does not carry the secret");
      case Verify.PathToken token ->
          same(delivery.token(), secret)
              ? Optional.empty()
              : Optional.of("the address does not end in the secret");
      case Verify.Signature signature -> signed(signature, secret, delivery);
    };
  }

  private static Optional<String> signed(Verify.Signature how, String secret, Delivery delivery) {
    String written = delivery.header().apply(how.header()).strip();
    if (!written.startsWith(how.before()) || written.length() == how.before().length()) {
      return Optional.of("the header " + how.header() + " carries no signature");
    }
    String algorithm = Objects.requireNonNull(Verify.Signature.HASHES.get(how.hash()));
    byte[] key = secret.getBytes(StandardCharsets.UTF_8);
    byte[] expected = Hmac.of(algorithm, key, delivery.body());
    String given = written.substring(how.before().length());
    boolean fits =
        how.hex()
            ? same(given.toLowerCase(Locale.ROOT), HexFormat.of().formatHex(expected))
            : same(given, Base64.getEncoder().encodeToString(expected));
    return fits
        ? Optional.empty()
        : Optional.of("the signature does not fit the body and the secret");
  }

  /** Compares in a time that does not depend on where texts differ. */
  private static boolean same(String one, String other) {
    return MessageDigest.isEqual(
        one.getBytes(StandardCharsets.UTF_8), other.getBytes(StandardCharsets.UTF_8));
  }

  /**
   * The sender's id of the event.
   *
   * @throws PushReader.Unreadable if it is to stand in the body and does not
   */
  public static String eventId(IdAt where, Delivery delivery) throws PushReader.Unreadable {
    return switch (where) {
      case IdAt.Header(String name) -> {
        String id = delivery.header().apply(name);
        if (id.isBlank()) {
          throw new PushReader.Unreadable(
              "the header " + name + " with the id of the event is missing");
        }
        yield id;
      }
      case IdAt.Body(var at) -> {
        String id = at.in(PushReader.parse(delivery.body())).asText("");
        if (id.isBlank()) {
          throw new PushReader.Unreadable("the body has no id of the event at “" + at + "”");
        }
        yield id;
      }
      case IdAt.Nowhere nowhere -> "each-" + UUID.randomUUID();
    };
  }
}
