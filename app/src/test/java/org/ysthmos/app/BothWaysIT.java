package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class BothWaysIT extends BothWaysTestBase {

  private static final String TASK =
      """
      {"title":"%s","lane":"doing","due":"2026-12-01T17:00:00Z","assignees":["bu-41"],
       "labels":["board","water"]}
      """;

  private static String verdicts() {
    return String.join(
        " ", traces().stream().map(one -> one.path("verdict").asText()).toList().reversed());
  }

  @Test
  void taskIsMadeAcrossOnceAndEachSideFollowsTheOther() throws Exception {
    String task = makeTask(TASK.formatted("Mend the sluice")).path("id").asText();
    quiet();
    JsonNode job = jobOf(task).orElseThrow();
    assertThat(job.path("title").asText()).isEqualTo("Mend the sluice");
    assertThat(job.path("status").asText()).isEqualTo("in-work");
    assertThat(job.path("due").asText()).isEqualTo("2026-12-01");
    assertThat(job.path("owner").asText()).isEqualTo("h.duarte@tidewrack.example");

    String id = job.path("id").asText();
    changeJob(id, "{\"status\":\"done\",\"due\":\"2026-12-04\"}");
    changeTask(task, "{\"title\":\"Mend the old sluice\"}");
    quiet();
    assertThat(task(task).path("lane").asText()).isEqualTo("finished");
    assertThat(task(task).path("due").asText()).isEqualTo("2026-12-04T17:00:00Z");
    assertThat(job(id).path("title").asText()).isEqualTo("Mend the old sluice");
    assertThat(disagreements()).isEmpty();

    int before = traces().size();
    quiet();
    assertThat(traces()).as("echoes of our own writing cause nothing more").hasSize(before);
  }

  /** Whichever was there first: the task that is made has its page only once it is made. */
  @Test
  void pageOfTheTaskStandsInTheJob() throws Exception {
    String task = makeTask(TASK.formatted("Oil the lock")).path("id").asText();
    String job =
        makeJob("{\"title\":\"Grease the winch\",\"labels\":[\"board\"]}").path("id").asText();
    quiet();
    assertThat(jobOf(task).orElseThrow().path("link").asText()).endsWith("/boards/works#" + task);
    String page = job(job).path("link").asText();
    assertThat(page).contains("/boards/works#");
    String made = page.substring(page.indexOf('#') + 1);
    assertThat(task(made).path("title").asText()).isEqualTo("Grease the winch");

    int before = traces().size();
    quiet();
    assertThat(traces()).hasSize(before);
    assertThat(disagreements()).isEmpty();
  }

  @Test
  void whatOnlyOneSideCanSayStaysThere() throws Exception {
    String task = makeTask(TASK.formatted("Paint the boat shed")).path("id").asText();
    quiet();
    String job = jobOf(task).orElseThrow().path("id").asText();
    changeJob(job, "{\"status\":\"waiting\"}");
    quiet();
    assertThat(task(task).path("lane").asText()).isEqualTo("doing");
    assertThat(job(job).path("status").asText()).isEqualTo("waiting");

    // The board keeps 120 characters of a title and the ledger 90: what it cuts is no change.
    String title = "Paint the boat shed " + "and all of its doors ".repeat(4).strip();
    changeTask(task, JSON.createObjectNode().put("title", title).toString());
    quiet();
    assertThat(job(job).path("title").asText()).hasSizeLessThanOrEqualTo(90).startsWith("Paint");
    assertThat(task(task).path("title").asText()).isEqualTo(title);
    changeJob(job, "{\"labels\":[\"board\",\"water\",\"urgent\"]}");
    changeTask(task, "{\"labels\":[\"board\",\"harbour\"]}");
    quiet();
    assertThat(task(task).path("title").asText()).isEqualTo(title);
    assertThat(texts(task(task).path("labels")))
        .containsExactlyInAnyOrder("board", "harbour", "urgent")
        .isEqualTo(List.copyOf(texts(task(task).path("labels"))));
    assertThat(texts(job(job).path("labels")))
        .containsExactlyInAnyOrder("board", "harbour", "urgent");
  }

  private static List<String> texts(JsonNode array) {
    List<String> texts = new java.util.ArrayList<>();
    array.forEach(item -> texts.add(item.asText()));
    return texts;
  }

  @Test
  void fieldThatWasChangedOnBothSidesWaitsForAPersonAndOthersGoOn() throws Exception {
    String task = makeTask(TASK.formatted("Clear the culvert")).path("id").asText();
    quiet();
    String job = jobOf(task).orElseThrow().path("id").asText();
    changeJob(job, "{\"title\":\"Culvert: clear it\"}");
    changeTask(task, "{\"title\":\"Clear the north culvert\",\"lane\":\"finished\"}");
    quiet();
    assertThat(job(job).path("status").asText()).isEqualTo("done");
    assertThat(job(job).path("title").asText()).isEqualTo("Culvert: clear it");
    assertThat(task(task).path("title").asText()).isEqualTo("Clear the north culvert");
    assertThat(disagreements()).hasSize(1);
    JsonNode one = disagreements().getFirst();
    assertThat(one.path("left").path("before").asText()).isEqualTo("Clear the culvert");
    assertThat(one.path("left").path("now").asText()).isEqualTo("Clear the north culvert");
    assertThat(one.path("right").path("now").asText()).isEqualTo("Culvert: clear it");
    assertThat(api("/watch").path("disagreements").asInt()).isEqualTo(1);

    answer(one, "TYPED", "Clear the north culvert of leaves");
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Clear the north culvert of leaves");
    assertThat(task(task).path("title").asText()).isEqualTo("Clear the north culvert of leaves");
    assertThat(disagreements()).isEmpty();

    changeJob(job, "{\"title\":\"a\"}");
    changeTask(task, "{\"title\":\"b\"}");
    quiet();
    answer(disagreements().getFirst(), "RIGHT", "");
    quiet();
    assertThat(task(task).path("title").asText()).isEqualTo("a");
  }

  /**
   * The ledger tells of the job's last state alone, so that its first event is what somebody did.
   */
  @Test
  void jobThatSomebodyChangesBeforeItsMakingWasToldDoesNotCountAsOurOwnDoing() throws Exception {
    String task = makeTask(TASK.formatted("Grease the winch")).path("id").asText();
    org.awaitility.Awaitility.await().until(() -> jobOf(task).isPresent());
    String job = jobOf(task).orElseThrow().path("id").asText();
    changeJob(job, "{\"status\":\"done\"}");
    quiet();
    assertThat(task(task).path("lane").asText()).isEqualTo("finished");
    assertThat(api("/bridges/" + BRIDGE).path("bridge").path("heldSince").isNull()).isTrue();
  }

  @Test
  void pairIsFoundByEitherIdLookedAtWhenAskedAndParted() throws Exception {
    String task = makeTask(TASK.formatted("Lime the wall")).path("id").asText();
    quiet();
    String job = jobOf(task).orElseThrow().path("id").asText();
    JsonNode pair = api("/kept-pairs?id=" + job).get(0);
    assertThat(pair.path("left").path("record").asText()).isEqualTo(task);
    assertThat(pair.path("fields").get(1).path("right").asText()).isEqualTo("In work");
    String at = "/kept-pairs/" + BRIDGE + "/" + pair.path("key").asText();
    assertThat(send("POST", app("/api" + at + "/look"), "", Map.of()).statusCode()).isEqualTo(200);
    quiet();
    assertThat(traces().getFirst().path("verdict").asText()).isEqualTo("UNCHANGED");
    changeJob(job, "{\"title\":\"a\"}");
    changeTask(task, "{\"title\":\"b\"}");
    quiet();
    assertThat(disagreements()).hasSize(1);
    assertThat(send("POST", app("/api" + at + "/part"), "", Map.of()).statusCode()).isEqualTo(200);
    assertThat(disagreements()).isEmpty();
    changeTask(task, "{\"title\":\"Lime the north wall\"}");
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("a");
    assertThat(send("POST", app("/api" + at + "/part"), "", Map.of()).statusCode()).isEqualTo(409);
  }

  @Test
  void oneTaskFollowsTheOtherOnceAndWhatWasWrittenOverIsTold() throws Exception {
    String task = makeTask(TASK.formatted("Cut the reeds")).path("id").asText();
    quiet();
    String job = jobOf(task).orElseThrow().path("id").asText();
    changeJob(job, "{\"title\":\"Reeds: cut them\",\"due\":\"2026-12-08\"}");
    changeTask(task, "{\"title\":\"Cut the tall reeds\"}");
    quiet();
    assertThat(disagreements()).hasSize(1);
    String at =
        "/api/kept-pairs/"
            + BRIDGE
            + "/"
            + api("/kept-pairs?id=" + job).get(0).path("key").asText();
    JsonNode began =
        JSON.readTree(
            send(
                    "POST",
                    app(at + "/follow"),
                    "{\"leads\":\"RIGHT\"}",
                    Map.of("Content-Type", "application/json"))
                .body());
    quiet();
    assertThat(task(task).path("title").asText()).isEqualTo("Reeds: cut them");
    assertThat(job(job).path("title").asText()).isEqualTo("Reeds: cut them");
    assertThat(disagreements()).isEmpty();
    assertThat(api("/traces/" + began.path("trace").asText()).toString())
        .contains("lets the task on the left follow the other once", "Cut the tall reeds");
    // From then on both are as before.
    changeTask(task, "{\"title\":\"Cut the last reeds\"}");
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Cut the last reeds");
  }

  @Test
  void jobTakesPartByItsConditionAndIsReadOnlyThen() throws Exception {
    String other = makeJob("{\"title\":\"Oil the hinges\"}").path("id").asText();
    String wanted =
        makeJob("{\"title\":\"Sweep the weir\",\"labels\":[\"board\"]}").path("id").asText();
    quiet();
    assertThat(api("/pairs?id=" + wanted)).isNotEmpty();
    assertThat(api("/pairs?id=" + other)).isEmpty();
    JsonNode passed =
        traces().stream()
            .filter(one -> one.path("record").asText().equals(other))
            .findFirst()
            .orElseThrow();
    assertThat(passed.path("verdict").asText()).isEqualTo("PASSED_BY");
    assertThat(story(passed).path("lines").toString()).doesNotContain("Looked up");
  }

  @Test
  void jobThatChangesAfterItWasReadIsNotWrittenOverButLookedAtAgain() throws Exception {
    String task = makeTask(TASK.formatted("Prop the jetty")).path("id").asText();
    quiet();
    String job = jobOf(task).orElseThrow().path("id").asText();
    // The next change of a job from here finds that it is slow; meanwhile somebody changes it.
    fault(LEDGER.port(), "too-many", "PATCH", "/api/jobs", 1);
    changeTask(task, "{\"title\":\"Prop the old jetty\"}");
    org.awaitility.Awaitility.await()
        .until(
            () ->
                traces().stream()
                    .anyMatch(
                        one ->
                            one.path("record").asText().equals(task)
                                && one.path("verdict").asText().equals("WAITING")));
    ledger("POST", "/jobs/" + job + "/status?", "status=waiting", Map.of());
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Prop the old jetty");
    assertThat(verdicts()).isNotBlank();
  }

  @Test
  void taskThatIsRemovedPartsThePairAndNothingIsMadeAgain() throws Exception {
    String task = makeTask(TASK.formatted("Tar the punt")).path("id").asText();
    quiet();
    String job = jobOf(task).orElseThrow().path("id").asText();
    board("DELETE", "/api/tasks/" + task, "");
    quiet();
    assertThat(job(job).path("title").asText()).isEqualTo("Tar the punt");
    changeJob(job, "{\"title\":\"Tar the old punt\"}");
    quiet();
    assertThat(traces().getFirst().path("reason").asText()).contains("parted");
    assertThat(board("GET", "/api/tasks/" + task, "").has("error")).isTrue();
  }
}
