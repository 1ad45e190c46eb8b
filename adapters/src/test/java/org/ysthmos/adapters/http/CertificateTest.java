package org.ysthmos.adapters.http;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.time.Instant;
import java.util.Optional;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.decide.World.Unanswered;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.SystemGateway;

/** A system whose certificate nobody vouches for is not spoken to. */
class CertificateTest {

  @TempDir Path folder;

  private SSLContext selfSigned() throws Exception {
    Path keys = folder.resolve("keys.p12");
    Process made =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
                "-genkeypair",
                "-alias",
                "own",
                "-keyalg",
                "EC",
                "-dname",
                "CN=localhost",
                "-storetype",
                "PKCS12",
                "-keystore",
                keys.toString(),
                "-storepass",
                "secret")
            .redirectErrorStream(true)
            .start();
    made.getInputStream().readAllBytes();
    assertThat(made.waitFor()).isZero();
    KeyStore store = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(keys)) {
      store.load(in, "secret".toCharArray());
    }
    KeyManagerFactory managers =
        KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
    managers.init(store, "secret".toCharArray());
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(managers.getKeyManagers(), null, null);
    return context;
  }

  @Test
  void certificateThatIsNotTrustedIsNamedAndNothingIsSent() throws Exception {
    HttpsServer server =
        HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.setHttpsConfigurator(new HttpsConfigurator(selfSigned()));
    boolean[] called = {false};
    server.createContext(
        "/",
        exchange -> {
          called[0] = true;
          exchange.sendResponseHeaders(204, -1);
          exchange.close();
        });
    server.start();
    String document =
        """
        system: jobs
        name: Jobs
        address: https://localhost:%d
        collections:
          rounds: { name: Rounds, record: job, list: { call: GET /jobs, items: "", id: /id } }
        """;
    try (SystemGateway system =
        SystemReader.read(document.formatted(server.getAddress().getPort()))
            .open(new Surroundings(name -> Optional.of("token"), () -> Instant.EPOCH))) {
      Unanswered answer = (Unanswered) system.list("rounds", 1, call -> {});
      assertThat(answer.failure().kind()).isEqualTo(FailureKind.UNREACHABLE);
      assertThat(answer.failure().remedy().orElse("")).contains("certificate is not trusted");
      assertThat(called[0]).isFalse();
    } finally {
      server.stop(0);
    }
  }
}
