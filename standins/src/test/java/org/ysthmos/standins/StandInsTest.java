package org.ysthmos.standins;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.standins.clock.ControlledClock;
import org.ysthmos.standins.friendsregister.FriendsRegister;
import org.ysthmos.standins.groundsboard.GroundsBoard;
import org.ysthmos.standins.visitordesk.VisitorDesk;

/** The stand-ins behave as systems of their own, over HTTP alone. */
class StandInsTest {

  private static final ObjectMapper JSON = new ObjectMapper();
  private static final HttpClient HTTP = HttpClient.newHttpClient();
  private static final String SECRET = "whsec_c3RhbmQtaW4gc2VjcmV0";
  private static final String TASKS = "/api/boards/paths-and-trees/tasks";

  private record Hook(Map<String, List<String>> headers, String body) {}

  private final BlockingQueue<Hook> hooks = new ArrayBlockingQueue<>(100);
  private final ControlledClock clock = new ControlledClock();
  @TempDir Path data;
  private HttpServer receiver;
  private VisitorDesk desk;
  private GroundsBoard board;
  private FriendsRegister friends;

  @BeforeEach
  void start() throws IOException {
    receiver = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    receiver.createContext(
        "/",
        exchange -> {
          String body =
              new String(
                  exchange.getRequestBody().readAllBytes(),
                  java.nio.charset.StandardCharsets.UTF_8);
          hooks.add(new Hook(Map.copyOf(exchange.getRequestHeaders()), body));
          exchange.sendResponseHeaders(202, -1);
          exchange.close();
        });
    receiver.start();
    URI hook = URI.create("http://127.0.0.1:" + receiver.getAddress().getPort() + "/hook");
    desk = new VisitorDesk(0, "desk", data, clock, hook, SECRET).start();
    board = new GroundsBoard(0, "board", data, clock).start();
    friends = new FriendsRegister(0, "friends", data, clock).start();
  }

  @AfterEach
  void stop() {
    friends.close();
    desk.close();
    board.close();
    receiver.stop(0);
  }

  private HttpResponse<String> send(int port, String method, String path, String token, String body)
      throws Exception {
    return HTTP.send(
        HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + path))
            .timeout(Duration.ofSeconds(10))
            .header("Authorization", "Bearer " + token)
            .method(method, HttpRequest.BodyPublishers.ofString(body))
            .build(),
        HttpResponse.BodyHandlers.ofString());
  }

  private HttpResponse<String> board(String method, String path, String body) throws Exception {
    return send(board.port(), method, path, "board", body);
  }

  @Test
  void webhookCarriesOnlyTheNumberAndAStandardSignature() throws Exception {
    send(desk.port(), "POST", "/reports", "", "place=Pond&problem=Ice&seenOn=today&danger=7");
    Hook hook = hooks.poll(10, TimeUnit.SECONDS);
    assertThat(JSON.readTree(hook.body()).properties())
        .extracting(Map.Entry::getKey)
        .containsExactly("type", "submission");
    assertThat(hook.headers().keySet())
        .contains("Webhook-id", "Webhook-timestamp", "Webhook-signature");

    String number = JSON.readTree(hook.body()).path("submission").asText();
    JsonNode details =
        JSON.readTree(send(desk.port(), "GET", "/api/submissions/" + number, "desk", "").body());
    assertThat(details.path("answers").path("danger").isTextual()).isTrue();
    assertThat(details.path("answers").path("place").asText()).isEqualTo("Pond");
  }

  @Test
  void tokenIsAsked() throws Exception {
    assertThat(send(desk.port(), "GET", "/api/submissions", "wrong", "").statusCode())
        .isEqualTo(401);
    assertThat(send(board.port(), "GET", TASKS, "wrong", "").statusCode()).isEqualTo(401);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "{\"lane\":\"reported\"};title",
        "{\"title\":\"A\"};lane",
        "{\"title\":\"A\",\"lane\":\"nowhere\"};lane",
        "{\"title\":\"A\",\"lane\":\"reported\",\"due\":\"2026-11-30\"};due",
        "{\"title\":\"A\",\"lane\":\"reported\",\"due\":\"2026-11-30T17:00:00+01:00\"};due",
        "{\"title\":\"A\",\"lane\":\"reported\",\"priority\":10};priority",
        "{\"title\":\"A\",\"lane\":\"reported\",\"assignees\":[\"nobody\"]};assignees",
        "{\"title\":\"A\",\"lane\":\"reported\",\"notes\":\"x\"};notes"
      })
  void boardRefusesWhatItDoesNotTakeAndNamesTheField(String task, String field) throws Exception {
    HttpResponse<String> answer = board("POST", TASKS, task);
    assertThat(answer.statusCode()).isEqualTo(422);
    assertThat(JSON.readTree(answer.body()).path("field").asText()).isEqualTo(field);
  }

  @Test
  void taskIsFoundByTheCallersOwnIdAndOutlivesARestart() throws Exception {
    board("POST", TASKS, "{\"title\":\"A\",\"lane\":\"reported\",\"externalId\":\"mine\"}");
    board.close();
    board = new GroundsBoard(0, "board", data, clock).start();
    JsonNode found = JSON.readTree(board("GET", TASKS + "?externalId=mine", "").body());
    assertThat(found.path("items")).hasSize(1);
    assertThat(JSON.readTree(board("GET", TASKS + "?externalId=other", "").body()).path("items"))
        .isEmpty();
  }

  @Test
  void ninetyFirstCallOfAMinuteIsToldToWait() throws Exception {
    for (int i = 0; i < 90; i++) {
      assertThat(board("GET", "/api/people", "").statusCode()).isEqualTo(200);
    }
    HttpResponse<String> refused = board("GET", "/api/people", "");
    assertThat(refused.statusCode()).isEqualTo(429);
    assertThat(Integer.parseInt(refused.headers().firstValue("Retry-After").orElseThrow()))
        .isBetween(1, 61);
    clock.set(clock.instant().plus(Duration.ofSeconds(62)));
    assertThat(board("GET", "/api/people", "").statusCode()).isEqualTo(200);
  }

  @Test
  void boardTellsOfChangesMadeByAPerson() throws Exception {
    String task =
        JSON.readTree(board("POST", TASKS, "{\"title\":\"A\",\"lane\":\"reported\"}").body())
            .path("id")
            .asText();
    String address = "http://127.0.0.1:" + receiver.getAddress().getPort() + "/changes";
    board(
        "POST", "/api/hooks", "{\"address\":\"%s\",\"secret\":\"%s\"}".formatted(address, SECRET));
    send(board.port(), "POST", "/boards/paths-and-trees/tasks/" + task + "/tick", "", "");
    JsonNode told = JSON.readTree(hooks.poll(10, TimeUnit.SECONDS).body());
    assertThat(told.path("type").asText()).isEqualTo("task.changed");
    assertThat(told.path("task").path("done").asBoolean()).isTrue();
  }

  @Test
  void faultTakesSoManyCallsAndThenIsGone() throws Exception {
    send(board.port(), "POST", "/control/faults", "", "{\"kind\":\"error\",\"calls\":2}");
    assertThat(board("GET", "/api/people", "").statusCode()).isEqualTo(500);
    assertThat(board("GET", "/api/people", "").statusCode()).isEqualTo(500);
    assertThat(board("GET", "/api/people", "").statusCode()).isEqualTo(200);
  }

  /** Each page names the next until none is left; what changed comes last in its own time. */
  @Test
  void pledgesAreListedPageByPageFromAMomentOn() throws Exception {
    clock.set(Instant.parse("2026-11-24T10:00:00Z"));
    for (int i = 0; i < 5; i++) {
      send(friends.port(), "POST", "/api/pledges", "friends", "{\"what\":\"Bench " + i + "\"}");
    }
    clock.set(Instant.parse("2026-11-24T10:00:00.500Z"));
    send(friends.port(), "PATCH", "/api/pledges/fr-3101", "friends", "{\"amount\":\"80\"}");
    assertThat(listed("/api/pledges?limit=2"))
        .containsExactly("fr-3102", "fr-3103", "fr-3104", "fr-3105", "fr-3101");
    assertThat(listed("/api/pledges?limit=2&changedSince=2026-11-24T10:00:00Z")).hasSize(5);
    assertThat(listed("/api/pledges?changedSince=2026-11-24T10:00:00.4Z"))
        .containsExactly("fr-3101");
    assertThat(
            send(friends.port(), "GET", "/api/pledges?changedSince=noon", "friends", "")
                .statusCode())
        .isEqualTo(400);
  }

  @Test
  void friendJoinsOnceIsFoundByMailAndHasAMembershipEachTime() throws Exception {
    String form = "name=Ana+Lindqvist&mail=A.Lindqvist%40mail.example&kind=family";
    String number = friends("POST", "/people", form);
    assertThat(number).contains("fp-801");
    assertThat(friends("POST", "/people", form.replace("A.L", "a.l"))).contains("fp-801");
    JsonNode found =
        JSON.readTree(friends("GET", "/api/people?mail=a.lindqvist%40mail.example", ""));
    assertThat(found.path("people")).hasSize(1);
    assertThat(found.at("/people/0/name").asText()).isEqualTo("Ana Lindqvist");
    JsonNode members = JSON.readTree(friends("GET", "/api/memberships", ""));
    assertThat(members.path("memberships")).hasSize(2);
    assertThat(members.at("/memberships/0/kind").asText()).isEqualTo("family");
    assertThat(friends("POST", "/people", "mail=b%40mail.example&kind=royal"))
        .contains("single, family, school");
    assertThat(friends("PATCH", "/api/people/fp-801", "{\"ownerMail\":\"w.oakes@x.example\"}"))
        .contains("w.oakes@x.example");
    assertThat(friends("GET", "/api/people?limit=many", "")).contains("limit is a number");
  }

  private String friends(String method, String path, String body) throws Exception {
    return send(friends.port(), method, path, "friends", body).body();
  }

  private List<String> listed(String first) throws Exception {
    List<String> ids = new ArrayList<>();
    String path = first;
    while (!path.isEmpty()) {
      HttpResponse<String> page = send(friends.port(), "GET", path, "friends", "");
      JSON.readTree(page.body()).path("pledges").forEach(p -> ids.add(p.path("id").asText()));
      path = page.headers().firstValue("Link").map(link -> link.replaceAll("<|>.*", "")).orElse("");
    }
    return ids;
  }
}
