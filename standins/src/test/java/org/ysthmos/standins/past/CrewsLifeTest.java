package org.ysthmos.standins.past;

import static org.assertj.core.api.Assertions.assertThatCode;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Properties;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What the crews do, held against a board that takes everything. */
class CrewsLifeTest {

  private static final Instant END = Instant.parse("2026-11-26T00:30:00Z");

  private HttpServer board;
  private Hands hands;

  @BeforeEach
  void start() throws IOException {
    board = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    board.createContext("/", CrewsLifeTest::answer);
    board.start();
    String port = Integer.toString(board.getAddress().getPort());
    Properties settings = new Properties();
    settings.setProperty("grounds-board.port", port);
    settings.setProperty("works-ledger.port", port);
    hands = new Hands(settings, URI.create("http://127.0.0.1:" + port));
  }

  @AfterEach
  void stop() {
    hands.close();
    board.stop(0);
  }

  private static void answer(HttpExchange exchange) throws IOException {
    String path = exchange.getRequestURI().getPath();
    byte[] body =
        (path.endsWith("/kept-pairs")
                ? "[{\"right\":{\"record\":\"wl-1\"}}]"
                : "{\"id\":\"gb-1\",\"title\":\"Mend\",\"underWay\":0,\"now\":\"" + END + "\"}")
            .getBytes(StandardCharsets.UTF_8);
    try (exchange) {
      exchange.getRequestBody().readAllBytes();
      exchange.sendResponseHeaders(200, body.length);
      exchange.getResponseBody().write(body);
    }
  }

  /**
   * Whenever the past ends: a board in trouble puts off what is made there, and all that follows.
   */
  @ParameterizedTest
  @ValueSource(ints = {1, 2, 10, 30})
  void nothingIsDoneToATaskBeforeItIsMade(int days) {
    for (int hour = 0; hour < 24; hour++) {
      Season season = new Season(END.plus(Duration.ofHours(hour)), days, 3);
      List<Happening> plan = CrewsLife.plan(season, Words.read());
      plan.sort(Comparator.comparing(Happening::at));
      for (Happening one : plan) {
        assertThatCode(() -> one.deed().carryOut(hands))
            .as("%s, as the past ends at %s", one.what(), season.end())
            .doesNotThrowAnyException();
      }
    }
  }
}
