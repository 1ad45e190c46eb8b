package org.ysthmos.adapters.hook;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.adapters.hook.HookSender.Delivery;
import org.ysthmos.adapters.system.Push.IdAt;
import org.ysthmos.adapters.system.Push.Verify;
import org.ysthmos.core.json.Pointer;

class HookSenderTest {

  private static final Instant NOW = Instant.parse("2026-11-24T12:00:00Z");
  private static final String SECRET = "shh";
  private static final byte[] BODY = "{\"id\":\"e-1\",\"n\":1}".getBytes(UTF_8);

  /** Source: RFC 4231 sections 4.2 and 4.3 (test cases 1 and 2) for three hashes. */
  @ParameterizedTest
  @CsvSource({
    "HmacSHA256, 0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b, 4869205468657265,"
        + " b0344c61d8db38535ca8afceaf0bf12b881dc200c9833da726e9376c2e32cff7",
    "HmacSHA256, 4a656665, 7768617420646f2079612077616e7420666f72206e6f7468696e673f,"
        + " 5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843",
    "HmacSHA384, 4a656665, 7768617420646f2079612077616e7420666f72206e6f7468696e673f,"
        + " af45d2e376484031617f78d2b58a6b1b9c7ef464f5a01b47e42ec3736322445e"
        + "8e2240ca5e69e2c78b3239ecfab21649",
    "HmacSHA512, 4a656665, 7768617420646f2079612077616e7420666f72206e6f7468696e673f,"
        + " 164b7a7bfcf819e2e395fbe73b56e0a387bd64222e831fd610270cd7ea250554"
        + "9758bf75c05a994a6d034f65f8f0e6fdcaeab1a34d4a6b4b636e070a38bce737",
  })
  void hmacExamples(String algorithm, String key, String data, String digest) {
    HexFormat hex = HexFormat.of();
    byte[] made = Hmac.of(algorithm, hex.parseHex(key), hex.parseHex(data));
    assertThat(hex.formatHex(made)).isEqualTo(digest.replace(" ", ""));
  }

  /** RFC 4231 section 4.7 (test case 6): a key longer than the block. */
  @Test
  void hmacWithALongKey() {
    byte[] key = HexFormat.of().parseHex("aa".repeat(131));
    byte[] data = "Test Using Larger Than Block-Size Key - Hash Key First".getBytes(UTF_8);
    assertThat(HexFormat.of().formatHex(Hmac.of("HmacSHA256", key, data)))
        .isEqualTo("60e431591ee0b67f0d8a26aacbf5b77f8e0bc6213728c5140546040f0ee37f54");
  }

  private static Delivery delivery(Map<String, String> headers, String token) {
    return new Delivery(name -> headers.getOrDefault(name, ""), token, BODY);
  }

  private static Optional<String> refuse(Verify verify, String header, String value) {
    return HookSender.refuse(verify, SECRET, delivery(Map.of(header, value), ""), NOW);
  }

  @Test
  void signatureOfTheBodyIsTakenInHexAndInBase64() {
    byte[] made = Hmac.of("HmacSHA256", SECRET.getBytes(UTF_8), BODY);
    var hex = new Verify.Signature("X-Sign", SECRET, "sha256=", true, "sha256");
    String written = "sha256=" + HexFormat.of().withUpperCase().formatHex(made);
    assertThat(refuse(hex, "X-Sign", written)).isEmpty();
    assertThat(refuse(hex, "X-Sign", written.replaceFirst(".$", "Z"))).isPresent();
    assertThat(refuse(hex, "X-Sign", "sha256=")).isPresent();
    assertThat(refuse(hex, "X-Other", written).orElse("")).contains("X-Sign carries no signature");
    var base64 = new Verify.Signature("X-Sign", SECRET, "", false, "sha256");
    assertThat(refuse(base64, "X-Sign", Base64.getEncoder().encodeToString(made))).isEmpty();
  }

  @Test
  void signatureOfAnotherBodyOrSecretIsRefused() {
    var hex = new Verify.Signature("X-Sign", SECRET, "", true, "sha512");
    HexFormat digits = HexFormat.of();
    byte[] other = Hmac.of("HmacSHA512", SECRET.getBytes(UTF_8), "{}".getBytes(UTF_8));
    assertThat(refuse(hex, "X-Sign", digits.formatHex(other))).isPresent();
    byte[] stranger = Hmac.of("HmacSHA512", "no".getBytes(UTF_8), BODY);
    assertThat(refuse(hex, "X-Sign", digits.formatHex(stranger))).isPresent();
  }

  @Test
  void secretIsTakenFromAHeaderOrTheAddress() {
    var shared = new Verify.SharedSecret("X-Key", SECRET);
    assertThat(refuse(shared, "X-Key", SECRET)).isEmpty();
    assertThat(refuse(shared, "X-Key", "shhh")).isPresent();
    var path = new Verify.PathToken(SECRET);
    assertThat(HookSender.refuse(path, SECRET, delivery(Map.of(), SECRET), NOW)).isEmpty();
    assertThat(HookSender.refuse(path, SECRET, delivery(Map.of(), ""), NOW)).isPresent();
  }

  @Test
  void idOfTheEventStandsWhereTheDocumentSays() throws Exception {
    var sent = delivery(Map.of("X-Id", "d-7"), "");
    assertThat(HookSender.eventId(new IdAt.Header("X-Id"), sent)).isEqualTo("d-7");
    assertThat(HookSender.eventId(new IdAt.Body(Pointer.parse("/id")), sent)).isEqualTo("e-1");
    assertThatThrownBy(() -> HookSender.eventId(new IdAt.Header("X-No"), sent))
        .hasMessageContaining("X-No");
    assertThatThrownBy(() -> HookSender.eventId(new IdAt.Body(Pointer.parse("/no")), sent))
        .hasMessageContaining("“/no”");
  }

  /** Two deliveries that look alike may be two changes: none is taken for the other. */
  @Test
  void deliveryWithoutAnIdIsAnEventOfItsOwn() throws Exception {
    var sent = delivery(Map.of(), "");
    assertThat(HookSender.eventId(new IdAt.Nowhere(), sent))
        .isNotEqualTo(HookSender.eventId(new IdAt.Nowhere(), sent));
  }
}
