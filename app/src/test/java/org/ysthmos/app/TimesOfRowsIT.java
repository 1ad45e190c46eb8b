package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/** A table of which each row comes round, from its cells to the jobs, and back into its cells. */
class TimesOfRowsIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(20);

  /** A time of day that is over today, at whatever hour the tests run. */
  private static final LocalTime OVER = LocalTime.now(ZoneOffset.UTC).truncatedTo(ChronoUnit.HOURS);

  @Autowired private AppClock time;
  @Autowired private Bridges all;

  private final List<String> rows = new ArrayList<>();

  @BeforeEach
  void demoRoundsRest() {
    // A row of a test is heard by the bridges of the test alone.
    for (String id : List.of("garden-rounds", "round-done")) {
      boolean unused = all.hold(id, "a test uses its table", By.PERSON);
    }
  }

  /** The demo's own bridge hears of the rows once it goes on: none of them comes round then. */
  @AfterEach
  void timeOfTheMachineAndNoRows() throws Exception {
    time.release();
    for (String row : rows) {
      sheet("PATCH", "/" + row, "{\"every\":\"\"}");
    }
    ask();
    for (String id : List.of("garden-rounds", "round-done")) {
      boolean unused = all.release(id, By.PERSON);
    }
    settled("garden-rounds");
    for (String row : rows) {
      sheet("DELETE", "/" + row, "");
    }
  }

  private static JsonNode sheet(String method, String path, String body) throws Exception {
    String address = "http://127.0.0.1:" + CHORES.port() + "/api/sheets/rounds/rows" + path;
    String answer = send(method, address, body, Map.of("Authorization", "Bearer chores")).body();
    return JSON.readTree(answer.isEmpty() ? "{}" : answer);
  }

  private String row(String round, String every, String... more) throws Exception {
    ObjectNode cells = JSON.createObjectNode().put("round", round).put("every", every);
    for (int i = 0; i < more.length; i += 2) {
      cells.put(more[i], more[i + 1]);
    }
    String id = sheet("POST", "", cells.toString()).path("id").asText();
    rows.add(id);
    return id;
  }

  private static void ask() throws Exception {
    await()
        .atMost(LONG)
        .until(
            () ->
                StreamSupport.stream(api("/polls").spliterator(), false)
                    .anyMatch(
                        poll ->
                            poll.path("collection").asText().equals("rounds")
                                && !poll.path("askedAt").isNull()));
    var answer = send("POST", app("/api/systems/chore-table/collections/rounds/ask"), "", Map.of());
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(202);
  }

  /**
   * It is said in a chat, as others read the ledger and would hear of what is made there while the
   * clock is ahead.
   */
  private static String document(String id, String chores, String catchUp) {
    return """
    bridge: %s
    name: %s
    purpose: Each round is a job when its time comes
    from:
      system: chore-table
      collection: rounds
      event: [created, changed]
      chores: { every: /cells/every, zone: UTC, at: "%s"%s }
      catch-up: %s
    to: { system: garden-chat, collection: messages }
    match: [event/record, /occurrence/said]
    fields:
      channel: { always: works }
      text: { text: "%s: {/cells/round} ({/occurrence/said})" }
    then:
      written-back:
        to: record
        match: [event/record, /occurrence/said]
        fields: { lastDue: /occurrence/day, nextDue: /occurrence/next }
    ceiling: { messages: 100, changes: 100, per: PT1H }
    """
        .formatted(id, id, OVER, chores, catchUp, id);
  }

  private static void goLive(String id, String chores, String catchUp) throws Exception {
    var answer = putBridge(id, document(id, chores, catchUp));
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  private static List<JsonNode> traces(String id, String record) {
    return StreamSupport.stream(api("/traces?bridge=" + id).path("traces").spliterator(), false)
        .filter(trace -> trace.path("record").asText().equals(record))
        .toList();
  }

  private static List<String> titles(String id) {
    try {
      String address = "http://127.0.0.1:" + CHAT.port() + "/api/messages";
      var answer = send("GET", address, "", Map.of("Authorization", "Bearer chat"));
      return StreamSupport.stream(
              JSON.readTree(answer.body()).path("messages").spliterator(), false)
          .map(message -> message.path("text").asText())
          .filter(text -> text.startsWith(id + ": "))
          .sorted()
          .toList();
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  /** Nothing of a bridge is under way any more, so that its rows can go. */
  private static void settled(String id) {
    await()
        .atMost(LONG)
        .untilAsserted(
            () ->
                assertThat(api("/traces?bridge=" + id).path("traces").findValuesAsText("verdict"))
                    .doesNotContain("WAITING"));
  }

  /** Waits until a row was told, and says what it was told to be. */
  private static void told(String id, String record, String words) {
    await()
        .atMost(LONG)
        .untilAsserted(
            () ->
                assertThat(traces(id, record))
                    .anyMatch(trace -> trace.path("reason").asText().contains(words)));
  }

  private static String day(int later) {
    return LocalDate.now(ZoneOffset.UTC).plusDays(later).toString();
  }

  private void dayLater(int days) {
    time.set(
        LocalDate.now(ZoneOffset.UTC)
            .plusDays(days)
            .atTime(OVER.plusMinutes(30))
            .toInstant(ZoneOffset.UTC));
  }

  @Test
  void rowsThatWereThereAndRowsThatComeAreMadeWhenTheirTimeComesAndWrittenBack() throws Exception {
    String there = row("Water", "daily");
    String bad = row("Wonder", "now and then");
    goLive("rounds-a", "", "each");
    told("rounds-a", there, "comes round every day at %s in UTC".formatted(OVER));
    told("rounds-a", bad, "“now and then” says nothing that comes round");
    String later = row("Weed", "FREQ=DAILY");
    ask();
    told("rounds-a", later, "comes round every day");

    dayLater(1);
    await().atMost(LONG).untilAsserted(() -> assertThat(titles("rounds-a")).hasSize(2));
    assertThat(titles("rounds-a"))
        .containsExactly(
            "rounds-a: Water (%sT%s)".formatted(day(1), OVER),
            "rounds-a: Weed (%sT%s)".formatted(day(1), OVER));
    await()
        .atMost(LONG)
        .untilAsserted(
            () -> {
              JsonNode cells = sheet("GET", "/" + there, "").path("cells");
              assertThat(cells.path("lastDue").asText()).isEqualTo(day(1));
              assertThat(cells.path("nextDue").asText()).isEqualTo(day(2));
            });
    // What was written there from here is heard, and makes nothing a second time.
    ask();
    time.release();
    dayLater(1);
    goLive("rounds-a", ", lead: 0", "each");
    await()
        .atMost(LONG)
        .untilAsserted(
            () ->
                assertThat(traces("rounds-a", there))
                    .anyMatch(
                        trace ->
                            trace.path("version").asInt() == 2
                                && trace.path("reason").asText().contains("comes round")));
    assertThat(titles("rounds-a")).hasSize(2);
    settled("rounds-a");
  }

  @Test
  void changedRowCountsAtOnceAndOneThatIsGoneComesNoMore() throws Exception {
    String changed = row("Rake", "daily");
    String gone = row("Sow", "daily");
    goLive("rounds-b", "", "each");
    told("rounds-b", changed, "every day");
    told("rounds-b", gone, "every day");
    sheet("PATCH", "/" + changed, "{\"every\":\"FREQ=DAILY;BYHOUR=6,18\"}");
    sheet("DELETE", "/" + gone, "");
    ask();
    told("rounds-b", changed, "FREQ=DAILY;BYHOUR=6,18");
    // That it is gone is found out by reading all rows, every hour, and once more to be sure. One
    // of which nothing was told is told then.
    String untold = row("Thin", "daily");
    time.set(Instant.now().plus(Duration.ofHours(2)));
    told("rounds-b", untold, "every day");
    AtomicInteger looks = new AtomicInteger();
    await()
        .atMost(LONG)
        .pollInterval(Duration.ofMillis(500))
        .untilAsserted(
            () -> {
              time.set(Instant.now().plus(Duration.ofMinutes(120 + 2L * looks.incrementAndGet())));
              assertThat(api("/bridges/rounds-b/chores").path("resting").toString()).contains(gone);
            });
    dayLater(1);
    await().atMost(LONG).untilAsserted(() -> assertThat(titles("rounds-b")).isNotEmpty());
    assertThat(titles("rounds-b")).noneMatch(title -> title.contains("Sow"));
    settled("rounds-b");
  }

  @Test
  void whatCountsFromWhenItWasDoneComesOnceHoweverOftenItIsTicked() throws Exception {
    List<String> ticked = new ArrayList<>();
    for (int i = 0; i < 12; i++) {
      ticked.add(row("Prune " + i, "1 day after it was done"));
    }
    goLive("rounds-c", ", done: { value: /cells/lastDone, steps: [read-day: iso] }", "each");
    told("rounds-c", ticked.getLast(), "never done");
    for (String one : ticked) {
      sheet("PATCH", "/" + one, "{\"lastDone\":\"%s\"}".formatted(day(0)));
    }
    ask();
    told("rounds-c", ticked.getLast(), "1 day after it was done");
    for (String one : ticked) {
      sheet("PATCH", "/" + one, "{\"lastDone\":\"\"}");
      sheet("PATCH", "/" + one, "{\"lastDone\":\"%s\"}".formatted(day(0)));
    }
    ask();
    dayLater(1);
    await().atMost(LONG).untilAsserted(() -> assertThat(titles("rounds-c")).hasSize(12));
    settled("rounds-c");
  }

  @Test
  void holdKeepsThemBackAndTheLatestAloneIsMadeUpFor() throws Exception {
    String row = row("Mow", "FREQ=HOURLY");
    goLive("rounds-d", "", "latest");
    told("rounds-d", row, "every hour");
    assertThat(all.hold("rounds-d", "for a while", By.PERSON)).isTrue();
    time.set(Instant.now().plus(Duration.ofHours(4)));
    await()
        .atMost(LONG)
        .untilAsserted(
            () ->
                assertThat(api("/bridges/rounds-d/chores").path("stopped").asText())
                    .isEqualTo("HELD"));
    assertThat(titles("rounds-d")).isEmpty();
    assertThat(all.release("rounds-d", By.PERSON)).isTrue();
    await().atMost(LONG).untilAsserted(() -> assertThat(titles("rounds-d")).hasSize(1));
    assertThat(traces("rounds-d", row))
        .anyMatch(
            trace ->
                trace.path("reason").asText().contains("the bridge was held; the bridge makes up"));
    settled("rounds-d");
  }
}
