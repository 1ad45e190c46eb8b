package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.ysthmos.standins.http.StandIn;

/** What comes after a task: the record it came from is changed, and others are told. */
class ThenIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(20);

  private static final String TELL =
      """
        tell:
          to: { system: garden-chat, collection: messages }
          when: { not: { value: values/fault, equal: QUIET } }
          fields:
            channel: { always: works }
            text: { text: "Ticket {/ticket/id} is job {made/id}" }
      """;

  private static void goLive(String more) throws Exception {
    String document = Files.readString(SETUP.resolve("bridges").resolve("climate-job.yaml"));
    assertThat(document).contains("\nthen:\n");
    var answer = putBridge("climate-job", document.replace("\nceiling:", "\n" + more + "ceiling:"));
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  private static JsonNode call(
      StandIn standIn, String token, String method, String path, String body) throws Exception {
    String address = "http://127.0.0.1:" + standIn.port() + path;
    var answer = send(method, address, body, Map.of("Authorization", "Bearer " + token));
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  private static String ticket(String description) throws Exception {
    return openTicket("Too warm", description);
  }

  private static JsonNode ticketNow(String number) throws Exception {
    return call(CLIMATE, "climate", "GET", "/api/tickets/" + number, "");
  }

  /** The trace that made the task, once it has ended; the oldest of the ticket. */
  private static JsonNode made(String number) {
    await()
        .atMost(LONG)
        .until(
            () ->
                !tracesOf(number).isEmpty()
                    && !tracesOf(number).getLast().path("verdict").asText().equals("WAITING"));
    return tracesOf(number).getLast();
  }

  private static List<String> messagesOf(String number) throws Exception {
    return StreamSupport.stream(
            call(CHAT, "chat", "GET", "/api/messages", "").path("messages").spliterator(), false)
        .map(message -> message.path("text").asText())
        .filter(text -> text.contains(number))
        .collect(Collectors.toList());
  }

  private static long jobsOf(String number) {
    return jobs().stream()
        .filter(job -> job.path("description").asText().contains("Ticket " + number + ","))
        .count();
  }

  @Test
  void ticketNamesItsJobOnceItIsMadeAndThatGoesNotRound() throws Exception {
    goLive("");
    String number = ticket("Fault code: HV-12 goes back");
    JsonNode trace = made(number);
    assertThat(trace.path("verdict").asText()).as(trace.toString()).isEqualTo("CREATE");
    JsonNode ticket = ticketNow(number);
    assertThat(ticket.path("job").asText()).isEqualTo(trace.path("target").asText());
    assertThat(ticket.path("jobPage").asText())
        .endsWith("/jobs/" + trace.path("target").asText())
        .startsWith("http");
    assertThat(story(trace).toString()).contains("Then done: number-back");
    // The desk tells of the change that we made; nothing comes of it.
    await().atMost(LONG).until(() -> tracesOf(number).size() == 2);
    await()
        .atMost(LONG)
        .until(() -> !tracesOf(number).getFirst().path("verdict").asText().equals("WAITING"));
    assertThat(tracesOf(number).getFirst().path("verdict").asText()).isIn("PASSED_BY", "UNCHANGED");
    assertThat(ticketNow(number).path("version")).isEqualTo(ticket.path("version"));
    assertThat(jobsOf(number)).isEqualTo(1);
  }

  @Test
  void writingBackThatFailsMakesNoJobAgainAndIsDoneWhenSentAgain() throws Exception {
    goLive("");
    fault(CLIMATE.port(), "forbidden", "PATCH", "/api/tickets", 50);
    String number = ticket("Fault code: HV-12 not allowed");
    JsonNode failed = made(number);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(failed.path("target").asText()).isNotEmpty();
    assertThat(ticketNow(number).has("job")).isFalse();
    noFaultsAtTheDesk();
    resend(failed);
    await().atMost(LONG).until(() -> ticketNow(number).has("job"));
    assertThat(ticketNow(number).path("job").asText()).isEqualTo(failed.path("target").asText());
    assertThat(jobsOf(number)).isEqualTo(1);
  }

  private static void noFaultsAtTheDesk() throws Exception {
    send("DELETE", "http://127.0.0.1:" + CLIMATE.port() + "/control/faults", "", Map.of());
  }

  @Test
  void answerThatIsLostWritesBackOnce() throws Exception {
    goLive("");
    fault(CLIMATE.port(), "answer-lost", "PATCH", "/api/tickets", 1);
    fault(LEDGER.port(), "answer-lost", "POST", "/api/jobs", 1);
    String number = ticket("Fault code: WL-04 lost twice");
    assertThat(made(number).path("verdict").asText()).isEqualTo("CREATE");
    await().atMost(LONG).until(() -> ticketNow(number).has("job"));
    assertThat(jobsOf(number)).isEqualTo(1);
  }

  @Test
  void messageComesAfterBothEachUnderItsOwnConditionAndOnce() throws Exception {
    goLive(TELL);
    String number = ticket("Fault code: HV-12 and tell");
    JsonNode trace = made(number);
    assertThat(trace.path("verdict").asText()).as(trace.toString()).isEqualTo("CREATE");
    assertThat(messagesOf(number))
        .containsExactly("Ticket %s is job %s".formatted(number, trace.path("target").asText()));
    String lines = story(trace).toString();
    assertThat(lines.indexOf("Then done: number-back"))
        .isPositive()
        .isLessThan(lines.indexOf("Then done: tell"));
    // A change of the ticket changes the job, and tells nobody again.
    call(
        CLIMATE,
        "climate",
        "PATCH",
        "/api/tickets/" + number,
        "{\"description\":\"Fault code: EL-21\"}");
    await()
        .atMost(LONG)
        .until(
            () ->
                tracesOf(number).stream()
                    .anyMatch(one -> one.path("verdict").asText().equals("UPDATE")));
    assertThat(messagesOf(number)).hasSize(1);

    String quiet = ticket("Fault code: QUIET");
    assertThat(made(quiet).path("verdict").asText()).isEqualTo("CREATE");
    await().atMost(LONG).until(() -> ticketNow(quiet).has("job"));
    assertThat(messagesOf(quiet)).isEmpty();
  }

  @Test
  void nothingComesAfterAJobThatIsNotMade() throws Exception {
    goLive(TELL);
    fault(LEDGER.port(), "forbidden", "POST", "/api/jobs", 50);
    String number = ticket("Fault code: HV-12 never made");
    JsonNode failed = made(number);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(ticketNow(number).has("job")).isFalse();
    assertThat(messagesOf(number)).isEmpty();
    send("DELETE", "http://127.0.0.1:" + LEDGER.port() + "/control/faults", "", Map.of());
    resend(failed);
    await().atMost(LONG).until(() -> messagesOf(number).size() == 1);
    assertThat(ticketNow(number).path("job").asText()).isNotEmpty();
    assertThat(jobsOf(number)).isEqualTo(1);
  }
}
