package org.ysthmos.app;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.InetAddress;
import java.net.Socket;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** What cannot be used gets an answer that says so; what was taken is never lost. */
class BadInputIT extends AppTestBase {

  private static final String GOOD = "{\"type\":\"submission.created\",\"submission\":\"vd-1\"}";

  static Stream<Arguments> bodies() {
    return Stream.of(
        Arguments.of("{\"type\":", 400, "no JSON"),
        Arguments.of("[1,2]", 400, "no JSON object"),
        Arguments.of("", 400, "no JSON object"),
        Arguments.of("{\"type\":\"submission.created\"}", 400, "no id at “/submission”"),
        Arguments.of("{\"submission\":\"vd-1\"}", 400, "no kind of event at “/type”"),
        Arguments.of(
            "{\"type\":\"submission.created\",\"submission\":null}", 400, "no id at “/submission”"),
        Arguments.of(
            "{\"type\":\"a\",\"type\":\"b\",\"submission\":\"vd-1\"}",
            400,
            "Duplicate field 'type'"),
        Arguments.of(
            "{\"type\":\"submission.created\",\"submission\":\"vd\\u0000\"}",
            400,
            "at “/submission” has the character U+0000"),
        Arguments.of(
            "{\"type\":\"submission.created\",\"submission\":\"1\",\"a\":[\"\\ud83d\"]}",
            400,
            "at “/a/0” has half of a character"),
        Arguments.of(
            "{\"type\":\"%s\",\"submission\":\"vd-1\"}".formatted("k".repeat(129)),
            400,
            "the kind of the event may have at most 128 characters, found 129"),
        Arguments.of("{\"submission\":\"" + "x".repeat(262_144) + "\"}", 413, "at most 262144"),
        Arguments.of("{\"a\":".repeat(300) + "1" + "}".repeat(300), 400, "no JSON"));
  }

  @ParameterizedTest
  @MethodSource("bodies")
  void bodyThatCannotBeReadIsRefused(String body, int status, String says) throws Exception {
    HttpResponse<String> answer = hook("msg_" + UUID.randomUUID(), body, Instant.now(), SECRET);
    assertProblem(answer, status, says);
  }

  @Test
  void timesThatNoClockHasAreRefused() throws Exception {
    String path = "/api/traces?since=-1000000000-01-01T00:00:00Z";
    assertProblem(send("GET", app(path), "", Map.of()), 400, "between the years 1970 and 9999");
  }

  @Test
  void verdictThatThereIsNotIsRefused() throws Exception {
    var answer = send("GET", app("/api/traces?verdict=perhaps"), "", Map.of());
    assertProblem(answer, 400, "No verdict is called “perhaps”");
    assertProblem(
        send("GET", app("/api/traces?verdict=faild"), "", Map.of()), 400, "did you mean “failed”?");
  }

  /** As the answers write it, and as the addresses of the screens do. */
  @Test
  void verdictIsFoundHoweverItIsWritten() throws Exception {
    for (String word : List.of("PASSED_BY", "passed-by", "Passed-By")) {
      var answer = send("GET", app("/api/traces?verdict=" + word), "", Map.of());
      assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
      for (JsonNode trace : JSON.readTree(answer.body()).path("traces")) {
        assertThat(trace.path("verdict").asText()).isEqualTo("PASSED_BY");
      }
    }
  }

  @Test
  void parameterThatNothingReadsIsRefused() throws Exception {
    assertProblem(
        send("GET", app("/api/traces?verdct=failed"), "", Map.of()),
        400,
        "did you mean “verdict”?");
    assertProblem(
        send("POST", app("/api/traces/none/take-back?evenIfTouchd=true"), "", Map.of()),
        400,
        "did you mean “evenIfTouched”?");
  }

  /** Every path that takes a body says what is missing in one, and none breaks of it. */
  @Test
  void bodiesWithoutWhatIsNeededAreRefusedWithItsPlace() throws Exception {
    JsonNode paths = api("/openapi.json").path("paths");
    int tried = 0;
    for (var path : paths.properties()) {
      for (String method : List.of("post", "put")) {
        JsonNode call = path.getValue().path(method);
        if (!call.at("/requestBody/content/application~1json").isObject()) {
          continue;
        }
        String at = path.getKey().replaceAll("\\{[^}]+}", "hazard-to-grounds");
        for (String body : List.of("{}", "[]", "{\"a\":", "null", "")) {
          HttpResponse<String> answer =
              send(
                  method.toUpperCase(java.util.Locale.ROOT),
                  app(at),
                  body,
                  Map.of("Content-Type", "application/json"));
          assertThat(answer.statusCode()).as("%s %s %s", method, at, body).isLessThan(500);
          tried++;
        }
      }
    }
    assertThat(tried).isGreaterThan(50);
  }

  @Test
  void whatIsMissingIsNamed() throws Exception {
    assertProblem(
        send(
            "POST",
            app("/api/desk/drafts/hazard-to-grounds/trial"),
            "{}",
            Map.of("Content-Type", "application/json")),
        400,
        "“document” is missing");
  }

  private static Socket sent(String text) throws Exception {
    Socket socket = new Socket(InetAddress.getLoopbackAddress(), PORT);
    socket.getOutputStream().write(text.getBytes(UTF_8));
    socket.getOutputStream().flush();
    return socket;
  }

  /** Senders that begin and never go on keep nobody else out. */
  @Test
  void slowSendersDoNotKeepTheRestOut() throws Exception {
    String begun =
        "POST /hooks/visitor-desk/hazard-reports HTTP/1.1\r\nHost: localhost\r\nContent-Length: 50\r\n\r\n{";
    List<Socket> slow = new ArrayList<>();
    try {
      for (int i = 0; i < 210; i++) {
        slow.add(sent(begun));
      }
      assertThat(send("GET", app("/api/watch"), "", Map.of()).statusCode()).isEqualTo(200);
    } finally {
      for (Socket socket : slow) {
        socket.close();
      }
    }
  }

  /** What the server refuses by itself is a problem too, and no page. */
  @Test
  void whatTheServerRefusesIsAProblemToo() throws Exception {
    String up = "GET /api/%2e%2e/%2e%2e/x HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n";
    try (Socket socket = sent(up)) {
      String answer = new String(socket.getInputStream().readAllBytes(), UTF_8);
      assertThat(answer).startsWith("HTTP/1.1 400").contains("application/problem+json");
      assertThat(answer).doesNotContain("<html").contains("check its address and headers");
    }
  }

  @Test
  void unknownHookAddressIsRefused() throws Exception {
    assertProblem(
        send("POST", app("/hooks/visitor-desk/no-such-form"), GOOD, Map.of()),
        404,
        "no collection visitor-desk/no-such-form");
  }

  @Test
  void wrongSignatureIsRefused() throws Exception {
    String other = "whsec_" + Base64.getEncoder().encodeToString("another secret".getBytes(UTF_8));
    assertProblem(hook("msg_1", GOOD, Instant.now(), other), 401, "signature does not fit");
  }

  @Test
  void missingSignatureIsRefused() throws Exception {
    assertProblem(
        send("POST", app("/hooks/visitor-desk/hazard-reports"), GOOD, Map.of()),
        401,
        "webhook-signature are all needed");
  }

  @Test
  void oldTimestampIsRefused() throws Exception {
    Instant old = Instant.now().minus(Duration.ofMinutes(6));
    assertProblem(hook("msg_2", GOOD, old, SECRET), 401, "more than 5 minutes");
  }

  @Test
  void reportTheDeskDoesNotKnowFailsAndIsKept() throws Exception {
    String number = "vd-none-" + UUID.randomUUID();
    String body = "{\"type\":\"submission.created\",\"submission\":\"%s\"}".formatted(number);
    assertThat(hook("msg_" + UUID.randomUUID(), body, Instant.now(), SECRET).statusCode())
        .isEqualTo(202);
    JsonNode trace = settled(number, 1);
    assertThat(trace.path("failureKind").asText()).isEqualTo("lookup empty");
    assertThat(trace.path("reason").asText()).contains(number).contains("then send again");
    assertThat(api("/traces/" + trace.path("id").asText()).path("event").path("body").asText())
        .isEqualTo(body);
  }

  @Test
  void dateThatIsNoDateNamesFieldValueAndRemedyAndCanBeMended() throws Exception {
    String number = report(Map.of("seenOn", "yesterday"));
    JsonNode failed = settled(number, 1);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(failed.path("reason").asText())
        .startsWith("Due: “yesterday” is no day written “d MMMM uuuu” in English.")
        .contains("Correct the date at its source");

    // Mended at the source, which tells of the change by itself.
    assertThat(needsYou()).contains(failed.path("id").asText());
    desk("PATCH", "/api/submissions/" + number, "{\"seenOn\":\"22 November 2026\"}");
    assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(needsYou()).doesNotContain(failed.path("id").asText());
    resend(failed);
    assertThat(settled(number, 3).path("verdict").asText()).isEqualTo("UNCHANGED");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void scaleAnswerOutOfRangeNamesTheBands() throws Exception {
    JsonNode failed = settled(report(Map.of("danger", "11")), 1);
    assertThat(failed.path("reason").asText())
        .startsWith("Priority: 11 is in none of the bands 8–10, 5 to below 8, 1 to below 5.");
  }

  @Test
  void unknownLaneIsRefusedByTheBoardAndWorksWhenMended() throws Exception {
    String good = Files.readString(SETUP.resolve("bridges").resolve("hazard-to-grounds.yaml"));
    putBridge(good.replace("always: reported", "always: nowhere"));
    String number = report(Map.of());
    JsonNode failed = settled(number, 1);
    assertThat(failed.path("failureKind").asText()).isEqualTo("value refused");
    assertThat(failed.path("reason").asText()).contains("this board has no lane “nowhere”");

    putBridge(good);
    resend(failed);
    assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void resendingTwiceIsRefused() throws Exception {
    JsonNode done = settled(report(Map.of()), 1);
    resend(done);
    String path = "/api/traces/" + done.path("id").asText() + "/resend";
    assertProblem(send("POST", app(path), "", Map.of()), 409, "sent again already");
  }

  @Test
  void documentThatDoesNotFitIsRefusedWithLineAndColumn() throws Exception {
    String good = Files.readString(SETUP.resolve("bridges").resolve("hazard-to-grounds.yaml"));
    HttpResponse<String> answer =
        putBridge(good.replace("always: reported", "alwys: reported").replace("P7D", "a week"));
    assertProblem(answer, 422, "did you mean “always”?");
    JsonNode problem = JSON.readTree(answer.body()).path("problems").get(0);
    assertThat(problem.path("path").asText()).isEqualTo("fields/lane/alwys");
    assertThat(problem.path("line").asInt()).isEqualTo(17);
    assertThat(api("/bridges/hazard-to-grounds").path("document").asText()).isEqualTo(good);
  }

  @Test
  void otherHostNamesAndOtherPagesAreRefused() throws Exception {
    HttpResponse<String> page =
        send("POST", app("/api/traces/x/resend"), "", Map.of("Origin", "https://evil.example"));
    assertThat(page.statusCode()).isEqualTo(403);
    try (var socket = new java.net.Socket(InetAddress.getLoopbackAddress(), PORT)) {
      socket
          .getOutputStream()
          .write(
              "GET /api/watch HTTP/1.1\r\nHost: evil.example\r\nConnection: close\r\n\r\n"
                  .getBytes(UTF_8));
      String answer = new String(socket.getInputStream().readAllBytes(), UTF_8);
      assertThat(answer).startsWith("HTTP/1.1 421").doesNotContain("bridges");
    }
  }

  private static java.util.List<String> needsYou() {
    return api("/traces?verdict=needs-you").path("traces").findValuesAsText("id");
  }

  private static void assertProblem(HttpResponse<String> answer, int status, String says) {
    assertThat(answer.statusCode()).isEqualTo(status);
    assertThat(answer.headers().firstValue("Content-Type")).contains("application/problem+json");
    assertThat(answer.body()).contains(says);
  }
}
