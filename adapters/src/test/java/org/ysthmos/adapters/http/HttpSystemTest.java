package org.ysthmos.adapters.http;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.ysthmos.adapters.connect.SystemReader;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.failure.Failure;
import org.ysthmos.core.failure.FailureKind;
import org.ysthmos.core.gateway.QuotaReading;
import org.ysthmos.core.gateway.SystemGateway;
import org.ysthmos.core.gateway.TaskGateway;

class HttpSystemTest extends WithScriptedSystem {

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

  /** The server says the time of this machine, and the clock here stands still in 1994. */
  @Test
  void clockOfASystemIsKnownByTheDateOfItsAnswer() {
    willAnswer(200, "{\"id\":\"1\"}");
    SequencedMap<String, String> keys = new LinkedHashMap<>();
    keys.put("id", "1");
    World.Found found = (World.Found) system.find("orders", keys, calls::add);
    assertThat(found.ahead())
        .isCloseTo(Duration.between(NOW, Instant.now()), Duration.ofMinutes(5));
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
  void systemThatIsFullIsToldFromOneThatForbidsByTheWordItIsDescribedToSay() {
    willAnswer(403, "{\"error\":\"500 jobs are open\",\"code\":\"no-room\"}");
    assertThat(failureOfACreate())
        .satisfies(
            full -> {
              assertThat(full.kind()).isEqualTo(FailureKind.QUOTA_FULL);
              assertThat(full.message()).contains("500 jobs are open");
              assertThat(full.remedy().orElse("")).contains("more room");
            });
    willAnswer(403, "{\"error\":\"not you\",\"code\":\"no-right\"}");
    assertThat(failureOfACreate().kind()).isEqualTo(FailureKind.NOT_ALLOWED);
  }

  private Failure failureOfACreate() {
    return ((TaskGateway.Undelivered) deliver(true, Optional.empty(), fields())).failure();
  }

  @Test
  void howFullItIsIsReadAndNearlyFullFromNineTenths() {
    willAnswer(200, "{\"jobs\":{\"open\":449,\"most\":500}}");
    var roomy = new QuotaReading.Filled("open jobs", 449, 500);
    assertThat(system.quota(calls::add)).contains(roomy);
    assertThat(roomy.nearlyFull()).isFalse();
    assertThat(new QuotaReading.Filled("open jobs", 450, 500).nearlyFull()).isTrue();
    assertThat(seen.getLast()).startsWith("GET /account");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "200;{\"jobs\":{\"open\":\"many\",\"most\":500}};SHAPE_CHANGED",
        "200;{\"jobs\":{\"open\":1,\"most\":0}};SHAPE_CHANGED",
        "401;{};NOT_SIGNED_IN"
      })
  void howFullItIsStaysUnknownWithTheReason(int status, String body, FailureKind kind) {
    willAnswer(status, body);
    assertThat(system.quota(calls::add).orElseThrow())
        .isInstanceOfSatisfying(
            QuotaReading.Unread.class,
            unread -> assertThat(unread.failure().kind()).isEqualTo(kind));
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

  @Test
  void callsKeepToTheLimitWithoutAskingTheSystem() {
    answers.add(new Answer(200, "{\"items\":[]}", Map.of("X-Left", "0", "X-Until", "30")));
    assertThat(system.findByKey("rounds", "k", calls::add))
        .isInstanceOf(TaskGateway.Searched.class);
    var held = (TaskGateway.Unsearched) system.findByKey("rounds", "k", calls::add);
    assertThat(held.failure().noRoom()).isTrue();
    assertThat(held.failure().retryAfter()).contains(Duration.ofSeconds(30));
    assertThat(seen).hasSize(1);
  }

  @Test
  void systemThatAsksToWaitIsLeftAlone() {
    answers.add(new Answer(429, "", Map.of("Retry-After", "7")));
    var told = (TaskGateway.Unsearched) system.findByKey("rounds", "k", calls::add);
    assertThat(told.failure().noRoom()).isFalse();
    var held = (TaskGateway.Unsearched) system.findByKey("rounds", "k", calls::add);
    assertThat(held.failure().retryAfter()).contains(Duration.ofSeconds(7));
    assertThat(calls).hasSize(1);
  }

  /** RFC 9110 section 8.4.1.3. */
  @Test
  void answerThatIsCompressedIsRead() {
    answers.add(
        new Answer(200, "{\"items\":[{\"id\":\"j7\"}]}", Map.of("Content-Encoding", "gzip")));
    assertThat(((TaskGateway.Searched) system.findByKey("rounds", "k", calls::add)).record())
        .contains("j7");
  }

  /** RFC 9110 section 11.6.1: a refusal says how it wants to be signed in to. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "bearer: { secret: t } | Bearer | a valid token",
        "bearer: { secret: t } | Basic realm=x | it asks for Basic",
        "basic: { user: u, secret: t } | Basic realm=x | a valid user and password",
        "basic: { user: u, secret: t } | Bearer | It takes no user and password here; it asks for Bearer",
        "header: { name: X-Key, secret: t } | Key | a valid key for its header X-Key",
      })
  void refusedSignInSaysWhatIsWrongWithIt(String signIn, String challenge, String remedy)
      throws Exception {
    assertThat(asked(401, Map.of("WWW-Authenticate", challenge), "sign-in: { " + signIn + " }"))
        .contains(remedy);
  }

  @Test
  void systemThatWantsASignInAndAQuestionThatIsNotTakenAreSaidAsSuch() throws Exception {
    assertThat(asked(401, Map.of("WWW-Authenticate", "Basic"), ""))
        .contains("wants to be signed in to; say sign-in");
    assertThat(asked(400, Map.of(), ""))
        .contains("Compare the call in the system's document")
        .doesNotContain("rule of the field");
  }

  /** The remedy after a question that is answered so. */
  private String asked(int status, Map<String, String> headers, String signIn) throws Exception {
    HttpServer other =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    other.createContext(
        "/",
        exchange -> {
          headers.forEach(exchange.getResponseHeaders()::set);
          exchange.sendResponseHeaders(status, -1);
          exchange.close();
        });
    other.start();
    String document =
        """
        system: jobs
        name: Jobs
        address: http://127.0.0.1:%d
        %s
        collections:
          rounds: { name: Rounds, record: job, list: { call: GET /jobs, items: "", id: /id } }
        """;
    try (SystemGateway asked =
        SystemReader.read(document.formatted(other.getAddress().getPort(), signIn))
            .open(new Surroundings(name -> Optional.of("s3cret"), () -> NOW))) {
      var answer = (World.Unanswered) asked.list("rounds", 1, call -> {});
      return answer.failure().remedy().orElse("");
    } finally {
      other.stop(0);
    }
  }
}
