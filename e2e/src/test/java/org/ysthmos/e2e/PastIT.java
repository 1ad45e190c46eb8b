package org.ysthmos.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Two days of the garden's past are carried out on all systems, and the engine carries them. */
class PastIT {

  /** A Thursday at noon in Lisbon. */
  private static final Instant END = Instant.parse("2026-10-15T11:00:00Z");

  /** When the test began, by the machine's clock. */
  private static final Instant BEGUN = Instant.now();

  private static final Duration SPAN = Duration.ofDays(2);

  private static Together together;
  private static List<JsonNode> traces;

  @BeforeAll
  static void carryOut() {
    Duration behind = Duration.between(END.minus(SPAN), Instant.now());
    together =
        new Together(
            "--ysthmos.settable-clock=true", "--ysthmos.clock-behind=" + behind.toSeconds() + "s");
    assertThat(together.makePast(2, END)).as(together.log("past.log")).isZero();
    traces = allTraces();
  }

  @AfterAll
  static void stop() {
    together.close();
  }

  private static List<JsonNode> allTraces() {
    List<JsonNode> all = new ArrayList<>();
    String before = "";
    while (true) {
      JsonNode page =
          together.json(
              "GET",
              together.appAddress() + "/api/traces?since=2026-10-01T00:00:00Z" + before,
              "",
              Map.of());
      page.path("traces").forEach(all::add);
      if (page.path("next").isNull()) {
        return all;
      }
      before = "&before=" + page.path("next").asLong();
    }
  }

  private static List<JsonNode> of(String bridge, String verdict) {
    return traces.stream()
        .filter(trace -> trace.path("bridge").asText().equals(bridge))
        .filter(trace -> trace.path("verdict").asText().equals(verdict))
        .toList();
  }

  @Test
  void everyTraceIsFinishedWithinTheSpanAndEveryFailureSaysWhy() {
    assertThat(traces).hasSizeGreaterThan(100);
    assertThat(traces)
        .noneMatch(trace -> trace.path("verdict").asText().equals("WAITING"))
        .allMatch(trace -> at(trace).isAfter(END.minus(SPAN)))
        // What happened in the last minute is asked for once the clock goes on as the machine's.
        .allMatch(trace -> !at(trace).isAfter(END) || at(trace).isAfter(BEGUN));
    assertThat(traces)
        .filteredOn(trace -> trace.path("verdict").asText().equals("FAILED"))
        .isNotEmpty()
        .allMatch(trace -> trace.path("reason").asText().length() > 20);
  }

  private static Instant at(JsonNode trace) {
    return Instant.parse(trace.path("receivedAt").asText());
  }

  @Test
  void everyBridgeOfTheDemoThatHearsASystemCarriedSomething() {
    assertThat(traces.stream().map(trace -> trace.path("bridge").asText()).distinct())
        .contains(
            "climate-job",
            "climate-solved",
            "exhibition-preparations",
            "garden-rounds",
            "hazard-to-grounds",
            "job-done-letter",
            "job-done-message",
            "pledge-follow-up",
            "record-review",
            "school-visit",
            "seedling-job",
            "works-both-ways");
  }

  @Test
  void everyReportThatWasCarriedHasOneTask() {
    List<JsonNode> created = of("hazard-to-grounds", "CREATE");
    assertThat(created).hasSizeGreaterThan(10);
    Map<String, Long> byRecord =
        created.stream()
            .collect(Collectors.groupingBy(t -> t.path("record").asText(), Collectors.counting()));
    assertThat(byRecord).allSatisfy((record, times) -> assertThat(times).isEqualTo(1));
    assertThat(byRecord.keySet())
        .allSatisfy(number -> assertThat(together.tasksOf(number)).as(number).hasSize(1));
  }

  @Test
  void ticketsAreSolvedByTheJobsTheyBecame() {
    assertThat(of("climate-solved", "UPDATE")).isNotEmpty();
    assertThat(of("climate-solved", "FAILED")).isEmpty();
  }

  @Test
  void permissionThatWasTakenAwayLeftFailuresWithTheirRemedy() {
    assertThat(traces)
        .filteredOn(trace -> trace.path("failureKind").asText().equals("not allowed"))
        .isNotEmpty()
        .allMatch(trace -> trace.path("reason").asText().contains("for the permission"));
  }

  @Test
  void clockIsTheMachinesAgainAndNothingIsUnderWay() {
    JsonNode clock = together.json("GET", together.appAddress() + "/api/clock/rest", "", Map.of());
    assertThat(Instant.parse(clock.path("now").asText())).isAfter(Instant.now().minusSeconds(300));
    // What comes is a round of the garden, or at the latest the next digest of incidents.
    assertThat(Instant.parse(clock.path("next").asText()))
        .isBetween(Instant.now().minusSeconds(60), Instant.now().plus(Duration.ofHours(25)));
    assertThat(traces.stream().map(trace -> at(trace).getEpochSecond() / 3600).distinct())
        .hasSizeGreaterThan(15);
  }
}
