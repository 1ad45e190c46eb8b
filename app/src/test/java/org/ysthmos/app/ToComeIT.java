package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.StringReader;
import java.net.URI;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.component.VEvent;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.who.By;

/** What is to come, on the screens and as a calendar; the judge of that is ical4j 4.4.0. */
class ToComeIT extends AppTestBase {

  private static final ZoneId LISBON = ZoneId.of("Europe/Lisbon");
  private static final Duration LONG = Duration.ofSeconds(20);

  @Autowired private AppClock time;
  @Autowired private Bridges all;

  @AfterEach
  void timeOfTheMachine() {
    time.release();
  }

  private static void goLive(String id, String catchUp, String more) throws Exception {
    Instant hour = Instant.now().truncatedTo(ChronoUnit.HOURS).minus(Duration.ofDays(1));
    String document =
        """
        bridge: %s
        name: Told %s
        purpose: The works are told when a time has come
        from:
          times: { rule: FREQ=HOURLY, zone: UTC, start: "%s" }
          catch-up: %s
        to: { system: garden-chat, collection: messages }
        %s
        match: [event/id]
        fields:
          channel: { always: works }
          text: { text: "%s {/occurrence/said}" }
        ceiling: { messages: 100, per: PT1H }
        """
            .formatted(id, id, hour.toString().replace("Z", ""), catchUp, more, id);
    var answer = putBridge(id, document);
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
  }

  private static List<JsonNode> entries(String bridge) {
    // From the day it really is: where the clock is put past midnight, what was missed is of that
    // day.
    String from = LocalDate.ofInstant(Instant.now(), LISBON).toString();
    return StreamSupport.stream(
            api("/to-come?days=3&from=" + from).path("entries").spliterator(), false)
        .filter(entry -> entry.path("bridge").asText().equals(bridge))
        .toList();
  }

  private static List<String> states(String bridge) {
    return entries(bridge).stream().map(entry -> entry.path("state").asText()).toList();
  }

  @Test
  void whatWillBeMadeIsToldByTheSameRules() throws Exception {
    goLive("hourly-told", "each", "");
    assertThat(states("hourly-told")).isNotEmpty().containsOnly("TO_COME");
    JsonNode first = entries("hourly-told").getFirst();
    assertThat(first.path("bridgeName").asText()).isEqualTo("Told hourly-told");
    assertThat(first.path("system").asText()).isEqualTo("Garden Chat");
    assertThat(Instant.parse(first.path("at").asText()))
        .isEqualTo(Instant.now().truncatedTo(ChronoUnit.HOURS).plus(1, ChronoUnit.HOURS));
    assertThat(all.hold("hourly-told", "for a while", By.PERSON)).isTrue();
    assertThat(states("hourly-told")).containsOnly("HELD");
    goLive("never-told", "each", "when: { value: /occurrence/missed, is: present }");
    assertThat(states("never-told")).containsOnly("PASSED_BY");
    assertThat(entries("never-told").getFirst().path("what").asText()).isNotEmpty();
  }

  @Test
  void whatCameAndWhatWasMissedStandsBesideIt() throws Exception {
    goLive("latest-told", "latest", "");
    // In the middle of an hour: what is looked at within minutes of its time came in time.
    time.set(Instant.now().truncatedTo(ChronoUnit.HOURS).plus(Duration.ofMinutes(4 * 60 + 30)));
    await()
        .atMost(LONG)
        .untilAsserted(
            () -> assertThat(states("latest-told")).contains("MISSED", "MADE_UP_FOR", "TO_COME"));
    List<JsonNode> entries = entries("latest-told");
    JsonNode made =
        entries.stream()
            .filter(entry -> entry.path("state").asText().equals("MADE_UP_FOR"))
            .findFirst()
            .orElseThrow();
    assertThat(made.path("trace").asText()).isNotEmpty();
    assertThat(made.path("what").asText()).startsWith("the machine slept");
  }

  /** Whose a task will be stands with it before it is made, and afterwards. */
  @Test
  void whoseItIsStaysToldOnceItWasMade() throws Exception {
    Instant hour = Instant.now().truncatedTo(ChronoUnit.HOURS).plus(1, ChronoUnit.HOURS);
    var live =
        putBridge(
            "owned-told",
            """
            bridge: owned-told
            name: Owned
            purpose: The records office is given a job each hour
            from: { times: { rule: FREQ=HOURLY, zone: UTC, start: "%s" } }
            to: { system: works-ledger, collection: jobs }
            match: [event/id]
            fields:
              title: { text: "Count the seeds {/occurrence/said}" }
              status: { always: planned }
              owner: { always: records@tidewrack.example }
            ceiling: { creates: 100, per: PT1H }
            """
                .formatted(hour.toString().replace("Z", "")));
    assertThat(live.statusCode()).as(live.body()).isBetween(200, 204);
    String owner = entries("owned-told").getFirst().path("person").asText();
    assertThat(owner).isNotEmpty();
    var ran =
        send(
            "POST",
            app("/api/bridges/owned-told/times/run"),
            JSON.createObjectNode().put("at", hour.toString()).toString(),
            Map.of("Content-Type", "application/json"));
    assertThat(ran.statusCode()).as(ran.body()).isEqualTo(200);
    await()
        .atMost(LONG)
        .untilAsserted(
            () -> {
              JsonNode run = entries("owned-told").getFirst();
              assertThat(run.path("state").asText()).isEqualTo("RUN");
              assertThat(run.path("person").asText()).isEqualTo(owner);
            });
  }

  @Test
  void eventThatWaitsForWhatIsNotThereYetIsToCome() throws Exception {
    goLive(
        "waits-told",
        "latest",
        "lookups: { report: { in: visitor-desk/hazard-reports, by: { id: /occurrence/said }, wait: P1D } }");
    time.set(Instant.now().plus(Duration.ofMinutes(61)));
    await().atMost(LONG).until(() -> !api("/traces?bridge=waits-told").path("traces").isEmpty());
    // The longer it waited, the later it is looked for again.
    time.set(Instant.now().plus(Duration.ofHours(3)));
    await().atMost(LONG).untilAsserted(() -> assertThat(states("waits-told")).contains("WAITS"));
    JsonNode waits =
        entries("waits-told").stream()
            .filter(entry -> entry.path("state").asText().equals("WAITS"))
            .findFirst()
            .orElseThrow();
    assertThat(waits.path("trace").asText()).isNotEmpty();
    assertThat(waits.path("what").asText()).isNotEmpty();
  }

  @Test
  void calendarIsReadByAnotherLibraryUnderItsSecretAddressAlone() throws Exception {
    goLive("feed-told", "each", "");
    String address = address("POST");
    assertThat(address).endsWith("/to-come.ics");
    HttpResponse<String> read = read(address);
    assertThat(read.statusCode()).as(read.body()).isEqualTo(200);
    assertThat(read.headers().firstValue("Content-Type").orElse("")).startsWith("text/calendar");
    Calendar calendar = new CalendarBuilder().build(new StringReader(read.body()));
    calendar.validate();
    List<JsonNode> expected = entries("feed-told");
    List<Instant> starts = new ArrayList<>();
    for (VEvent event : calendar.<VEvent>getComponents("VEVENT")) {
      if (event.getDescription().getValue().contains("by Told feed-told")) {
        starts.add(event.<OffsetDateTime>getDateTimeStart().getDate().toInstant());
        assertThat(event.getUid().orElseThrow().getValue()).startsWith("feed-told/");
        assertThat(event.getSummary().getValue()).isNotEmpty();
      }
    }
    assertThat(starts)
        .containsAll(
            expected.stream().map(entry -> Instant.parse(entry.path("at").asText())).toList())
        .doesNotHaveDuplicates();
    String another = address("POST");
    assertThat(another).isNotEqualTo(address);
    assertThat(read(address).statusCode()).isEqualTo(404);
    assertThat(read(another).statusCode()).isEqualTo(200);
    assertThat(address("DELETE")).isEmpty();
    assertThat(read(another).statusCode()).isEqualTo(404);
  }

  private static String address(String method) throws Exception {
    var answer = send(method, app("/api/to-come/address"), "", Map.of());
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body()).path("address").asText();
  }

  private static HttpResponse<String> read(String address) throws Exception {
    return send("GET", app(URI.create(address).getPath()), "", Map.of());
  }

  @Test
  void moreDaysThanCanBeToldAreRefused() throws Exception {
    var answer = send("GET", app("/api/to-come?days=1000"), "", Map.of());
    assertThat(answer.statusCode()).isEqualTo(400);
    assertThat(answer.body()).contains("1 to 62 days");
  }
}
