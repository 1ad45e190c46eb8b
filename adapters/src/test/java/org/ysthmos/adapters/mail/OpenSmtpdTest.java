package org.ysthmos.adapters.mail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.adapters.DebianServer;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.gateway.TaskGateway.Delivered;
import org.ysthmos.core.gateway.TaskGateway.Undelivered;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;
import org.ysthmos.core.value.ValueType;

/**
 * Letters through OpenSMTPD, which takes them for one domain only and hands them on to a server
 * where they are looked at. Its TLS does not work with the OpenSSL of Debian 12 (every handshake
 * ends with an internal error), so that it is spoken to in plain, as this machine may be.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class OpenSmtpdTest {

  private GreenMail behind = new GreenMail();
  private DebianServer server;
  private int port;
  private int keys;

  @BeforeAll
  void start(@TempDir Path folder) throws Exception {
    Path smtpd = DebianServer.need("smtpd");
    assumeTrue(
        System.getProperty("user.name").equals("root"), "SKIPPED: smtpd is started by root only");
    behind =
        new GreenMail(
            new ServerSetup[] {
              new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_SMTP),
              new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_IMAP)
            });
    behind.start();
    behind.setUser("visits@tidewrack.example", "visits", "s3cret");
    port = DebianServer.freePort();
    Path configuration =
        Files.writeString(
            folder.resolve("smtpd.conf"),
            """
            listen on 127.0.0.1 port %1$d
            action "on" relay host "smtp://127.0.0.1:%2$d"
            match from any for domain "school.example" action "on"
            """
                .formatted(port, behind.getSmtp().getPort()));
    server =
        DebianServer.start(
            port,
            folder.resolve("log"),
            List.of(smtpd.toString(), "-d", "-f", configuration.toString()));
  }

  @AfterAll
  void stop() throws Exception {
    if (server != null) {
      server.close();
      behind.stop();
    }
  }

  private TaskGateway.Outcome send(String scheme, String... to) {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    fields.put("to", new ListValue(ValueType.TEXT, Stream.of(to).<Value>map(Text::new).toList()));
    fields.put("subject", new Text("Visita às estufas\u0007"));
    fields.put("text", new Text("Até já"));
    var letter =
        new TaskGateway.Effect(
            "letters", EffectKind.CREATE, "key-" + keys++, Optional.empty(), fields);
    String document =
        """
        system: post
        name: Post
        address: imap://127.0.0.1:%d
        send-address: %s://localhost:%d
        sign-in: { basic: { user: visits, secret: word } }
        timeout: PT5S
        collections:
          letters: { name: Letters, send: { from: "Inês <garden@tidewrack.example>" } }
        """;
    try (SystemGateway system =
        SystemReader.read(document.formatted(behind.getImap().getPort(), scheme, port))
            .open(new Surroundings(name -> Optional.of("s3cret"), () -> Instant.EPOCH))) {
      return system.deliver(letter, made -> {}, call -> {});
    }
  }

  @Test
  void letterArrivesWithNamesThatEveryServerTakes() throws Exception {
    assertThat(send("smtp", "João <joao@school.example>", "ines@school.example"))
        .isInstanceOf(Delivered.class);
    assertThat(behind.waitForIncomingEmail(Duration.ofSeconds(20).toMillis(), 1)).isTrue();
    MimeMessage got = behind.getReceivedMessages()[0];
    assertThat(got.getMessageID()).matches("<key-\\d+@tidewrack.example>");
    assertThat(got.getSubject()).isEqualTo("Visita às estufas");
    // What came over is plain ASCII, and says the names all the same (RFC 2047).
    assertThat(got.getHeader("From")[0]).isASCII();
    assertThat(((InternetAddress) got.getFrom()[0]).getPersonal()).isEqualTo("Inês");
    assertThat(((InternetAddress) got.getAllRecipients()[0]).getPersonal()).isEqualTo("João");
  }

  @Test
  void recipientThatIsRefusedIsAValueAndNotATimeOut() {
    Undelivered refused = (Undelivered) send("smtp", "joao@elsewhere.example");
    assertThat(refused.failure().kind())
        .as(refused.failure().message())
        .isEqualTo(FailureKind.VALUE_REFUSED);
    assertThat(refused.failure().message()).contains("550");
  }

  /** RFC 6531: without SMTPUTF8 such an address cannot be written, and nothing is guessed. */
  @Test
  void addressBeyondAsciiIsRefusedByAServerWithoutSmtpUtf8() {
    Undelivered refused = (Undelivered) send("smtp", "joão@school.example");
    assertThat(refused.failure().kind())
        .as(refused.failure().message())
        .isEqualTo(FailureKind.VALUE_REFUSED);
  }

  @Test
  void tlsFromTheFirstByteOnItsPlainPortIsSaidAsSuch() {
    Undelivered tls = (Undelivered) send("smtps", "joao@school.example");
    assertThat(tls.failure().kind()).isEqualTo(FailureKind.UNREACHABLE);
    assertThat(tls.failure().remedy().orElse("")).contains("no TLS from the first byte");
  }
}
