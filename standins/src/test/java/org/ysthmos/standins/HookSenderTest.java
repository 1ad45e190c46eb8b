package org.ysthmos.standins;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.time.Duration;
import java.time.InstantSource;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.ysthmos.standins.hook.HookSender;

/** Whoever makes a past waits for webhooks to be taken, in one call. */
class HookSenderTest {

  private static final Duration LONG = Duration.ofSeconds(20);

  private final CountDownLatch called = new CountDownLatch(1);
  private final CountDownLatch mayAnswer = new CountDownLatch(1);
  private final HookSender sender = new HookSender(InstantSource.system());
  private HttpServer receiver;

  @BeforeEach
  void start() throws IOException {
    receiver = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    receiver.createContext(
        "/",
        exchange -> {
          called.countDown();
          try (exchange) {
            assertThat(mayAnswer.await(LONG.toSeconds(), TimeUnit.SECONDS)).isTrue();
            exchange.sendResponseHeaders(204, -1);
          } catch (InterruptedException e) {
            throw new IllegalStateException(e);
          }
        });
    receiver.start();
  }

  @AfterEach
  void stop() {
    mayAnswer.countDown();
    sender.close();
    receiver.stop(0);
  }

  @Test
  void waitsUntilWhatIsUnderWayWasTaken() throws InterruptedException {
    assertThat(sender.underWay(LONG)).isZero();
    URI to = URI.create("http://127.0.0.1:" + receiver.getAddress().getPort() + "/hook");
    sender.send(to, "one", "{}", (id, body) -> Map.of());
    assertThat(called.await(LONG.toSeconds(), TimeUnit.SECONDS)).isTrue();
    assertThat(sender.underWay(Duration.ZERO)).isEqualTo(1);
    assertThat(sender.underWay(Duration.ofMillis(5))).isEqualTo(1);
    CompletableFuture<Integer> left = CompletableFuture.supplyAsync(() -> sender.underWay(LONG));
    mayAnswer.countDown();
    assertThat(left.join()).isZero();
  }
}
