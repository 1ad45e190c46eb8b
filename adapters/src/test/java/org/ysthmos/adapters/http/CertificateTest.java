package org.ysthmos.adapters.http;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.adapters.OwnCertificate;
import org.ysthmos.adapters.connect.CertificateLook;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.decide.World.Found;
import org.ysthmos.core.decide.World.LookupAnswer;
import org.ysthmos.core.decide.World.Unanswered;
import org.ysthmos.core.document.DocumentException;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.SystemGateway;

/** A system whose certificate nobody vouches for is not spoken to. */
class CertificateTest {

  @TempDir Path folder;

  private final List<String> called = new ArrayList<>();
  private HttpsServer server;

  @BeforeEach
  void serve() throws Exception {
    server = HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.setHttpsConfigurator(new HttpsConfigurator(OwnCertificate.in(folder).context()));
    server.createContext(
        "/",
        exchange -> {
          called.add(exchange.getRequestMethod() + " " + exchange.getRequestURI());
          byte[] answer = "[]".getBytes(StandardCharsets.UTF_8);
          exchange.sendResponseHeaders(200, answer.length);
          exchange.getResponseBody().write(answer);
          exchange.close();
        });
    server.start();
  }

  @AfterEach
  void stop() {
    server.stop(0);
  }

  private SystemDescription system(String address, String trust) {
    return SystemReader.read(
        """
        system: jobs
        name: Jobs
        address: %s
        sign-in: { bearer: { secret: word } }
        %scollections:
          rounds: { name: Rounds, record: job, list: { call: GET /jobs, items: "", id: /id } }
        """
            .formatted(address, trust));
  }

  private String home() {
    return "https://localhost:" + server.getAddress().getPort();
  }

  private static Surroundings surroundings() {
    return new Surroundings(name -> Optional.of("token"), () -> Instant.EPOCH);
  }

  private static LookupAnswer list(SystemDescription description) {
    try (SystemGateway system = description.open(surroundings())) {
      return system.list("rounds", 1, call -> {});
    }
  }

  @Test
  void certificateThatIsNotTrustedIsNamedAndNothingIsSent() {
    Unanswered answer = (Unanswered) list(system(home(), ""));
    assertThat(answer.failure().kind()).isEqualTo(FailureKind.UNREACHABLE);
    assertThat(answer.failure().remedy().orElse("")).contains("certificate is not trusted");
    assertThat(called).isEmpty();
  }

  /** What is to be trusted is seen first; then one certificate, or who signed it, is trusted. */
  @Test
  void certificateIsLookedAtThenTrustedByItsDigestOrByItsAuthority() {
    CertificateLook.Looked looked = CertificateLook.at(system(home(), ""), surroundings());
    assertThat(looked.trusted()).isFalse();
    assertThat(looked.problem()).isEqualTo("nobody who is trusted vouches for its certificate");
    assertThat(called).isEmpty();
    assertThat(looked.certificates()).hasSize(1);
    CertificateLook.Shown shown = looked.certificates().getFirst();
    assertThat(shown.subject()).isEqualTo("CN=localhost");
    assertThat(shown.names()).containsExactly("localhost");
    assertThat(shown.digest()).matches("([0-9A-F]{2}:){31}[0-9A-F]{2}");

    String pinned = "trust: { certificate: \"" + shown.digest() + "\" }\n";
    assertThat(list(system(home(), pinned))).isEqualTo(new Found(List.of()));
    assertThat(CertificateLook.at(system(home(), pinned), surroundings()).trusted()).isTrue();
    String byNumber = home().replace("localhost", "127.0.0.1");
    assertThat(list(system(byNumber, pinned))).isInstanceOf(Found.class);

    String authority = "trust:\n  authority: |\n" + shown.pem().indent(4);
    assertThat(list(system(home(), authority))).isInstanceOf(Found.class);
    // An authority vouches for names: this one says nothing of the number.
    assertThat(list(system(byNumber, authority))).isInstanceOf(Unanswered.class);
  }

  @Test
  void anotherCertificateThanThePinnedOneIsRefusedAndShown() {
    String other = "trust: { certificate: \"" + "ab".repeat(32) + "\" }\n";
    Unanswered answer = (Unanswered) list(system(home(), other));
    assertThat(answer.failure().message()).contains("another certificate than the one");
    assertThat(called).isEmpty();
  }

  @Test
  void tlsToAPlainPortAndPlainWordsToATlsPortAreSaidAsSuch() throws Exception {
    try (ServerSocket plain = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      Thread.ofVirtual().start(() -> answerPlainly(plain));
      Unanswered tls = (Unanswered) list(system("https://localhost:" + plain.getLocalPort(), ""));
      assertThat(tls.failure().remedy().orElse("")).contains("speaks no TLS");
    }
    Unanswered words = (Unanswered) list(system(home().replace("https", "http"), ""));
    assertThat(words.failure().remedy().orElse("")).contains("begins with https://");
  }

  /** Byte for byte what lighttpd 1.4.69 says to whoever begins TLS on its plain port. */
  private static void answerPlainly(ServerSocket plain) {
    try (Socket socket = plain.accept()) {
      int first = socket.getInputStream().read();
      socket
          .getOutputStream()
          .write(
              "HTTP/1.0 400 Bad Request\r\nContent-Length: 0\r\nConnection: close\r\n\r\n"
                  .getBytes(StandardCharsets.US_ASCII));
      assertThat(first).as("the type of a handshake record").isEqualTo(22);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "trust: { certificate: abc }|64 hexadecimal digits",
        "trust: { authority: abc }|no certificate",
        "trust: { certificate: a, authority: b }|either"
      })
  void whatIsNoCertificateIsRefusedWithItsPlace(String trust, String words) {
    assertThatThrownBy(() -> system(home(), trust + "\n"))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining(words);
  }
}
