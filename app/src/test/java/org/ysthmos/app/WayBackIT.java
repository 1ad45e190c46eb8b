package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;

/** What became of a task goes back to the record that it was made of. */
class WayBackIT extends BothWaysTestBase {

  private static final Duration LONG = Duration.ofSeconds(20);
  private static final String BACK = "climate-solved";

  private static JsonNode ticket(String number) throws Exception {
    var answer =
        send(
            "GET",
            "http://127.0.0.1:" + CLIMATE.port() + "/api/tickets/" + number,
            "",
            Map.of("Authorization", "Bearer climate"));
    return JSON.readTree(answer.body());
  }

  /** A ticket is opened. */
  private static String opened(String subject) throws Exception {
    return openTicket(subject, "Fault code: HV-12");
  }

  /** The job that was made of a ticket. */
  private static String jobOfTicket(String number) {
    await()
        .atMost(LONG)
        .until(
            () ->
                tracesOf(number).stream().anyMatch(one -> !one.path("target").asText().isEmpty()));
    return tracesOf(number).getLast().path("target").asText();
  }

  private static void done(String job) throws Exception {
    form(LEDGER, "/jobs/" + job + "/status", Map.of("status", "done"));
    send("POST", app("/api/systems/works-ledger/collections/jobs/ask"), "", Map.of());
  }

  private static List<JsonNode> tracesBack(String job) {
    return StreamSupport.stream(api("/traces?bridge=" + BACK).path("traces").spliterator(), false)
        .filter(one -> one.path("record").asText().equals(job))
        .toList();
  }

  private static JsonNode ended(String job, String verdict) {
    await()
        .atMost(LONG)
        .until(
            () ->
                tracesBack(job).stream()
                    .anyMatch(one -> one.path("verdict").asText().equals(verdict)));
    return tracesBack(job).stream()
        .filter(one -> one.path("verdict").asText().equals(verdict))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void ticketIsSolvedOnceItsJobIsDone() throws Exception {
    String number = opened("Too warm, and mended");
    String job = jobOfTicket(number);
    assertThat(ticket(number).path("status").asText()).isEqualTo("new");
    done(job);
    JsonNode trace = ended(job, "UPDATE");
    assertThat(ticket(number).path("status").asText()).isEqualTo("solved");
    assertThat(story(trace).toString()).contains(number);
    // What we wrote there is told by the desk, and goes round no further.
    long version = ticket(number).path("version").asLong();
    await()
        .atMost(LONG)
        .until(
            () ->
                tracesOf(number).size() == 2
                    && tracesOf(number).stream()
                        .noneMatch(one -> one.path("verdict").asText().equals("WAITING")));
    assertThat(tracesOf(number).getFirst().path("verdict").asText()).isEqualTo("PASSED_BY");
    assertThat(ticket(number).path("version").asLong()).isEqualTo(version);
  }

  @Test
  void jobThatCameOfNoTicketIsPassedBy() throws Exception {
    String job = makeJob("{\"title\":\"Sweep the yard\"}").path("id").asText();
    done(job);
    await()
        .atMost(LONG)
        .until(
            () ->
                tracesBack(job).stream()
                    .anyMatch(one -> one.path("reason").asText().contains("is no task that")));
    assertThat(tracesBack(job))
        .allSatisfy(one -> assertThat(one.path("verdict").asText()).isEqualTo("PASSED_BY"));
  }

  @Test
  void whatCannotBeWrittenWaitsForAPersonAndIsWrittenWhenSentAgain() throws Exception {
    String number = opened("Too warm, and nobody may say so");
    String job = jobOfTicket(number);
    fault(CLIMATE.port(), "forbidden", "PATCH", "/api/tickets", 50);
    done(job);
    JsonNode failed = ended(job, "FAILED");
    assertThat(ticket(number).path("status").asText()).isEqualTo("new");
    send("DELETE", "http://127.0.0.1:" + CLIMATE.port() + "/control/faults", "", Map.of());
    resend(failed);
    await().atMost(LONG).until(() -> ticket(number).path("status").asText().equals("solved"));
  }
}
