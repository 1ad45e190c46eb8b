package org.ysthmos.adapters.mail;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.adapters.MetItems;
import org.ysthmos.adapters.OwnCertificate;
import org.ysthmos.adapters.connect.CertificateLook;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.ChangeGateway.Cursor;
import org.ysthmos.core.gateway.ChangeGateway.NotRead;
import org.ysthmos.core.gateway.SystemGateway;

/** Against Dovecot with STARTTLS and a certificate that nobody vouches for. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class DovecotTlsTest {

  private static final Surroundings SURROUNDINGS =
      new Surroundings(name -> Optional.of("s3cret"), Instant::now);

  private Dovecot server;
  private OwnCertificate certificate;

  @BeforeAll
  void start(@TempDir Path folder) throws Exception {
    certificate = OwnCertificate.in(folder);
    certificate.write(folder.resolve("certificate"), folder.resolve("key"));
    server =
        Dovecot.start(
            folder,
            "ssl = required\nssl_cert = <%1$s/certificate\nssl_key = <%1$s/key".formatted(folder));
    server.mailbox("visits");
  }

  @AfterAll
  void stop() throws Exception {
    if (server != null) {
      server.close();
    }
  }

  private SystemDescription account(String scheme, String host, String trust, String folder) {
    return SystemReader.read(
        """
        system: post
        name: Post
        address: %s://%s:%d
        sign-in: { basic: { user: visits, secret: word } }
        timeout: PT5S
        %scollections:
          mails: { name: Mails, folders: [%s] }
        """
            .formatted(scheme, host, server.port(), trust, folder));
  }

  private static NotRead refused(SystemDescription account) {
    try (SystemGateway system = account.open(SURROUNDINGS)) {
      return (NotRead) system.changes("mails", Cursor.BEGINNING, call -> {});
    }
  }

  @Test
  void certificateIsLookedAtThroughStartTlsThenTrusted() throws Exception {
    SystemDescription untrusted = account("imap", "localhost", "", "INBOX");
    NotRead refused = refused(untrusted);
    assertThat(refused.failure().kind()).isEqualTo(FailureKind.UNREACHABLE);
    assertThat(refused.failure().remedy().orElse("")).contains("certificate is not trusted");
    CertificateLook.Looked looked = CertificateLook.at(untrusted, SURROUNDINGS);
    assertThat(looked.trusted()).isFalse();
    assertThat(looked.certificates()).hasSize(1);
    assertThat(looked.certificates().getFirst().pem()).isEqualTo(certificate.pem());

    String digest = looked.certificates().getFirst().digest();
    String pinned = "trust: { certificate: \"" + digest + "\" }\n";
    String authority = "trust:\n  authority: |\n" + certificate.pem().indent(4);
    for (SystemDescription trusted :
        List.of(
            account("imap", "localhost", pinned, "INBOX"),
            account("imap", "127.0.0.1", pinned, "INBOX"),
            account("imap", "localhost", authority, "INBOX"))) {
      assertThat(CertificateLook.at(trusted, SURROUNDINGS).problem()).isEmpty();
      assertThat(new MetItems(trusted.open(SURROUNDINGS), "mails").pass()).isEmpty();
    }
    // An authority vouches for names, and this one says nothing of the number.
    assertThat(refused(account("imap", "127.0.0.1", authority, "INBOX")).failure().kind())
        .isEqualTo(FailureKind.UNREACHABLE);
  }

  @Test
  void tlsFromTheFirstByteOnThePortForStartTlsIsSaidAsSuch() {
    NotRead refused = refused(account("imaps", "localhost", "", "INBOX"));
    assertThat(refused.failure().remedy().orElse("")).contains("no TLS from the first byte");
  }

  /** Names go over in modified UTF-7 (RFC 3501 section 5.1.3), and are typed as people say them. */
  @ParameterizedTest
  @CsvSource({
    "Escolas e famílias, Escolas e fam&AO0-lias",
    "Visits & tours, Visits &- tours",
    "日本語, &ZeVnLIqe-"
  })
  void foldersWorkAsTheyAreTyped(String typed, String onDisk) throws Exception {
    server.box("visits", onDisk);
    String pinned = "trust:\n  authority: |\n" + certificate.pem().indent(4);
    MetItems met =
        new MetItems(
            account("imap", "localhost", pinned, "\"" + typed + "\"").open(SURROUNDINGS), "mails");
    met.pass();
    server.put(
        "visits",
        onDisk,
        "1." + typed.length(),
        "Message-ID: <%d@corpus.example>\nFrom: a@b.example\nSubject: Olá\n\nFine\n"
            .formatted(typed.length()));
    var told = met.pass();
    assertThat(told).hasSize(1);
    assertThat(told.getFirst().record().path("folder").asText()).isEqualTo(typed);
  }
}
