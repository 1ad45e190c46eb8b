package org.ysthmos.adapters.hook;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class StandardWebhooksTest {

  private static final String SECRET =
      "whsec_" + Base64.getEncoder().encodeToString("a signing secret".getBytes(UTF_8));
  private static final Instant NOW = Instant.ofEpochSecond(1_764_000_000L);
  private static final byte[] BODY = "{\"type\":\"created\"}".getBytes(UTF_8);

  /** Source: RFC 4231 sections 4.2, 4.3 and 4.7 (test cases 1, 2 and 6), HMAC-SHA-256. */
  @ParameterizedTest
  @CsvSource({
    "0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b0b, 4869205468657265,"
        + " b0344c61d8db38535ca8afceaf0bf12b881dc200c9833da726e9376c2e32cff7",
    "4a656665, 7768617420646f2079612077616e7420666f72206e6f7468696e673f,"
        + " 5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843"
  })
  void hmacExamples(String key, String data, String digest) {
    HexFormat hex = HexFormat.of();
    assertThat(hex.formatHex(StandardWebhooks.hmac(hex.parseHex(key), hex.parseHex(data))))
        .isEqualTo(digest);
  }

  /** RFC 4231 section 4.7 (test case 6): a key longer than the block. */
  @Test
  void hmacWithALongKey() {
    byte[] key = HexFormat.of().parseHex("aa".repeat(131));
    byte[] data = "Test Using Larger Than Block-Size Key - Hash Key First".getBytes(UTF_8);
    assertThat(HexFormat.of().formatHex(StandardWebhooks.hmac(key, data)))
        .isEqualTo("60e431591ee0b67f0d8a26aacbf5b77f8e0bc6213728c5140546040f0ee37f54");
  }

  private static String signature() {
    byte[] made = StandardWebhooks.sign(SECRET, "msg_1", timestamp(NOW), BODY);
    return "v1," + Base64.getEncoder().encodeToString(made);
  }

  private static String timestamp(Instant at) {
    return Long.toString(at.getEpochSecond());
  }

  @Test
  void goodSignatureIsTakenAlsoAmongOthers() {
    for (String header : new String[] {signature(), "v1,AAAA v2,zz " + signature()}) {
      assertThat(StandardWebhooks.refuse(SECRET, "msg_1", timestamp(NOW), header, BODY, NOW))
          .isEmpty();
    }
  }

  @Test
  void anyPartThatChangedIsRefused() {
    byte[] other = "{\"type\":\"deleted\"}".getBytes(UTF_8);
    String stamp = timestamp(NOW);
    assertThat(StandardWebhooks.refuse(SECRET, "msg_1", stamp, signature(), other, NOW))
        .isPresent();
    assertThat(StandardWebhooks.refuse(SECRET, "msg_2", stamp, signature(), BODY, NOW)).isPresent();
    String later = timestamp(NOW.plusSeconds(1));
    assertThat(StandardWebhooks.refuse(SECRET, "msg_1", later, signature(), BODY, NOW)).isPresent();
    assertThat(StandardWebhooks.refuse(SECRET, "msg_1", stamp, "v1,???", BODY, NOW)).isPresent();
    assertThat(StandardWebhooks.refuse(SECRET, "msg_1", "soon", signature(), BODY, NOW))
        .isPresent();
    assertThat(StandardWebhooks.refuse(SECRET, "", stamp, signature(), BODY, NOW)).isPresent();
  }

  @Test
  void replayAfterTheToleranceIsRefused() {
    Instant late = NOW.plus(StandardWebhooks.TOLERANCE).plus(Duration.ofSeconds(1));
    assertThat(StandardWebhooks.refuse(SECRET, "msg_1", timestamp(NOW), signature(), BODY, late))
        .hasValueSatisfying(why -> assertThat(why).contains("more than 5 minutes"));
  }
}
