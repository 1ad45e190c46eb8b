package org.ysthmos.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

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

  private static JsonNode ticket(String number) {
    return TOGETHER.json(
        "GET",
        TOGETHER.address("climate-desk") + "/api/tickets/" + number,
        "",
        Map.of("Authorization", "Bearer t"));
  }

  private static List<JsonNode> jobsOf(String number) {
    return jobs().stream()
        .filter(job -> job.path("description").asText().contains("Ticket " + number + ","))
        .toList();
  }

  private static List<JsonNode> jobs() {
    Map<String, JsonNode> newest = new LinkedHashMap<>();
    JsonNode page =
        TOGETHER.json(
            "GET",
            TOGETHER.address("works-ledger") + "/api/changes?after=0&limit=100",
            "",
            Map.of("Authorization", "Bearer t"));
    page.path("changes").forEach(job -> newest.put(job.path("id").asText(), job));
    return List.copyOf(newest.values());
  }

  /** Those whose title begins so, on the works board or in the ledger. */
  private static List<JsonNode> titled(String begin, boolean onBoard) {
    List<JsonNode> all = new ArrayList<>();
    if (onBoard) {
      TOGETHER
          .json(
              "GET",
              TOGETHER.boardAddress() + "/api/boards/works/tasks",
              "",
              Map.of("Authorization", "Bearer board"))
          .path("items")
          .forEach(all::add);
    } else {
      all.addAll(jobs());
    }
    return all.stream().filter(one -> one.path("title").asText().startsWith(begin)).toList();
  }

  private static String addressOf(String system) {
    return system.equals("grounds-board") ? TOGETHER.boardAddress() : TOGETHER.address(system);
  }

  /** Whether the call came that a fault was for. */
  private static boolean isMet(String system) {
    return TOGETHER
        .json("GET", addressOf(system) + "/control/faults", "", Map.of())
        .path("on")
        .isEmpty();
  }

  /**
   * A task goes from a board to a ledger, and a change of it to either. The kill comes when it is
   * made, and when it is changed, and that is not noted yet.
   */
  @ParameterizedTest
  @CsvSource({
    "works-ledger, slow-answer, POST, /api/jobs",
    "works-ledger, slow-answer, PATCH, /api/jobs",
    "grounds-board, slow-answer, PATCH, /api/tasks"
  })
  void killBetweenTwoSidesMakesNothingTwiceAndForgetsNoChange(
      String system, String fault, String method, String below) {
    String title = "Kill at %s %s of %s".formatted(fault, method, system);
    boolean makes = method.equals("POST");
    if (!makes) {
      TOGETHER.crewWants(title);
      await().atMost(Duration.ofSeconds(20)).until(() -> !titled(title, false).isEmpty());
    }
    TOGETHER.fault(addressOf(system), fault, method, below, 1, 4000);
    String now = makes ? title : title + ", changed";
    if (makes) {
      TOGETHER.crewWants(title);
    } else {
      boolean onBoard = system.equals("works-ledger");
      TOGETHER.retitle(titled(title, onBoard).getFirst().path("id").asText(), now);
      TOGETHER.askAll();
    }
    await().atMost(Duration.ofSeconds(20)).until(() -> isMet(system));
    TOGETHER.kill();
    TOGETHER.clearFaults();
    TOGETHER.restart();
    TOGETHER.askAll();
    await()
        .atMost(Duration.ofSeconds(60))
        .pollInterval(Duration.ofSeconds(1))
        .until(
            () ->
                titles(title, true).equals(List.of(now))
                    && titles(title, false).equals(List.of(now)));
    JsonNode traces =
        TOGETHER.json(
            "GET",
            TOGETHER.appAddress() + "/api/traces?verdict=FAILED&bridge=works-both-ways",
            "",
            Map.of());
    assertThat(traces.path("traces")).isEmpty();
  }

  private static List<String> titles(String begin, boolean onBoard) {
    return titled(begin, onBoard).stream().map(one -> one.path("title").asText()).toList();
  }

  /**
   * A ticket becomes a job, and then names it. The kill comes while the job is made, when it is,
   * while the ticket is changed, and when that is done and not noted.
   */
  @ParameterizedTest
  @CsvSource({
    "works-ledger, slow, POST, /api/jobs",
    "works-ledger, slow-answer, POST, /api/jobs",
    "climate-desk, slow, PATCH, /api/tickets",
    "climate-desk, slow-answer, PATCH, /api/tickets",
    "climate-desk, error, PATCH, /api/tickets"
  })
  void killBetweenATaskAndWritingBackMakesOneOfEach(
      String system, String fault, String method, String below) {
    TOGETHER.fault(TOGETHER.address(system), fault, method, below, 1, 4000);
    String number =
        TOGETHER
            .json(
                "POST",
                TOGETHER.address("climate-desk") + "/api/tickets",
                "{\"requester\":\"k@mail.example\",\"subject\":\"Cold\",\"description\":\"Fault code: HV-1\"}",
                Map.of("Authorization", "Bearer t", "Content-Type", "application/json"))
            .path("id")
            .asText();
    boolean duringTheJob = system.equals("works-ledger") && fault.equals("slow");
    await()
        .atMost(Duration.ofSeconds(20))
        .until(
            () ->
                duringTheJob
                    ? !TOGETHER.tracesOf(number).isEmpty()
                    : !jobsOf(number).isEmpty()
                        && (!fault.equals("slow-answer")
                            || system.equals("works-ledger")
                            || ticket(number).has("job")));
    TOGETHER.kill();
    TOGETHER.clearFaults();
    TOGETHER.restart();
    await()
        .atMost(Duration.ofSeconds(60))
        .until(
            () ->
                ticket(number).has("job")
                    && TOGETHER.tracesOf(number).stream()
                        .noneMatch(trace -> trace.path("verdict").asText().equals("WAITING")));
    assertThat(jobsOf(number)).hasSize(1);
    assertThat(ticket(number).path("job").asText())
        .isEqualTo(jobsOf(number).getFirst().path("id").asText());
    assertThat(TOGETHER.tracesOf(number))
        .filteredOn(trace -> trace.path("verdict").asText().equals("CREATE"))
        .hasSize(1);
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

  private static String ticketOf(String subject) {
    return TOGETHER
        .json(
            "POST",
            TOGETHER.address("climate-desk") + "/api/tickets",
            "{\"requester\":\"k@mail.example\",\"subject\":\"%s\",\"description\":\"Fault code: HV-1\"}"
                .formatted(subject),
            Map.of("Authorization", "Bearer t", "Content-Type", "application/json"))
        .path("id")
        .asText();
  }

  private static String jobOf(String ticket) {
    await().atMost(Duration.ofSeconds(30)).until(() -> ticket(ticket).has("job"));
    return ticket(ticket).path("job").asText();
  }

  private static List<String> jobsThere() {
    return TOGETHER.records("works-ledger").stream().map(job -> job.path("id").asText()).toList();
  }

  private static JsonNode recall(String method, String path, String body) {
    return TOGETHER.json(
        method,
        TOGETHER.appAddress() + "/api/recalls" + path,
        body,
        Map.of("Content-Type", "application/json"));
  }

  /**
   * What is on the list goes, once, and nothing else, though a kill comes before one is taken away
   * and though it comes after that and before it is noted.
   */
  @ParameterizedTest
  @CsvSource({"slow", "slow-answer"})
  void killWhileTakingBackLeavesNothingOutAndTakesNothingElse(String fault) {
    String before = jobOf(ticketOf("Before the span"));
    Instant from = Instant.now();
    List<String> listed = new ArrayList<>();
    for (int i = 0; i < 4; i++) {
      listed.add(jobOf(ticketOf("In the span " + i)));
    }
    JsonNode list =
        recall(
            "POST",
            "",
            "{\"bridge\":\"climate-job\",\"from\":\"%s\",\"until\":\"%s\"}"
                .formatted(from, Instant.now()));
    String path = "/" + list.path("id").asText();
    String after = jobOf(ticketOf("After the span"));
    assertThat(list.at("/counts/chosen").asInt()).isEqualTo(listed.size());
    // The tickets that name the jobs were there before, and can only be named.
    assertThat(list.at("/counts/named").asInt()).isEqualTo(listed.size());

    TOGETHER.fault(TOGETHER.address("works-ledger"), fault, "DELETE", "/api/jobs", 1, 4000);
    recall("POST", path + "/start", "{\"records\":4,\"evenIfChanged\":false}");
    await()
        .atMost(Duration.ofSeconds(20))
        .until(() -> jobsThere().stream().filter(listed::contains).count() <= 2);
    TOGETHER.kill();
    TOGETHER.clearFaults();
    TOGETHER.restart();
    await()
        .atMost(Duration.ofSeconds(60))
        .until(() -> recall("GET", path, "").path("state").asText().equals("ENDED"));
    assertThat(jobsThere()).contains(before, after).doesNotContainAnyElementsOf(listed);
    JsonNode counts = recall("GET", path, "").path("counts");
    assertThat(counts.path("takenBack").asInt() + counts.path("goneBefore").asInt())
        .isEqualTo(listed.size());
    assertThat(counts.path("failed").asInt() + counts.path("stays").asInt()).isZero();
  }
}
