package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.who.By;

/** A bridge that would do more than its ceiling allows holds itself, and loses nothing. */
class CeilingIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(20);

  @Autowired private Bridges bridges;

  /** They would hear of the reports of other tests, too. */
  private static void put(String id, String ceiling, String more) throws Exception {
    var answer =
        putBridge(
            id,
            """
            bridge: %s
            name: Runaway %s
            purpose: To be stopped
            from: { system: visitor-desk, collection: hazard-reports, event: [created, changed] }
            to: { system: works-ledger, collection: jobs }
            lookups:
              report: { in: visitor-desk/hazard-reports, by: { id: /submission }, none: fail }
            when: { value: report/answers/problem, starts-with: "%s " }
            match: [/submission]
            %s
            fields:
              title: { text: "%s {/submission}: {report/answers/problem}" }
              status: { always: planned }
            %s
            """
                .formatted(id, id, id, more, id, ceiling));
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  /** The titles of the jobs that a bridge made. */
  private static List<String> jobs(String id) {
    return jobs().stream()
        .map(job -> job.path("title").asText())
        .filter(title -> title.startsWith(id + " "))
        .toList();
  }

  /**
   * Waits until a bridge holds itself. What its ceiling let through just before may still wait to
   * be sent, as a held bridge sends nothing: what is counted tells how far it went.
   *
   * @param creates how many new tasks its ceiling let through since it was released last
   */
  private static JsonNode held(String id, int creates) {
    AtomicReference<JsonNode> found = new AtomicReference<>();
    await()
        .atMost(LONG)
        .untilAsserted(
            () -> {
              JsonNode bridge = api("/bridges/" + id);
              assertThat(bridge.at("/bridge/heldSince").isNull()).isFalse();
              assertThat(bridge.at("/ceiling/limits/0/times").asInt()).isEqualTo(creates);
              found.set(bridge);
            });
    return found.get();
  }

  private static void release(String id) throws Exception {
    assertThat(send("DELETE", app("/api/bridges/" + id + "/hold"), "", Map.of()).statusCode())
        .isEqualTo(200);
  }

  private static List<String> reports(String id, int many) throws Exception {
    List<String> numbers = new ArrayList<>();
    for (int i = 0; i < many; i++) {
      numbers.add(report(Map.of("problem", id + " " + i)));
    }
    return numbers;
  }

  @Test
  void whatWouldPassTheCeilingWaitsForARelease() throws Exception {
    put("creating", "ceiling: { creates: 3, per: PT1H }", "");
    List<String> numbers = reports("creating", 8);
    JsonNode held = held("creating", 3);
    assertThat(jobs("creating")).hasSizeLessThanOrEqualTo(3);
    assertThat(held.at("/bridge/heldBecause").asText())
        .isEqualTo("It would have come to 4 new tasks; its ceiling is 3 new tasks in an hour");
    assertThat(held.at("/bridge/heldBy").asText()).isEqualTo("engine");
    assertThat(api("/watch").path("bridges").toString()).contains("It would have come to 4");

    // The cause is still there: it goes as far as its ceiling once more, and no further.
    release("creating");
    held("creating", 3);
    assertThat(jobs("creating")).hasSizeLessThanOrEqualTo(6);
    // Held by a person meanwhile, or by whatever else, what it did goes on counting.
    put("creating", "ceiling: { creates: 100, per: PT1H }", "");
    release("creating");
    await().atMost(LONG).until(() -> jobs("creating").size() == 8);
    assertThat(jobs("creating"))
        .allSatisfy(title -> assertThat(numbers).anyMatch(title::contains))
        .doesNotHaveDuplicates();
  }

  /** Of several workers that find the same, the last may come after a person's release. */
  @Test
  void whatWasFoundBeforeAReleaseHoldsNothingAfterIt() throws Exception {
    put("let-go", "ceiling: { creates: 1, per: PT1H }", "");
    reports("let-go", 2);
    held("let-go", 1);
    assertThat(jobs("let-go")).hasSizeLessThanOrEqualTo(1);
    release("let-go");
    await().atMost(LONG).until(() -> jobs("let-go").size() == 2);
    assertThat(bridges.holdItself("let-go", "found before the release", 0)).isFalse();
    assertThat(bridges.isHeld("let-go")).isFalse();
    long now = bridges.live("let-go").orElseThrow().letThrough();
    assertThat(bridges.holdItself("let-go", "found now", now)).isTrue();
  }

  @Test
  void holdOfAPersonForgetsNothingThatWasCounted() throws Exception {
    put("counting", "ceiling: { creates: 2, per: PT1H }", "");
    reports("counting", 2);
    await().atMost(LONG).until(() -> jobs("counting").size() == 2);
    bridges.hold("counting", "for a while", By.PERSON);
    release("counting");
    reports("counting", 1);
    held("counting", 2);
    assertThat(jobs("counting")).hasSize(2);
  }

  @Test
  void oneTaskIsNotWrittenToOverAndOver() throws Exception {
    put("again", "ceiling: { same-task: 3, per: PT1H }", "");
    String number = reports("again", 1).getFirst();
    await().atMost(LONG).until(() -> jobs("again").size() == 1);
    for (int i = 0; i < 3; i++) {
      String problem = "again and again " + i;
      desk("PATCH", "/api/submissions/" + number, "{\"problem\":\"%s\"}".formatted(problem));
      if (i < 2) {
        await().atMost(LONG).until(() -> jobs("again").getFirst().endsWith(problem));
      }
    }
    JsonNode held = held("again", 1);
    assertThat(jobs("again")).hasSize(1);
    assertThat(held.at("/bridge/heldBecause").asText())
        .matches("It would write to task .+ for the 4th time in an hour; it may 3 times");
    release("again");
    await().atMost(LONG).until(() -> jobs("again").getFirst().contains("again and again 2"));
  }

  @Test
  void changesAreBoundedApart() throws Exception {
    put("changing", "ceiling: { creates: 100, changes: 2, per: PT1H }", "");
    String number = reports("changing", 1).getFirst();
    await().atMost(LONG).until(() -> jobs("changing").size() == 1);
    for (int i = 0; i < 4; i++) {
      String problem = "changing anew " + i;
      desk("PATCH", "/api/submissions/" + number, "{\"problem\":\"%s\"}".formatted(problem));
      if (i < 2) {
        await().atMost(LONG).until(() -> jobs("changing").getFirst().endsWith(problem));
      }
    }
    assertThat(held("changing", 1).at("/bridge/heldBecause").asText())
        .isEqualTo("It would have come to 3 changes; its ceiling is 2 changes in an hour");
    assertThat(jobs("changing")).singleElement().asString().endsWith("changing anew 1");
  }

  @Test
  void oneEventThatIsMoreThanTheCeilingIsNotMadeInPart() throws Exception {
    put("many", "ceiling: { creates: 2, per: PT1H }", "for-each: { list: { always: [a, b, c] } }");
    reports("many", 1);
    assertThat(held("many", 0).at("/bridge/heldBecause").asText())
        .startsWith("One event alone wants 3 new tasks");
    assertThat(jobs("many")).isEmpty();
  }
}
