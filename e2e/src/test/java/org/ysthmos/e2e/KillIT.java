package org.ysthmos.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** The application is killed for real (SIGKILL), and nothing is lost and nothing doubled. */
class KillIT {

  private static final Together TOGETHER = new Together();

  @AfterEach
  void noFaults() {
    TOGETHER.clearFaults();
  }

  @AfterAll
  static void stop() {
    TOGETHER.close();
  }

  @Test
  void acknowledgedEventSurvives() {
    // The details cannot be read, so the event is still waiting when the kill comes.
    TOGETHER.fault(TOGETHER.deskAddress(), "error", "GET", "/api/submissions", 1000, 0);
    String number = TOGETHER.report("Loose plank", "8");
    await().atMost(Duration.ofSeconds(20)).until(() -> !TOGETHER.tracesOf(number).isEmpty());
    TOGETHER.kill();
    TOGETHER.clearFaults();
    TOGETHER.restart();

    TOGETHER.awaitVerdict(number, "CREATE");
    assertThat(TOGETHER.tasksOf(number)).hasSize(1);
    assertThat(TOGETHER.tracesOf(number)).hasSize(1);
  }

  @Test
  void killBetweenCreateAndRecordMakesOneTask() {
    // The board makes the task at once and answers late; the kill comes in between.
    TOGETHER.fault(TOGETHER.boardAddress(), "slow-answer", "POST", "/api/boards", 1, 5000);
    int before = TOGETHER.tasks().size();
    String number = TOGETHER.report("Broken rail", "7");
    await().atMost(Duration.ofSeconds(20)).until(() -> TOGETHER.tasks().size() == before + 1);
    TOGETHER.kill();
    TOGETHER.restart();

    TOGETHER.awaitVerdict(number, "CREATE");
    assertThat(TOGETHER.tasks()).hasSize(before + 1);
    JsonNode task = TOGETHER.tasksOf(number).getFirst();
    assertThat(task.path("checklist")).hasSize(3);
    JsonNode trace = TOGETHER.tracesOf(number).getFirst();
    assertThat(trace.path("target")).isEqualTo(task.path("id"));
  }

  @Test
  void killBetweenTheTwoCallsCompletesTheSameTask() {
    TOGETHER.fault(TOGETHER.boardAddress(), "slow", "PUT", "/api/tasks", 1, 5000);
    int before = TOGETHER.tasks().size();
    String number = TOGETHER.report("Slippery steps", "6");
    await().atMost(Duration.ofSeconds(20)).until(() -> TOGETHER.tasks().size() == before + 1);
    TOGETHER.kill();
    TOGETHER.restart();

    TOGETHER.awaitVerdict(number, "CREATE");
    assertThat(TOGETHER.tasks()).hasSize(before + 1);
    assertThat(TOGETHER.tasksOf(number)).hasSize(1);
  }

  @Test
  void killsInTheMiddleOfABurstLoseAndDoubleNothing() {
    List<String> numbers = new ArrayList<>();
    int before = TOGETHER.tasks().size();
    for (int round = 0; round < 3; round++) {
      for (int i = 0; i < 8; i++) {
        numbers.add(TOGETHER.report("Burst " + round + " " + i, "5"));
      }
      TOGETHER.kill();
      TOGETHER.restart();
    }
    numbers.forEach(number -> TOGETHER.awaitVerdict(number, "CREATE"));
    assertThat(TOGETHER.tasks()).hasSize(before + numbers.size());
    assertThat(
            TOGETHER.tasks().stream()
                .collect(
                    Collectors.groupingBy(
                        t -> t.path("externalId").asText(), Collectors.counting()))
                .values())
        .containsOnly(1L);
  }
}
