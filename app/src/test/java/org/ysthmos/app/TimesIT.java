package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.table.Tables;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;
import org.ysthmos.core.calendar.WorkingCalendar;

/** Bridges that begin by themselves, from the document to the message that is sent. */
class TimesIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(20);

  @Autowired private AppClock time;
  @Autowired private Bridges all;
  @Autowired private Tables tables;

  @AfterEach
  void timeOfTheMachine() {
    time.release();
  }

  private static String document(String id, String rule, String catchUp) {
    Instant hour = Instant.now().truncatedTo(ChronoUnit.HOURS).minus(Duration.ofDays(1));
    return """
    bridge: %s
    name: Told %s
    purpose: The works are told when a time has come
    from:
      times: { rule: "%s", zone: UTC, start: "%s" }
      catch-up: %s
    to: { system: garden-chat, collection: messages }
    match: [event/id]
    fields:
      channel: { always: works }
      text: { text: "%s {/occurrence/said}" }
    ceiling: { messages: 100, per: PT1H }
    """
        .formatted(id, id, rule, hour.toString().replace("Z", ""), catchUp, id);
  }

  private static void goLive(String id, String rule, String catchUp) throws Exception {
    var answer = putBridge(id, document(id, rule, catchUp));
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  private static List<JsonNode> traces(String id) {
    return StreamSupport.stream(api("/traces?bridge=" + id).path("traces").spliterator(), false)
        .toList();
  }

  private static List<String> verdicts(String id) {
    return traces(id).stream().map(trace -> trace.path("verdict").asText()).toList();
  }

  private static void comesTo(String id, int created, int passedBy) {
    await()
        .atMost(LONG)
        .untilAsserted(
            () -> {
              assertThat(verdicts(id)).filteredOn("CREATE"::equals).hasSize(created);
              assertThat(verdicts(id)).filteredOn("PASSED_BY"::equals).hasSize(passedBy);
              assertThat(verdicts(id)).hasSize(created + passedBy);
            });
  }

  private static long messages(String id) throws Exception {
    String address = "http://127.0.0.1:" + CHAT.port() + "/api/messages";
    var answer = send("GET", address, "", Map.of("Authorization", "Bearer chat"));
    return StreamSupport.stream(JSON.readTree(answer.body()).path("messages").spliterator(), false)
        .filter(message -> message.path("text").asText().startsWith(id + " "))
        .count();
  }

  private static JsonNode times(String id) {
    return api("/bridges/" + id + "/times");
  }

  private static HttpResponse<String> run(String id, String at) throws Exception {
    ObjectNode wish = JSON.createObjectNode().put("at", at);
    return send(
        "POST",
        app("/api/bridges/" + id + "/times/run"),
        wish.toString(),
        Map.of("Content-Type", "application/json"));
  }

  @Test
  void eachTimeThatWasMissedIsMadeUpForAndSaysSo() throws Exception {
    goLive("each-hour", "FREQ=HOURLY", "each");
    time.set(Instant.now().plus(Duration.ofHours(5)));
    comesTo("each-hour", 5, 0);
    assertThat(messages("each-hour")).isEqualTo(5);
    assertThat(story(traces("each-hour").getLast()).toString())
        .contains("A missed time is made up for")
        .contains("the machine slept, or its clock was put forward");
    // Set back and forward again, the clock shows the same hours twice.
    time.release();
    time.set(Instant.now().plus(Duration.ofHours(5)));
    time.set(Instant.now().plus(Duration.ofHours(6)));
    comesTo("each-hour", 6, 0);
    assertThat(messages("each-hour")).isEqualTo(6);
    assertThat(api("/bridges/each-hour").path("times").asText()).isEqualTo("every hour in UTC");
    assertThat(times("each-hour").path("lately")).hasSize(6);
    assertThat(times("each-hour").path("next")).hasSize(10);
  }

  @Test
  void ofALongSleepOnlyTheLatestIsMadeUpForAndTheOthersAreNamed() throws Exception {
    goLive("latest-hour", "FREQ=HOURLY", "latest");
    time.set(Instant.now().plus(Duration.ofHours(5)));
    comesTo("latest-hour", 1, 1);
    JsonNode passed =
        traces("latest-hour").stream()
            .filter(trace -> trace.path("verdict").asText().equals("PASSED_BY"))
            .findFirst()
            .orElseThrow();
    assertThat(passed.path("reason").asText())
        .startsWith("4 times from ")
        .endsWith("the bridge makes up for the latest alone.");
  }

  @Test
  void holdKeepsTimesBackUntilItIsReleased() throws Exception {
    goLive("held-hour", "FREQ=HOURLY", "latest");
    assertThat(all.hold("held-hour", "for a while", By.PERSON)).isTrue();
    time.set(Instant.now().plus(Duration.ofHours(3)));
    await()
        .atMost(LONG)
        .until(() -> times("held-hour").path("next").path(0).path("at").isTextual());
    assertThat(traces("held-hour")).isEmpty();
    assertThat(all.release("held-hour", By.PERSON)).isTrue();
    comesTo("held-hour", 1, 1);
    assertThat(
            story(traces("held-hour").getFirst()).toString() + story(traces("held-hour").getLast()))
        .contains("as the bridge was held");
  }

  @Test
  void timeThatIsRunByHandDoesNotComeAgain() throws Exception {
    goLive("by-hand", "FREQ=HOURLY", "each");
    String second = times("by-hand").path("next").path(1).path("at").asText();
    var ran = run("by-hand", second);
    assertThat(ran.statusCode()).as(ran.body()).isEqualTo(200);
    comesTo("by-hand", 1, 0);
    JsonNode trace = traces("by-hand").getFirst();
    assertThat(JSON.readTree(ran.body()).path("trace").asText())
        .isEqualTo(trace.path("id").asText());
    assertThat(story(trace).toString()).contains("Run by hand by person");
    assertThat(times("by-hand").path("next").path(1).path("run").asBoolean()).isTrue();
    var again = run("by-hand", second);
    assertThat(again.statusCode()).isEqualTo(409);
    assertThat(again.body()).contains(trace.path("id").asText()).contains("came already");
    var other = run("by-hand", Instant.parse(second).plusSeconds(60).toString());
    assertThat(other.statusCode()).isEqualTo(422);
    time.set(Instant.parse(second).plusSeconds(30));
    // The first of them, which was missed, comes; the second was run.
    comesTo("by-hand", 2, 0);
    assertThat(messages("by-hand")).isEqualTo(2);
  }

  @Test
  void deskTriesTheTimesToComeAndSaysWhatItCannotRead() throws Exception {
    ObjectNode from = JSON.createObjectNode();
    from.putObject("times")
        .put("rule", "every fourth Friday")
        .put("zone", "Pacific/Auckland")
        .put("start", "2026-01-02T09:00");
    JsonNode preview = preview(from);
    assertThat(preview.path("problem").asText()).isEmpty();
    assertThat(preview.path("sentence").asText())
        .isEqualTo("every fourth Friday at 09:00 in Auckland");
    assertThat(preview.path("rule").asText()).isEqualTo("FREQ=WEEKLY;INTERVAL=4;BYDAY=FR");
    assertThat(preview.path("next")).hasSize(10);
    assertThat(preview.path("next").path(0).path("local").asText()).endsWith("T09:00");
    ((ObjectNode) from.path("times")).put("off-days", "next").put("calendar", "orchard");
    assertThat(preview(from).path("problem").asText()).isEqualTo("there is no calendar orchard");
    ((ObjectNode) from.path("times")).put("rule", "now and then");
    assertThat(preview(from).path("problem").asText()).contains("says nothing that comes round");
  }

  private static JsonNode preview(ObjectNode from) throws Exception {
    String wish = JSON.createObjectNode().put("from", from.toString()).toString();
    var answer =
        send("POST", app("/api/desk/times"), wish, Map.of("Content-Type", "application/json"));
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  @Test
  void newBridgeThatBeginsByItselfHasAWholeDraft() throws Exception {
    ObjectNode wish =
        JSON.createObjectNode()
            .put("id", "seed-list")
            .put("name", "Seed list")
            .put("sourceSystem", "time")
            .put("sourceCollection", "")
            .put("targetSystem", "works-ledger")
            .put("targetCollection", "jobs")
            .put("starter", "");
    wish.putArray("kinds");
    var made =
        send(
            "POST",
            app("/api/desk/drafts"),
            wish.toString(),
            Map.of("Content-Type", "application/json"));
    assertThat(made.statusCode()).as(made.body()).isBetween(200, 201);
    String draft = JSON.readTree(made.body()).path("document").asText();
    ObjectNode trial = JSON.createObjectNode().put("document", draft).put("revision", 0);
    var tried =
        send(
            "POST",
            app("/api/desk/drafts/seed-list/trial"),
            trial.toString(),
            Map.of("Content-Type", "application/json"));
    JsonNode view = JSON.readTree(tried.body());
    assertThat(view.path("problems")).as(tried.body()).isEmpty();
    assertThat(view.path("samples")).hasSize(10);
    assertThat(view.path("samples").path(0).path("origin").asText()).isEqualTo("TO_COME");
    assertThat(view.path("verdict").asText()).isEqualTo("create");
    send("DELETE", app("/api/desk/drafts/seed-list"), "", Map.of());
  }

  @Test
  void watchTellsOfACalendarWhoseHolidaysRanOutAndWhoCountsOnIt() throws Exception {
    WorkingCalendar harbour =
        new WorkingCalendar(
            "harbour",
            "Harbour days",
            EnumSet.range(DayOfWeek.MONDAY, DayOfWeek.FRIDAY),
            Map.of(LocalDate.parse("2020-12-25"), "Christmas"),
            List.of(),
            null);
    tables.put(harbour, "made", By.PERSON);
    assertThat(harbourOnWatch()).isEmpty();
    String document =
        document("harbour-told", "FREQ=DAILY", "each")
            .replace("zone: UTC", "zone: UTC, off-days: next, calendar: harbour");
    var answer = putBridge("harbour-told", document);
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
    JsonNode line = harbourOnWatch().getFirst();
    assertThat(line.path("name").asText()).isEqualTo("Harbour days");
    assertThat(line.path("last").asText()).isEqualTo("2020-12-31");
    assertThat(line.path("bridges").path(0).asText()).isEqualTo("Told harbour-told");
  }

  private static List<JsonNode> harbourOnWatch() {
    return StreamSupport.stream(api("/watch").path("calendars").spliterator(), false)
        .filter(line -> line.path("id").asText().equals("harbour"))
        .toList();
  }
}
