package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.StringJoiner;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.context.TestConfiguration;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Primary;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.store.FreeSpace;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.who.By;
import org.ysthmos.standins.http.StandIn;

/** The whole application, spoken to over HTTP alone. */
@SpringBootTest(
    classes = {YsthmosApplication.class, AppTestBase.Disk.class},
    webEnvironment = SpringBootTest.WebEnvironment.DEFINED_PORT)
abstract class AppTestBase extends StandInTestBase {

  /** What the disk has left, in bytes; a test may make it little. */
  static final AtomicLong FREE = new AtomicLong(Long.MAX_VALUE);

  @TestConfiguration
  static class Disk {
    @Bean
    @Primary
    FreeSpace freeAsTold() {
      return FREE::get;
    }
  }

  static final ObjectMapper JSON = new ObjectMapper();
  static final HttpClient HTTP = HttpClient.newHttpClient();

  /** The bridges of the demo; what a test adds to them goes with it. */
  private static final Set<String> OF_THE_DEMO = new HashSet<>();

  @Autowired private Systems systems;
  @Autowired private Bridges allBridges;

  @DynamicPropertySource
  static void settings(DynamicPropertyRegistry registry) {
    registry.add("ysthmos.port", () -> PORT);
    registry.add("ysthmos.data", DATA::toString);
    registry.add("ysthmos.setup", SETUP::toString);
    registry.add("ysthmos.connections", () -> DATA.resolve("connections.properties").toString());
    registry.add("ysthmos.retry.first", () -> "40ms");
    registry.add("ysthmos.retry.longest", () -> "200ms");
    registry.add("ysthmos.retry.tries", () -> 4);
    registry.add("ysthmos.retry.looks", () -> "60ms,250ms");
    registry.add("ysthmos.work.lease", () -> "2s");
    registry.add("ysthmos.work.drain", () -> "3s");
    // A look would use up a fault that a test set for a call of its own.
    registry.add("ysthmos.health.first", () -> "1d");
    registry.add("ysthmos.health.quota", () -> "1d");
    registry.add("ysthmos.check.first", () -> "1d");
  }

  private List<String> live() {
    return allBridges.live().stream().map(one -> one.version().definition().id()).toList();
  }

  /** One that still listens would take the events of the next test, too. */
  @AfterEach
  void noBridgesButTheDemos() {
    for (String id : live()) {
      if (!OF_THE_DEMO.contains(id)) {
        allBridges.hold(id, "The test is over", By.PERSON);
        allBridges.retire(id, "The test is over", By.PERSON);
      }
    }
  }

  @BeforeEach
  void noFaultsAndTheDemoRules() throws Exception {
    if (OF_THE_DEMO.isEmpty()) {
      OF_THE_DEMO.addAll(live());
    }
    limitOfTheBoardBeginsAnew();
    for (StandIn standIn :
        List.of(DESK, BOARD, FRIENDS, POST, LEDGER, CLIMATE, CHAT, CHORES, LIBRARY)) {
      send("DELETE", "http://127.0.0.1:" + standIn.port() + "/control/faults", "", Map.of());
    }
    putBridge(Files.readString(SETUP.resolve("bridges/hazard-to-grounds.yaml")));
    // Tickets do not name their jobs, so that one ticket is one event; what does is tested alone.
    String document = Files.readString(SETUP.resolve("bridges/climate-job.yaml"));
    putBridge("climate-job", document.replaceFirst("(?s)\\nthen:.*?\\nceiling:", "\nceiling:"));
  }

  /** On both sides: another address makes a new limiter. */
  void limitOfTheBoardBeginsAnew() {
    BOARD.forgetCalls();
    for (String host : List.of("localhost", "127.0.0.1")) {
      systems.connect(
          "grounds-board", "address", URI.create("http://" + host + ":" + BOARD.port()));
    }
  }

  static HttpResponse<String> send(
      String method, String address, String body, Map<String, String> headers) throws Exception {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(address))
            .timeout(Duration.ofSeconds(20))
            .method(method, HttpRequest.BodyPublishers.ofString(body));
    headers.forEach(request::header);
    return HTTP.send(request.build(), HttpResponse.BodyHandlers.ofString());
  }

  /** Somebody opens a ticket at the climate desk; gives its number. */
  static String openTicket(String subject, String description) throws Exception {
    return form(
        CLIMATE,
        "/tickets",
        Map.of(
            "requester", "k.moreau@tidewrack.example",
            "subject", subject,
            "description", description));
  }

  /** Fills in a form of a stand-in; gives the number that it answers. */
  static String form(StandIn standIn, String path, Map<String, String> fields) throws Exception {
    StringJoiner body = new StringJoiner("&");
    fields.forEach(
        (key, value) -> body.add(key + "=" + URLEncoder.encode(value, StandardCharsets.UTF_8)));
    String address = "http://127.0.0.1:" + standIn.port() + path;
    return send("POST", address, body.toString(), Map.of())
        .body()
        .replaceAll("(?s).*id=\"number\">([^<]*)<.*", "$1");
  }

  static String app(String path) {
    return "http://127.0.0.1:" + PORT + path;
  }

  static JsonNode api(String path) {
    try {
      return JSON.readTree(send("GET", app("/api" + path), "", Map.of()).body());
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  static HttpResponse<String> putBridge(String document) throws Exception {
    return putBridge("hazard-to-grounds", document);
  }

  static HttpResponse<String> putBridge(String id, String document) throws Exception {
    return send(
        "PUT",
        app("/api/bridges/" + id + "/document"),
        document,
        Map.of("Content-Type", "application/yaml"));
  }

  static void fault(int port, String kind, String method, String below, int calls)
      throws Exception {
    var set =
        send(
            "POST",
            "http://127.0.0.1:" + port + "/control/faults",
            """
            {"kind":"%s","method":"%s","below":"%s","calls":%d,"waitMillis":300}
            """
                .formatted(kind, method, below, calls),
            Map.of());
    if (set.statusCode() / 100 != 2) {
      throw new IllegalArgumentException(set.body());
    }
  }

  /** The hazard bridge as Watch shows it. */
  static JsonNode watched() {
    for (JsonNode bridge : api("/watch").path("bridges")) {
      if (bridge.path("id").asText().equals("hazard-to-grounds")) {
        return bridge;
      }
    }
    throw new IllegalStateException("the hazard bridge is not watched");
  }

  /** Sends a report in; gives its number. The desk tells the application by itself. */
  static String report(Map<String, String> changes) throws Exception {
    Map<String, String> answers =
        new java.util.HashMap<>(
            Map.of(
                "place", "Fern gully, lower boardwalk",
                "problem", "Loose plank " + UUID.randomUUID(),
                "seenOn", "23 November 2026",
                "danger", "8",
                "mail", "visitor.418@mail.example",
                "photo", ""));
    answers.putAll(changes);
    return desk("POST", "/api/submissions", JSON.writeValueAsString(answers)).path("id").asText();
  }

  /** What a person does at the desk. */
  static JsonNode desk(String method, String path, String body) throws Exception {
    return done(method, "http://127.0.0.1:" + DESK.port() + path, body, DESK_TOKEN);
  }

  /** What a person does at the board. */
  static JsonNode board(String method, String path, String body) throws Exception {
    return done(method, "http://127.0.0.1:" + BOARD.port() + path, body, BOARD_TOKEN);
  }

  /** A deed that is refused is none: what a test says of it afterwards would hold by luck. */
  private static JsonNode done(String method, String address, String body, String token)
      throws Exception {
    HttpResponse<String> answer =
        send(method, address, body, Map.of("Authorization", "Bearer " + token));
    if (!method.equals("GET")) {
      assertThat(answer.statusCode())
          .as("%s %s: %s", method, address, answer.body())
          .isBetween(200, 299);
    }
    return JSON.readTree(answer.body().isEmpty() ? "{}" : answer.body());
  }

  /** The jobs of the ledger as it wrote each down last. */
  static List<JsonNode> jobs() {
    try {
      Map<String, JsonNode> newest = new java.util.LinkedHashMap<>();
      Path file = DATA.resolve("standins/works-ledger.ndjson");
      for (String line : Files.exists(file) ? Files.readAllLines(file) : List.<String>of()) {
        JsonNode job = JSON.readTree(line);
        newest.put(job.path("id").asText(), job);
        if (job.has("removed")) {
          newest.remove(job.path("id").asText());
        }
      }
      return List.copyOf(newest.values());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The tasks on the board that came of a report. */
  static java.util.List<JsonNode> tasksOf(String number) {
    try {
      String all = "http://127.0.0.1:" + BOARD.port() + "/boards/paths-and-trees";
      send("GET", all, "", Map.of());
      java.util.List<String> lines =
          Files.readAllLines(DATA.resolve("standins").resolve("grounds-board.ndjson"));
      Map<String, JsonNode> newest = new java.util.LinkedHashMap<>();
      for (String line : lines) {
        JsonNode task = JSON.readTree(line);
        newest.put(task.path("id").asText(), task);
        if (task.has("removed")) {
          newest.remove(task.path("id").asText());
        }
      }
      return newest.values().stream()
          .filter(task -> task.path("notes").asText().contains("Report " + number + ","))
          .toList();
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  /** The traces of a report, newest first. */
  static java.util.List<JsonNode> tracesOf(String number) {
    return StreamSupport.stream(api("/traces?text=" + number).path("traces").spliterator(), false)
        .filter(trace -> trace.path("record").asText().equals(number))
        .collect(Collectors.toList());
  }

  /** Waits for the newest of {@code count} traces of a report to come to a verdict. */
  static JsonNode settled(String number, int count) {
    await()
        .atMost(Duration.ofSeconds(20))
        .pollInterval(Duration.ofMillis(40))
        .until(
            () -> {
              var traces = tracesOf(number);
              return traces.size() == count
                  && traces.stream().noneMatch(t -> t.path("verdict").asText().equals("WAITING"));
            });
    return tracesOf(number).getFirst();
  }

  static JsonNode story(JsonNode trace) {
    return api("/traces/" + trace.path("id").asText()).path("story");
  }

  static JsonNode resend(JsonNode trace) throws Exception {
    String path = "/api/traces/" + trace.path("id").asText() + "/resend";
    return JSON.readTree(send("POST", app(path), "", Map.of()).body());
  }

  /** Sends a webhook as the desk would, with any part of it changed. */
  static HttpResponse<String> hook(String id, String body, Instant sent, String secret)
      throws Exception {
    return hook("visitor-desk/hazard-reports", id, body, sent, secret);
  }

  /** The same of another collection. */
  static HttpResponse<String> hook(
      String collection, String id, String body, Instant sent, String secret) throws Exception {
    String timestamp = Long.toString(sent.getEpochSecond());
    return send(
        "POST",
        app("/hooks/" + collection),
        body,
        Map.of(
            "webhook-id", id,
            "webhook-timestamp", timestamp,
            "webhook-signature", "v1," + sign(secret, id + "." + timestamp + "." + body)));
  }

  private static String sign(String secret, String content) throws GeneralSecurityException {
    byte[] key = Base64.getDecoder().decode(secret.substring("whsec_".length()));
    Mac mac = Mac.getInstance("HmacSHA256");
    mac.init(new SecretKeySpec(key, "HmacSHA256"));
    return Base64.getEncoder()
        .encodeToString(mac.doFinal(content.getBytes(StandardCharsets.UTF_8)));
  }
}
