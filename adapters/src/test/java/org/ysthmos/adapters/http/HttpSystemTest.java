package org.ysthmos.adapters.http;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.adapters.system.SystemReader;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.TaskGateway;
import org.ysthmos.core.value.Decimal;
import org.ysthmos.core.value.Moment;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/** A described system against a real HTTP server that answers what the test says. */
class HttpSystemTest {

  private static final Instant NOW = Instant.parse("1994-11-06T08:49:07Z");

  private record Answer(int status, String body, Map<String, String> headers) {}

  private final List<String> seen = new ArrayList<>();
  private final List<RemoteCall> calls = new ArrayList<>();
  private final List<Answer> answers = new ArrayList<>();
  private HttpServer server;
  private HttpSystem system;

  @BeforeEach
  void start() throws IOException {
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext("/", this::answer);
    server.start();
    system =
        new HttpSystem(
            SystemReader.read(
                """
                system: jobs
                name: Jobs
                address: http://127.0.0.1:%d
                sign-in: { bearer: { secret: token } }
                timeout: PT1S
                problem: { message: /error, field: /field }
                collections:
                  rounds:
                    name: Rounds
                    record: job
                    title: title
                    fields:
                      title: { name: Title, type: text }
                      due: { name: Due, type: moment }
                      priority: { name: Priority, type: number }
                      notes: { name: Notes, type: text }
                    find:
                      - { by: [code], call: "GET /jobs/{code}" }
                      - { by: [who, day], call: "GET /jobs?who={who}&day={day}", items: /items }
                    list: { call: "GET /jobs?newest=yes", items: /items, id: /id }
                    remove: "DELETE /jobs/{id}"
                    find-by-key: { call: "GET /jobs?key={key}", items: /items, id: /id }
                    create:
                      - { call: POST /jobs, fields: [title, due, priority], key-field: key }
                      - { call: "PUT /jobs/{id}/notes", fields: [notes] }
                    change:
                      - { call: "PATCH /jobs/{id}", fields: [title, due, priority] }
                      - { call: "PUT /jobs/{id}/notes", fields: [notes] }
                """
                    .formatted(server.getAddress().getPort())),
            name -> Optional.of("s3cret"),
            () -> NOW);
  }

  @AfterEach
  void stop() {
    system.close();
    server.stop(0);
  }

  private void answer(HttpExchange exchange) throws IOException {
    String body = new String(exchange.getRequestBody().readAllBytes(), UTF_8);
    seen.add(exchange.getRequestMethod() + " " + exchange.getRequestURI() + " " + body);
    assertThat(exchange.getRequestHeaders().getFirst("Authorization")).isEqualTo("Bearer s3cret");
    Answer answer = answers.removeFirst();
    if (answer.status() == 0) {
      exchange.close();
      return;
    }
    answer.headers().forEach((name, value) -> exchange.getResponseHeaders().set(name, value));
    byte[] bytes = answer.body().getBytes(UTF_8);
    exchange.sendResponseHeaders(answer.status(), bytes.length == 0 ? -1 : bytes.length);
    exchange.getResponseBody().write(bytes);
    exchange.close();
  }

  private void willAnswer(int status, String body) {
    answers.add(new Answer(status, body, Map.of()));
  }

  private static SequencedMap<String, Value> fields() {
    SequencedMap<String, Value> fields = new LinkedHashMap<>();
    fields.put("title", Text.of("Sweep"));
    fields.put("due", Moment.parse("2026-11-30T17:00:00Z"));
    fields.put("priority", Decimal.parse("1.50"));
    fields.put("notes", Text.of("by hand"));
    return fields;
  }

  private TaskGateway.Outcome deliver(
      boolean creates, Optional<String> record, SequencedMap<String, Value> fields) {
    return system.deliver(
        new TaskGateway.Effect("rounds", "key-1", creates, record, fields),
        made -> seen.add("made " + made),
        calls::add);
  }

  @Test
  void makesATaskByBothCallsAndTellsOfTheFirstAtOnce() {
    willAnswer(201, "{\"id\":\"j 7\",\"title\":\"Sweep\",\"priority\":1.5}");
    willAnswer(200, "{\"notes\":\"by hand\"}");
    assertThat(deliver(true, Optional.empty(), fields()))
        .isEqualTo(
            new TaskGateway.Delivered(
                "j 7", Map.of("title", "Sweep", "priority", "1.5", "notes", "by hand")));
    assertThat(seen)
        .containsExactly(
            "POST /jobs {\"title\":\"Sweep\",\"due\":\"2026-11-30T17:00:00Z\",\"priority\":1.5,"
                + "\"key\":\"key-1\"}",
            "made j 7",
            "PUT /jobs/j%207/notes {\"notes\":\"by hand\"}");
  }

  @Test
  void taskThatIsMadeAlreadyGetsOnlyWhatIsMissing() {
    willAnswer(200, "{}");
    deliver(true, Optional.of("j7"), fields());
    assertThat(seen).containsExactly("PUT /jobs/j7/notes {\"notes\":\"by hand\"}");
  }

  @Test
  void changeMakesOnlyTheCallsThatHaveSomethingToSay() {
    SequencedMap<String, Value> only = new LinkedHashMap<>();
    only.put("notes", Nothing.NOTHING);
    willAnswer(200, "{}");
    deliver(false, Optional.of("j7"), only);
    assertThat(seen).containsExactly("PUT /jobs/j7/notes {\"notes\":null}");
  }

  /** Kinds by status as RFC 9110 section 15 describes them. */
  @ParameterizedTest
  @CsvSource({
    "400, VALUE_REFUSED",
    "401, NOT_SIGNED_IN",
    "403, NOT_ALLOWED",
    "404, NOT_FOUND",
    "409, CHANGED_MEANWHILE",
    "412, CHANGED_MEANWHILE",
    "422, VALUE_REFUSED",
    "429, RATE_LIMITED",
    "500, ANSWER_UNKNOWN",
    "502, ANSWER_UNKNOWN",
    "503, UNREACHABLE",
    "302, VALUE_REFUSED",
    "0, ANSWER_UNKNOWN"
  })
  void writeThatFailsHasAKind(int status, FailureKind kind) {
    willAnswer(status, "{\"error\":\"told so\",\"field\":\"title\"}");
    Failure failure =
        ((TaskGateway.Undelivered) deliver(true, Optional.empty(), fields())).failure();
    assertThat(failure.kind()).isEqualTo(kind);
    if (status >= 400) {
      assertThat(failure.message()).contains("told so");
    }
    if (kind == FailureKind.VALUE_REFUSED && status >= 400) {
      assertThat(failure.field()).contains("title");
    }
  }

  /** Source of the date: RFC 9110 section 5.6.7; of both forms: section 10.2.3. */
  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {"120;PT2M", "Sun, 06 Nov 1994 08:49:37 GMT;PT30S"})
  void retryAfterIsReadInBothForms(String header, Duration wait) {
    answers.add(new Answer(429, "{}", Map.of("Retry-After", header)));
    Failure failure =
        ((TaskGateway.Undelivered) deliver(true, Optional.empty(), fields())).failure();
    assertThat(failure.retryAfter()).contains(wait);
  }

  @Test
  void truncatedAnswerToAWriteIsUnknown() {
    willAnswer(201, "{\"id\":\"j7\",\"ti");
    Failure failure =
        ((TaskGateway.Undelivered) deliver(true, Optional.empty(), fields())).failure();
    assertThat(failure.kind()).isEqualTo(FailureKind.ANSWER_UNKNOWN);
  }

  @Test
  void systemThatIsNotThereIsUnreachableAndNothingWasSent() {
    server.stop(0);
    Failure failure =
        ((TaskGateway.Undelivered) deliver(true, Optional.empty(), fields())).failure();
    assertThat(failure.kind()).isEqualTo(FailureKind.UNREACHABLE);
    assertThat(failure.remedy())
        .hasValueSatisfying(r -> assertThat(r).contains("Nothing was sent"));
  }

  @Test
  void findsOneSeveralOrNone() {
    willAnswer(200, "{\"id\":\"a\"}");
    assertThat(find("code", "x/y z"))
        .isInstanceOfSatisfying(World.Found.class, found -> assertThat(found.records()).hasSize(1));
    willAnswer(404, "");
    assertThat(find("code", "x")).isEqualTo(new World.Found(List.of()));
    assertThat(seen.getFirst()).startsWith("GET /jobs/x%2Fy%20z");
    SequencedMap<String, String> two = new LinkedHashMap<>(Map.of("who", "a&b"));
    two.put("day", "2026-11-23");
    willAnswer(200, "{\"items\":[{\"id\":1},{\"id\":2}]}");
    assertThat(system.find("rounds", two, calls::add))
        .isInstanceOfSatisfying(World.Found.class, found -> assertThat(found.records()).hasSize(2));
    assertThat(seen.getLast()).startsWith("GET /jobs?who=a%26b&day=2026-11-23");
  }

  private World.LookupAnswer find(String key, String value) {
    return system.find("rounds", new LinkedHashMap<>(Map.of(key, value)), calls::add);
  }

  @Test
  void keyIsFoundOrNotAndAnOddAnswerIsNamed() {
    willAnswer(200, "{\"items\":[{\"id\":\"j7\"}]}");
    assertThat(system.findByKey("rounds", "k", calls::add))
        .isEqualTo(new TaskGateway.Searched(Optional.of("j7")));
    willAnswer(200, "{\"items\":[]}");
    assertThat(system.findByKey("rounds", "k", calls::add))
        .isEqualTo(new TaskGateway.Searched(Optional.empty()));
    willAnswer(200, "{\"things\":[]}");
    assertThat(
            ((TaskGateway.Unsearched) system.findByKey("rounds", "k", calls::add)).failure().kind())
        .isEqualTo(FailureKind.SHAPE_CHANGED);
  }

  @Test
  void callsAreTakenDownWithTheTokenMasked() {
    willAnswer(201, "{\"id\":\"j7\"}");
    willAnswer(500, "{\"error\":\"broke\"}");
    deliver(true, Optional.empty(), fields());
    assertThat(calls).hasSize(2);
    assertThat(calls.toString()).contains("Authorization: ••••••••").doesNotContain("s3cret");
    assertThat(calls.getLast().status()).isEqualTo(500);
    assertThat(calls.getFirst().start()).isEqualTo(NOW);
  }

  @Test
  void newestRecordsAreListedUpToWhatIsWanted() {
    willAnswer(200, "{\"items\":[{\"id\":3},{\"id\":2},{\"id\":1}]}");
    var listed = (World.Found) system.list("rounds", 2, calls::add);
    assertThat(listed.records()).extracting(job -> job.path("id").asInt()).containsExactly(3, 2);
    assertThat(seen).containsExactly("GET /jobs?newest=yes ");
    willAnswer(200, "{\"jobs\":[]}");
    var changed = (World.Unanswered) system.list("rounds", 2, calls::add);
    assertThat(changed.failure().kind()).isEqualTo(FailureKind.SHAPE_CHANGED);
  }

  /** What is gone already counts as taken away, so that a second press does no harm. */
  @Test
  void takingAwayIsDoneOnceAndAgain() {
    for (int status : new int[] {204, 404, 410}) {
      willAnswer(status, "");
      assertThat(system.remove("rounds", "j/1", calls::add))
          .as("after " + status)
          .isInstanceOf(TaskGateway.Removed.class);
    }
    assertThat(seen).containsOnly("DELETE /jobs/j%2F1 ");
  }

  @Test
  void takingAwayThatIsRefusedOrNotAnsweredIsTold() {
    willAnswer(403, "{\"error\":\"not yours\"}");
    var refused = (TaskGateway.NotRemoved) system.remove("rounds", "j-1", calls::add);
    assertThat(refused.failure().message()).contains("not yours");
    willAnswer(0, "");
    var lost = (TaskGateway.NotRemoved) system.remove("rounds", "j-1", calls::add);
    assertThat(lost.failure().message()).contains("gave no answer");
  }
}
