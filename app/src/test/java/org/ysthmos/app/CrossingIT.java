package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.time.AppClock;

/** One event crosses: whole, once, and with its story. */
class CrossingIT extends AppTestBase {

  @Autowired private AppClock clock;

  @Test
  void carriesReportIntoCompleteTask() throws Exception {
    String number = report(Map.of("problem", "Loose plank", "photo", "https://photos.example/7"));
    JsonNode trace = settled(number, 1);

    assertThat(trace.path("verdict").asText()).isEqualTo("CREATE");
    List<JsonNode> tasks = tasksOf(number);
    assertThat(tasks).hasSize(1);
    JsonNode task = tasks.getFirst();
    assertThat(task.path("id").asText()).isEqualTo(trace.path("target").asText());
    assertThat(task.path("title").asText()).isEqualTo("Fern gully, lower boardwalk: Loose plank");
    assertThat(task.path("due").asText()).isEqualTo("2026-11-30T17:00:00Z");
    assertThat(task.path("priority").asInt()).isEqualTo(1);
    assertThat(task.path("lane").asText()).isEqualTo("reported");
    assertThat(task.path("assignees").toString()).isEqualTo("[\"bu-11\"]");
    assertThat(task.path("notes").asText())
        .isEqualTo(
            """
            Sent in by visitor.418@mail.example
            Report %s, seen on 23 November 2026
            Photo: https://photos.example/7"""
                .formatted(number));
    assertThat(task.path("checklist")).hasSize(3);
  }

  @Test
  void storyTellsTheWayOfTheDueDateAndMasksTheToken() throws Exception {
    JsonNode trace = settled(report(Map.of()), 1);
    JsonNode story = story(trace);

    JsonNode due = null;
    for (JsonNode field : story.path("fields")) {
      if (field.path("field").asText().equals("due")) {
        due = field;
      }
    }
    assertThat(due).isNotNull();
    assertThat(due.path("sources").get(0).path("value").path("text").asText())
        .isEqualTo("23 November 2026");
    assertThat(due.path("steps").findValuesAsText("text"))
        .containsExactly("2026-11-23", "2026-11-30", "2026-11-30T17:00:00Z");
    assertThat(due.path("stored").asText()).isEqualTo("2026-11-30T17:00:00Z");
    assertThat(story.toString()).contains("Authorization: ••••••••").doesNotContain("board-token");
  }

  @Test
  void sameWebhookAgainIsKnownAndMakesNothing() throws Exception {
    String number = report(Map.of());
    settled(number, 1);
    String body = "{\"type\":\"submission.created\",\"submission\":\"%s\"}".formatted(number);
    String id = "msg_" + UUID.randomUUID();

    JsonNode first = JSON.readTree(hook(id, body, Instant.now(), SECRET).body());
    JsonNode second = JSON.readTree(hook(id, body, Instant.now(), SECRET).body());

    assertThat(first.path("known").asBoolean()).isFalse();
    assertThat(second.path("known").asBoolean()).isTrue();
    assertThat(second.path("event")).isEqualTo(first.path("event"));
    assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("UNCHANGED");
    assertThat(tasksOf(number)).hasSize(1);
  }

  /** It was received in what is the future now, and a person looks for it all the same. */
  @Test
  void whatCameWhileTheClockWasAheadIsListedWhenItIsBack() throws Exception {
    String number = report(Map.of());
    settled(number, 1);
    Instant ahead = Instant.now().plus(Duration.ofDays(1));
    String body = "{\"type\":\"submission.changed\",\"submission\":\"%s\"}".formatted(number);
    try {
      clock.set(ahead);
      assertThat(hook("msg_" + UUID.randomUUID(), body, ahead, SECRET).statusCode()).isEqualTo(202);
    } finally {
      clock.release();
    }
    assertThat(settled(number, 2).path("receivedAt").asText())
        .isGreaterThan(Instant.now().plus(Duration.ofHours(23)).toString());
    Instant later = Instant.now();
    settled(report(Map.of()), 1);
    assertThat(api("/traces?text=" + number + "&since=" + later).path("traces")).hasSize(1);
  }

  @Test
  void manyDeliveriesOfOneSubmissionAtOnceMakeOneTask() throws Exception {
    fault(BOARD.port(), "slow", "POST", "/api", 1);
    String number = report(Map.of());
    String body = "{\"type\":\"submission.created\",\"submission\":\"%s\"}".formatted(number);
    try (ExecutorService senders = Executors.newVirtualThreadPerTaskExecutor()) {
      List<Future<Integer>> answers = new ArrayList<>();
      for (int i = 0; i < 8; i++) {
        String id = "msg_" + UUID.randomUUID();
        answers.add(senders.submit(() -> hook(id, body, Instant.now(), SECRET).statusCode()));
      }
      for (Future<Integer> answer : answers) {
        assertThat(answer.get()).isEqualTo(202);
      }
    }
    settled(number, 9);
    assertThat(tasksOf(number)).hasSize(1);
    assertThat(tracesOf(number).stream().map(t -> t.path("verdict").asText()))
        .containsOnlyOnce("CREATE")
        .containsOnly("CREATE", "UNCHANGED");
  }

  @Test
  void editedSubmissionChangesOnlyWhatChanged() throws Exception {
    String number = report(Map.of());
    settled(number, 1);
    desk("PATCH", "/api/submissions/" + number, "{\"danger\":\"4\"}");
    JsonNode update = settled(number, 2);

    assertThat(update.path("verdict").asText()).isEqualTo("UPDATE");
    assertThat(tasksOf(number)).hasSize(1);
    assertThat(tasksOf(number).getFirst().path("priority").asInt()).isEqualTo(6);
    assertThat(story(update).toString()).contains("{\\\"priority\\\":6}");
  }

  @Test
  void errorOfTheBoardIsTriedAgainUntilItWorks() throws Exception {
    fault(BOARD.port(), "error", "POST", "/api", 2);
    String number = report(Map.of());
    JsonNode trace = settled(number, 1);

    assertThat(trace.path("verdict").asText()).isEqualTo("CREATE");
    assertThat(trace.path("tries").asInt()).isEqualTo(3);
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void lostAnswerIsFoundByItsKeyAndNotRepeated() throws Exception {
    fault(BOARD.port(), "answer-lost", "POST", "/api", 1);
    String number = report(Map.of());
    JsonNode trace = settled(number, 1);

    assertThat(trace.path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(1);
    assertThat(story(trace).toString()).contains("Looked for the task by its key");
  }

  @Test
  void tooManyCallsWaitsAsLongAsToldAndGoesOn() throws Exception {
    fault(BOARD.port(), "too-many", "PUT", "/api", 1);
    String number = report(Map.of());
    JsonNode trace = settled(number, 1);

    assertThat(trace.path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(1);
    assertThat(story(trace).toString()).contains("too many calls").contains("Waits as told");
  }

  @Test
  void boardThatNeverAnswersFailsWithItsKindAndCanBeSentAgain() throws Exception {
    fault(BOARD.port(), "down", "", "/api", 100);
    String number = report(Map.of());
    JsonNode failed = settled(number, 1);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(failed.path("tries").asInt()).isEqualTo(4);
    assertThat(tasksOf(number)).isEmpty();

    send("DELETE", "http://127.0.0.1:" + BOARD.port() + "/control/faults", "", Map.of());
    resend(failed);
    assertThat(settled(number, 2).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void deskThatIsDownDelaysTheDecision() throws Exception {
    fault(DESK.port(), "error", "GET", "/api", 2);
    JsonNode trace = settled(report(Map.of()), 1);

    assertThat(trace.path("verdict").asText()).isEqualTo("CREATE");
    assertThat(story(trace).toString()).contains("before the next try");
  }

  @Test
  void detailsThatFailLeaveOneTaskThatAResendCompletes() throws Exception {
    fault(BOARD.port(), "forbidden", "PUT", "/api", 1);
    String number = report(Map.of());
    JsonNode failed = settled(number, 1);
    assertThat(failed.path("verdict").asText()).isEqualTo("FAILED");
    assertThat(failed.path("failureKind").asText()).isEqualTo("not allowed");

    resend(failed);
    JsonNode again = settled(number, 2);
    assertThat(again.path("verdict").asText()).isEqualTo("UPDATE");
    assertThat(again.path("target")).isEqualTo(failed.path("target"));
    assertThat(tasksOf(number)).hasSize(1);
  }

  @Test
  void reportBelowTheConditionPassesByAndSaysWhy() throws Exception {
    JsonNode trace = settled(report(Map.of("danger", "1")), 1);
    assertThat(trace.path("verdict").asText()).isEqualTo("PASSED_BY");
    assertThat(trace.path("reason").asText())
        .isEqualTo("It passes only when how dangerous is at least 2; it was “1”.");
  }

  @Test
  void watchCountsWhatHappened() throws Exception {
    int before = created();
    settled(report(Map.of()), 1);
    await().until(() -> created() == before + 1);
    JsonNode line = watched();
    int inBars = 0;
    for (JsonNode bar : line.path("bars")) {
      inBars += bar.path("made").asInt();
    }
    assertThat(inBars).isEqualTo(created());
    assertThat(line.path("bars")).hasSize(48);
    assertThat(line.path("waiting").asInt()).isZero();
  }

  private static int created() {
    return watched().path("counts").path("made").asInt();
  }
}
