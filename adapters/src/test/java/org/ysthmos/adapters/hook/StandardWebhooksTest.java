package org.ysthmos.adapters.hook;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import org.junit.jupiter.api.Test;

class StandardWebhooksTest {

  private static final String SECRET =
      "whsec_" + Base64.getEncoder().encodeToString("a signing secret".getBytes(UTF_8));
  private static final Instant NOW = Instant.ofEpochSecond(1_764_000_000L);
  private static final byte[] BODY = "{\"type\":\"created\"}".getBytes(UTF_8);

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
