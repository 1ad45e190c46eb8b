package org.ysthmos.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** The application is killed for real (SIGKILL), and nothing is lost and nothing doubled. */
class KillIT {

  private static final Together TOGETHER = new Together("--ysthmos.settable-clock=true");

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
  void stopUnderLoadBreaksNothing() {
    List<String> numbers = new ArrayList<>();
    int before = TOGETHER.tasks().size();
    for (int i = 0; i < 8; i++) {
      numbers.add(TOGETHER.report("Stop " + i, "5"));
    }
    int status = TOGETHER.stop();
    // 143 is how a process says that it ended by SIGTERM.
    assertThat(status).isIn(0, 143);
    TOGETHER.restart();
    numbers.forEach(number -> TOGETHER.awaitVerdict(number, "CREATE"));
    assertThat(TOGETHER.tasks()).hasSize(before + numbers.size());
    assertThat(TOGETHER.log("application.log")).doesNotContain("ClosedByInterrupt");
  }

  @Test
  void dataThatIsRestoredFromACopyMakesNothingTwice() {
    // The details cannot be read, so that the copy holds events that are not carried yet.
    TOGETHER.fault(TOGETHER.deskAddress(), "error", "GET", "/api/submissions", 1000, 0);
    List<String> numbers = new ArrayList<>();
    for (int i = 0; i < 4; i++) {
      numbers.add(TOGETHER.report("Copied " + i, "6"));
    }
    numbers.forEach(
        number ->
            await()
                .atMost(Duration.ofSeconds(20))
                .until(() -> !TOGETHER.tracesOf(number).isEmpty()));
    TOGETHER.kill();
    TOGETHER.keepCopy();
    TOGETHER.clearFaults();
    TOGETHER.restart();
    numbers.forEach(number -> TOGETHER.awaitVerdict(number, "CREATE"));
    TOGETHER.kill();
    TOGETHER.restoreCopy();
    TOGETHER.restart();
    numbers.forEach(number -> TOGETHER.awaitVerdict(number, "CREATE"));
    numbers.forEach(number -> assertThat(TOGETHER.tasksOf(number)).hasSize(1));
  }

  /**
   * Kills at moments that a seed chooses, under load and with faults on. A few here; {@code
   * bench/kill} makes two hundred.
   */
  @Test
  void killsAtAnyMomentWithFaultsOnLoseAndDoubleNothing() {
    int kills = Integer.getInteger("kills", 3);
    long seed = Long.getLong("seed", 20261126L);
    Random random = new Random(seed);
    List<String> numbers = new ArrayList<>();
    int before = TOGETHER.tasks().size();
    for (int round = 0; round < kills; round++) {
      String kind = FAULTS.get(random.nextInt(FAULTS.size()));
      String method = random.nextBoolean() ? "POST" : "PUT";
      TOGETHER.fault(
          TOGETHER.boardAddress(),
          kind,
          method,
          "/api",
          1 + random.nextInt(3),
          random.nextInt(3000));
      int reports = 1 + random.nextInt(4);
      for (int i = 0; i < reports; i++) {
        numbers.add(TOGETHER.report("Round " + round + " " + i, "5"));
      }
      if (random.nextInt(4) == 0) {
        // A day ahead, and back again with the next start.
        TOGETHER.clock(Instant.now().plus(Duration.ofDays(1)));
      }
      pause(random.nextInt(1500));
      TOGETHER.kill();
      TOGETHER.restart();
      if (kills > 20 && round % 10 == 9) {
        System.out.printf("kills: %d, reports: %d%n", round + 1, numbers.size());
      }
    }
    TOGETHER.clearFaults();
    List<String> open = TOGETHER.withoutVerdict(numbers, "CREATE", Duration.ofMinutes(2));
    String stories = open.stream().map(TOGETHER::told).collect(Collectors.joining("\n"));
    long doubled =
        TOGETHER.tasks().stream()
            .collect(
                Collectors.groupingBy(t -> t.path("externalId").asText(), Collectors.counting()))
            .values()
            .stream()
            .filter(count -> count > 1)
            .count();
    int made = TOGETHER.tasks().size() - before;
    System.out.printf(
        "kills: %d, acknowledged: %d, lost: %d, doubled: %d, stuck: %d (seed %d)%n",
        kills, numbers.size(), Math.max(0, numbers.size() - made), doubled, open.size(), seed);
    assertThat(open).as("stuck, seed %s: %s", seed, stories).isEmpty();
    assertThat(doubled).as("doubled, seed %s", seed).isZero();
    assertThat(made).as("made, seed %s", seed).isEqualTo(numbers.size());
  }

  private static final List<String> FAULTS =
      List.of("error", "answer-lost", "slow", "slow-answer", "too-many", "down");

  /** How long a round lasts is what the seed chooses; nothing is waited for. */
  private static void pause(int millis) {
    try {
      Thread.sleep(millis);
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
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
