package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.ysthmos.standins.http.StandIn;

/** The demo's other bridges, each between two systems of quite different habits. */
class GardenIT extends AppTestBase {

  private static JsonNode call(StandIn standIn, String token, String path) throws Exception {
    String address = "http://127.0.0.1:" + standIn.port() + path;
    var answer = send("GET", address, "", Map.of("Authorization", "Bearer " + token));
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  private static JsonNode job(JsonNode trace) throws Exception {
    return call(LEDGER, "ledger", "/api/jobs/" + trace.path("target").asText());
  }

  private static void ask(String system, String collection) throws Exception {
    await()
        .atMost(Duration.ofSeconds(20))
        .until(
            () ->
                StreamSupport.stream(api("/polls").spliterator(), false)
                    .anyMatch(
                        poll ->
                            poll.path("system").asText().equals(system)
                                && !poll.path("askedAt").isNull()));
    String path = "/api/systems/%s/collections/%s/ask".formatted(system, collection);
    assertThat(send("POST", app(path), "", Map.of()).statusCode()).isEqualTo(202);
  }

  private static String ticket(String description) throws Exception {
    return openTicket("Too cold", description);
  }

  @Test
  void ticketBecomesAJobByTheFaultCodeInItsTextAndFollowsIt() throws Exception {
    String number = ticket("House: Palm house\nFault code: hv-12 \nSince today");
    JsonNode trace = settled(number, 1);
    assertThat(trace.path("verdict").asText()).as(trace.toString()).isEqualTo("CREATE");
    JsonNode job = job(trace);
    assertThat(job.path("title").asText()).isEqualTo("HV-12 Too cold");
    assertThat(job.path("owner").asText()).isEqualTo("glass@tidewrack.example");
    assertThat(job.path("due").asText()).matches("\\d{4}-\\d{2}-\\d{2}");
    assertThat(job.path("labels").toString()).isEqualTo("[\"climate\",\"HV-12\"]");
    // Somebody sets the status meanwhile: the change goes with the tag of what is there now.
    form(LEDGER, "/jobs/" + job.path("id").asText() + "/status", Map.of("status", "in-work"));
    String address = "http://127.0.0.1:" + CLIMATE.port() + "/api/tickets/" + number;
    String body = "{\"description\":\"Fault code: EL-21\"}";
    send("PATCH", address, body, Map.of("Authorization", "Bearer climate"));
    JsonNode second = settled(number, 2);
    assertThat(second.path("verdict").asText()).as(second.toString()).isEqualTo("UPDATE");
    assertThat(job(second).path("title").asText()).isEqualTo("EL-21 Too cold");
    assertThat(job(second).path("owner").asText()).isEqualTo("s.imanov@tidewrack.example");
    assertThat(job(second).path("status").asText()).isEqualTo("in-work");
  }

  @Test
  void whatWasWrittenFromHereIsNotToldBackAndWhatOthersDoIs() throws Exception {
    JsonNode trace = settled(ticket("Fault code: HV-12 told back"), 1);
    String number = job(trace).path("id").asText();
    ask("works-ledger", "jobs");
    await().atMost(Duration.ofSeconds(20)).until(() -> tracesOf(number).size() == 5);
    for (JsonNode own : tracesOf(number)) {
      await().atMost(Duration.ofSeconds(20)).until(() -> !verdict(own).equals("WAITING"));
      assertThat(verdict(own)).isEqualTo("PASSED_BY");
      // Three of the five bridges ask for what is written from here, and hear of it.
      boolean asks =
          List.of("job-done-message", "climate-solved", "round-done")
              .contains(own.path("bridge").asText());
      assertThat(api("/traces/" + own.path("id").asText()).at("/trace/reason").asText())
          .isEqualTo(
              asks
                  ? "It passes only when status changed to “done”; it went from nothing to “planned”."
                  : "It tells of what was written there from here, and of nothing else.");
    }
    form(LEDGER, "/jobs/" + number + "/status", Map.of("status", "in-work"));
    ask("works-ledger", "jobs");
    await().atMost(Duration.ofSeconds(20)).until(() -> tracesOf(number).size() == 10);
    JsonNode others = tracesOf(number).getFirst();
    await().atMost(Duration.ofSeconds(20)).until(() -> !verdict(others).equals("WAITING"));
    assertThat(api("/traces/" + others.path("id").asText()).at("/trace/reason").asText())
        .doesNotContain("written there from here");
  }

  private static String verdict(JsonNode trace) {
    return api("/traces/" + trace.path("id").asText()).at("/trace/verdict").asText();
  }

  @Test
  void webhookThatIsOvertakenByALaterVersionChangesNothingBack() throws Exception {
    String number = ticket("Fault code: HV-12");
    settled(number, 1);
    String address = "http://127.0.0.1:" + CLIMATE.port() + "/api/tickets/" + number;
    var token = Map.of("Authorization", "Bearer climate");
    fault(CLIMATE.port(), "hook-out-of-order", "", "", 1);
    send("PATCH", address, "{\"description\":\"Fault code: EL-21\"}", token);
    send("PATCH", address, "{\"description\":\"Fault code: WL-04\"}", token);
    JsonNode late = settled(number, 3);
    assertThat(late.path("verdict").asText()).isEqualTo("PASSED_BY");
    assertThat(late.path("reason").asText())
        .isEqualTo("It tells of version 2, and version 3 came before it.");
    JsonNode made = tracesOf(number).getLast();
    assertThat(job(made).path("title").asText()).isEqualTo("WL-04 Too cold");
  }

  @Test
  void jobWhoseAnswerIsLostIsMadeOnceByItsKeyInTheHeader() throws Exception {
    fault(LEDGER.port(), "answer-lost", "POST", "/api/jobs", 1);
    String number = ticket("Fault code: WL-04 lost answer");
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("CREATE");
    long made =
        jobs().stream()
            .filter(job -> job.path("description").asText().contains(number + ","))
            .count();
    assertThat(made).isEqualTo(1);
  }

  @Test
  void webhookWithAnotherSecretOrSignatureIsRefused() throws Exception {
    var unsigned =
        send(
            "POST",
            app("/hooks/climate-desk/tickets"),
            "{}",
            Map.of("Climate-Delivery", "x", "Climate-Signature", "sha256=00"));
    assertThat(unsigned.statusCode()).isEqualTo(401);
    assertThat(unsigned.body()).contains("the signature does not fit");
    var shared = Map.of("Chat-Event", "x", "Chat-Secret", "wrong");
    assertThat(send("POST", app("/hooks/garden-chat/reactions"), "{}", shared).statusCode())
        .isEqualTo(401);
    var anonymous = Map.of("Chat-Secret", "chat-hook");
    var answer = send("POST", app("/hooks/garden-chat/reactions"), "{}", anonymous);
    assertThat(answer.statusCode()).isEqualTo(400);
    assertThat(answer.body()).contains("Chat-Event");
  }

  @Test
  void messageThatIsMarkedWithASeedlingBecomesAJobOnce() throws Exception {
    String text = "The bench wobbles " + System.nanoTime();
    String message =
        form(CHAT, "/messages", Map.of("channel", "nursery", "author", "wen", "text", text));
    String first = form(CHAT, "/reactions", Map.of("message", message, "by", "ana"));
    JsonNode trace = settled(first, 1);
    assertThat(trace.path("verdict").asText()).as(trace.toString()).isEqualTo("CREATE");
    assertThat(job(trace).path("title").asText()).isEqualTo(text);
    String second = form(CHAT, "/reactions", Map.of("message", message, "by", "rui"));
    assertThat(settled(second, 1).path("verdict").asText()).isEqualTo("UNCHANGED");
    String other =
        form(CHAT, "/reactions", Map.of("message", message, "by", "rui", "reaction", "thanks"));
    assertThat(settled(other, 1).path("verdict").asText()).isEqualTo("PASSED_BY");
  }

  @Test
  void exhibitionGetsItsPreparationsWhenItIsGivenADayAndTheyMoveWithIt() throws Exception {
    ask("chore-table", "exhibitions");
    Map<String, String> row =
        Map.of("title", "By sea", "opens", "", "house", "Palm house", "handbook", "sea");
    String number = form(CHORES, "/sheets/exhibitions/rows", row);
    ask("chore-table", "exhibitions");
    assertThat(settled(number, 1).path("verdict").asText()).isEqualTo("PASSED_BY");
    String address = "http://127.0.0.1:" + CHORES.port() + "/api/sheets/exhibitions/rows/" + number;
    var token = Map.of("Authorization", "Bearer chores");
    send("PATCH", address, "{\"opens\":\"12 March 2027\"}", token);
    ask("chore-table", "exhibitions");
    JsonNode trace = settled(number, 2);
    assertThat(trace.path("verdict").asText()).as(trace.toString()).isEqualTo("CREATE");
    assertThat(jobs("By sea")).hasSize(6);
    assertThat(jobs("By sea"))
        .filteredOn(job -> job.path("title").asText().startsWith("Plan"))
        .singleElement()
        .satisfies(
            plan -> {
              // Twenty working days before, 12 February 2027 being the first of them to come.
              assertThat(plan.path("due").asText()).isEqualTo("2027-02-12");
              assertThat(plan.path("parent").asText()).startsWith("wl-");
              assertThat(plan.path("link").asText())
                  .isEqualTo("https://handbook.tidewrack.example/sea/plan");
            });
    send("PATCH", address, "{\"opens\":\"19 March 2027\"}", token);
    ask("chore-table", "exhibitions");
    assertThat(settled(number, 3).path("verdict").asText()).isEqualTo("UPDATE");
    assertThat(jobs("By sea"))
        .extracting(job -> job.path("due").asText())
        .contains("2027-03-19", "2027-02-19");
  }

  private static List<JsonNode> jobs(String title) throws Exception {
    List<JsonNode> jobs = new java.util.ArrayList<>();
    String after = "0";
    while (!after.isEmpty()) {
      JsonNode page = call(LEDGER, "ledger", "/api/changes?limit=40&after=" + after);
      page.path("changes").forEach(jobs::add);
      after = page.path("more").asText("");
    }
    return jobs.stream().filter(job -> job.path("title").asText().contains(title)).toList();
  }

  @Test
  void jobThatIsDoneIsToldToItsChannelAndToWhoeverAsked() throws Exception {
    ask("works-ledger", "jobs");
    String number = ticket("Fault code: HV-30\nTo be done");
    String job = job(settled(number, 1)).path("id").asText();
    ask("works-ledger", "jobs");
    settledOf(job, 5);
    form(LEDGER, "/jobs/" + job + "/status", Map.of("status", "done"));
    ask("works-ledger", "jobs");
    settledOf(job, 10);
    JsonNode said = call(CHAT, "chat", "/api/messages?channel=works");
    assertThat(said.toString()).contains("Done: HV-30 Too cold (" + job + ")");
    List<JsonNode> traces = tracesOf(job);
    assertThat(traces)
        .filteredOn(trace -> trace.path("verdict").asText().equals("CREATE"))
        .extracting(trace -> trace.path("bridge").asText())
        .containsExactlyInAnyOrder("job-done-message", "job-done-letter");
  }

  /** Five bridges hear of the ledger: a change makes a trace for each. */
  private static void settledOf(String job, int count) {
    await()
        .atMost(Duration.ofSeconds(20))
        .pollInterval(Duration.ofMillis(60))
        .until(
            () -> {
              var traces = tracesOf(job);
              return traces.size() == count
                  && traces.stream().noneMatch(t -> t.path("verdict").asText().equals("WAITING"));
            });
  }

  @Test
  void documentIsReviewedOnceAndItsRevisionChangesTheReview() throws Exception {
    String path = "records/ferns/blechnum-" + System.nanoTime() + ".txt";
    ask("leaf-library", "plant-records");
    Map<String, String> added =
        Map.of("path", path, "kind", "Plant record", "approved", "no", "text", "Bed 14");
    form(LIBRARY, "/documents", added);
    ask("leaf-library", "plant-records");
    JsonNode trace = settled("/" + path, 1);
    assertThat(trace.path("verdict").asText()).as(trace.toString()).isEqualTo("CREATE");
    form(LIBRARY, "/documents", Map.of("path", path, "approved", "yes", "text", "Bed 15"));
    ask("leaf-library", "plant-records");
    JsonNode second = settled("/" + path, 2);
    assertThat(second.path("verdict").asText()).as(second.toString()).isEqualTo("UPDATE");
    assertThat(second.path("target").asText()).isEqualTo(trace.path("target").asText());
    JsonNode task = board("GET", "/api/tasks/" + second.path("target").asText(), "");
    assertThat(task.path("title").asText()).endsWith(", revision 2");
    assertThat(task.path("priority").asInt()).isEqualTo(6);
    assertThat(task.path("notes").asText()).contains("/dav/records/ferns/blechnum-");
  }
}
