package org.ysthmos.adapters.mail;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.SystemGateway;

/** TLS from the first byte (RFC 8314 section 3), with a certificate that is verified. */
class MailTlsTest {

  @Test
  void accountWhoseCertificateNobodyVouchesForIsNotSignedInTo() {
    // The library's server has a certificate that it signed itself.
    GreenMail server = new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_IMAPS));
    server.start();
    server.setUser("visits@tidewrack.example", "visits", "s3cret");
    String document =
        """
        system: post
        name: Post
        address: imaps://127.0.0.1:%d
        sign-in: { basic: { user: visits, secret: word } }
        timeout: PT5S
        collections:
          mails: { name: Mails, folders: [INBOX] }
        """;
    boolean[] asked = {false};
    try (SystemGateway system =
        SystemReader.read(document.formatted(server.getImaps().getPort()))
            .open(new Surroundings(name -> Optional.of("s3cret"), () -> Instant.EPOCH))) {
      NotRead notRead =
          (NotRead) system.changes("mails", Cursor.BEGINNING, call -> asked[0] = true);
      assertThat(notRead.failure().kind()).isEqualTo(FailureKind.UNREACHABLE);
      assertThat(notRead.failure().remedy().orElse("")).contains("certificate is not trusted");
      assertThat(asked[0]).isTrue();
    } finally {
      server.stop();
    }
  }
}
