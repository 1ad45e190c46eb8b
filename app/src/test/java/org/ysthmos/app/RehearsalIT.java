package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.SmartLifecycle;
import org.springframework.jdbc.core.JdbcTemplate;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.keep.Purger;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.work.WithThread;

/** A draft over events of the past, with no effect, against what really happened. */
class RehearsalIT extends AppTestBase {

  private static final String BRIDGE = "hazard-to-grounds";
  private static final Duration LONG = Duration.ofSeconds(30);

  @Autowired private AppClock clock;
  @Autowired private List<WithThread> threads;
  @Autowired private JdbcTemplate jdbc;
  @Autowired private Purger purger;
  @Autowired private IntakeWriter intake;

  private Instant since = Instant.EPOCH;

  private SmartLifecycle runner() {
    return threads.stream()
        .filter(one -> one.getClass().getSimpleName().equals("RehearsalRunner"))
        .findFirst()
        .orElseThrow();
  }

  /** Reports, of which the second is too little to become a task. */
  private List<String> reports(int count) throws Exception {
    return reports(count, 0);
  }

  private List<String> reports(int count, int othersBetween) throws Exception {
    since = clock.instant();
    List<String> numbers = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      numbers.add(report(Map.of("place", "Weir " + i, "danger", i == 1 ? "1" : "6")));
      var unused = settled(numbers.getLast(), 1);
      others(othersBetween);
    }
    return numbers;
  }

  /** Events that no bridge hears. */
  private void others(int count) {
    List<EventRow> rows = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      Instant now = clock.instant();
      rows.add(
          new EventRow(
              0,
              "nobody-hears",
              "o-" + now + "-" + i,
              "things",
              "made",
              "T-" + i,
              now,
              now,
              EventMapper.Origin.TOLD,
              "{}".getBytes(StandardCharsets.UTF_8)));
    }
    intake.keepPage(rows, nothing -> {});
  }

  private static HttpResponse<String> call(String method, String path, JsonNode body)
      throws Exception {
    return send(
        method, app("/api" + path), body.toString(), Map.of("Content-Type", "application/json"));
  }

  private ObjectNode wish(String answers) {
    return JSON.createObjectNode()
        .put("bridge", BRIDGE)
        .put("answers", answers)
        .put("since", since.toString());
  }

  private static JsonNode begun(ObjectNode wish) throws Exception {
    HttpResponse<String> answer = call("POST", "/rehearsals", wish);
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(202);
    return JSON.readTree(answer.body());
  }

  private static JsonNode ended(JsonNode begun) {
    String path = "/rehearsals/" + begun.path("id");
    await().atMost(LONG).until(() -> !api(path).path("state").asText().equals("RUNNING"));
    return api(path);
  }

  private static JsonNode rehearsed(ObjectNode wish) throws Exception {
    return ended(begun(wish));
  }

  private static JsonNode differences(JsonNode rehearsal, String filter) {
    return api("/rehearsals/" + rehearsal.path("id").asText() + "/differences" + filter)
        .path("items");
  }

  /** The live rules with a title in capitals and without the condition. */
  private static void draft() throws Exception {
    ObjectNode document = DeskIT.live();
    document.remove("when");
    ((ObjectNode) document.at("/fields/title"))
        .set("steps", JSON.readTree("[{\"case\": \"upper\"}]"));
    HttpResponse<String> kept = DeskIT.call("PUT", "/drafts/" + BRIDGE, DeskIT.typed(document, 0));
    assertThat(kept.statusCode()).as(kept.body()).isEqualTo(200);
  }

  @AfterEach
  void noDraft() throws Exception {
    assertThat(send("DELETE", app("/api/desk/drafts/" + BRIDGE), "", Map.of()).statusCode())
        .isEqualTo(204);
    noFault();
  }

  @Test
  void theLiveRulesMakeOfThePastWhatTheyMadeAndTheDraftSaysWhatIsOtherwise() throws Exception {
    List<String> numbers = reports(3);
    int live = api("/desk/drafts/" + BRIDGE).path("liveVersion").asInt();
    int tasks = tasksOf(numbers.getFirst()).size();

    // What was found then is kept: nobody is asked.
    fault(DESK.port(), "error", "GET", "/api/submissions", MANY);
    JsonNode same = rehearsed(wish("OF_THEN").put("version", live));
    assertThat(same.path("state").asText()).isEqualTo("ENDED");
    assertThat(same.path("done").asInt()).isEqualTo(3);
    assertThat(same.path("total").asInt()).isEqualTo(3);
    assertThat(same.path("differing").asInt()).isZero();
    assertThat(differences(same, "")).isEmpty();

    draft();
    JsonNode other = rehearsed(wish("OF_THEN"));
    assertThat(other.path("differing").asInt()).isEqualTo(3);
    assertThat(other.path("sameAsDraft").asBoolean()).isTrue();
    assertThat(other.at("/tally/verdicts").toString())
        .isEqualTo(
            """
            [{"then":"CREATE","now":"CREATE","events":2},{"then":"PASSED_BY","now":"CREATE","events":1}]\
            """);
    assertThat(other.at("/tally/fields").toString())
        .isEqualTo("[{\"field\":\"title\",\"events\":2}]");

    JsonNode first = differences(other, "?field=title").path(0);
    assertThat(first.path("record").asText()).isEqualTo(numbers.getFirst());
    assertThat(first.path("trace").asText())
        .isEqualTo(tracesOf(numbers.getFirst()).getFirst().path("id").asText());
    assertThat(first.at("/fields/0/then").asText()).startsWith("Weir 0: Loose plank");
    assertThat(first.at("/fields/0/now").asText()).startsWith("WEIR 0: LOOSE PLANK");
    assertThat(differences(other, "?field=title")).hasSize(2);
    assertThat(differences(other, "?then=PASSED_BY&now=CREATE"))
        .singleElement()
        .satisfies(
            one -> {
              assertThat(one.path("record").asText()).isEqualTo(numbers.get(1));
              assertThat(one.path("thenBecause").asText()).isNotEmpty();
            });
    assertThat(differences(other, "?unheard=true")).isEmpty();
    assertThat(differences(other, "?after=2")).hasSize(1);

    // Asked now, the desk does not answer.
    JsonNode now = rehearsed(wish("OF_NOW"));
    assertThat(now.at("/tally/verdicts").toString()).contains("\"now\":\"FAILED\"");
    assertThat(differences(now, "").path(0).path("nowBecause").asText()).isNotEmpty();
    noFault();

    assertThat(tasksOf(numbers.getFirst())).hasSize(tasks);
    assertThat(tasksOf(numbers.get(1))).isEmpty();
    assertThat(tracesOf(numbers.getFirst())).hasSize(1);
    JsonNode all = api("/rehearsals?bridge=" + BRIDGE);
    assertThat(all.path("hasDraft").asBoolean()).isTrue();
    assertThat(all.path("versions").path(0).asInt()).isEqualTo(live);
    assertThat(all.at("/fieldNames/title").asText()).isEqualTo("Title");
    assertThat(all.path("rehearsals").findValuesAsText("id"))
        .startsWith(now.path("id").asText(), other.path("id").asText(), same.path("id").asText());

    draftChanges();
    assertThat(api("/rehearsals/" + other.path("id").asText()).path("sameAsDraft").asBoolean())
        .isFalse();
  }

  /** Read through where they stand close together, and one by one where they do not. */
  @ParameterizedTest
  @ValueSource(ints = {1, 9})
  void whatStandsBetweenTheEventsOfABridgeIsLeftOut(int othersBetween) throws Exception {
    List<String> numbers = reports(4, othersBetween);
    draft();
    JsonNode rehearsed = rehearsed(wish("OF_THEN"));
    assertThat(rehearsed.path("done").asInt()).isEqualTo(4);
    assertThat(rehearsed.path("total").asInt()).isEqualTo(4);
    assertThat(differences(rehearsed, "").findValuesAsText("record")).isEqualTo(numbers);
  }

  private static void draftChanges() throws Exception {
    JsonNode draft = api("/desk/drafts/" + BRIDGE);
    ObjectNode document = DeskIT.documentOf(draft);
    document.put("purpose", "Another one");
    HttpResponse<String> kept =
        DeskIT.call(
            "PUT", "/drafts/" + BRIDGE, DeskIT.typed(document, draft.path("revision").asInt()));
    assertThat(kept.statusCode()).isEqualTo(200);
  }

  @Test
  void oneThatIsBrokenOffGoesOnAndAsksNothingTwice() throws Exception {
    reports(4);
    draft();
    fault(DESK.port(), "slow", "GET", "/api/submissions", MANY);
    JsonNode begun = begun(wish("OF_NOW"));
    await().atMost(LONG).until(() -> asked() >= 2);
    runner().stop();
    assertThat(api("/rehearsals/" + begun.path("id")).path("state").asText()).isEqualTo("RUNNING");
    runner().start();
    JsonNode ended = ended(begun);
    assertThat(ended.path("state").asText()).isEqualTo("ENDED");
    assertThat(ended.path("done").asInt()).isEqualTo(4);
    assertThat(ended.path("differing").asInt()).isEqualTo(4);
    assertThat(asked()).isEqualTo(4);
  }

  private static final int MANY = 1000;

  /** How many calls met the fault so far. */
  private static int asked() {
    try {
      String faults = "http://127.0.0.1:" + DESK.port() + "/control/faults";
      return MANY
          - JSON.readTree(send("GET", faults, "", Map.of()).body()).findValue("calls").asInt();
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  private static void noFault() throws Exception {
    String faults = "http://127.0.0.1:" + DESK.port() + "/control/faults";
    assertThat(send("DELETE", faults, "", Map.of()).statusCode()).isEqualTo(204);
  }

  @Test
  void oneCanBeStoppedAndOneAtATimeIsEnough() throws Exception {
    reports(4);
    draft();
    fault(DESK.port(), "slow", "GET", "/api/submissions", MANY);
    JsonNode begun = begun(wish("OF_NOW"));
    HttpResponse<String> another = call("POST", "/rehearsals", wish("OF_NOW"));
    assertThat(another.statusCode()).isEqualTo(409);
    assertThat(another.body()).contains("under way");
    await().atMost(LONG).until(() -> asked() >= 1);
    HttpResponse<String> stopped =
        call("POST", "/rehearsals/" + begun.path("id") + "/stop", JSON.createObjectNode());
    noFault();
    assertThat(stopped.statusCode()).as(stopped.body()).isEqualTo(200);
    assertThat(api("/rehearsals/" + begun.path("id")).path("state").asText()).isEqualTo("STOPPED");
    assertThat(
            call("POST", "/rehearsals/" + begun.path("id") + "/stop", JSON.createObjectNode())
                .statusCode())
        .isEqualTo(409);
  }

  @Test
  void oneThatBreaksEverythingOffIsNotBegunForEverAndNoneIsKeptForEver() throws Exception {
    reports(2);
    draft();
    runner().stop();
    JsonNode begun = begun(wish("OF_THEN"));
    long id = begun.path("id").asLong();
    jdbc.update("UPDATE rehearsal SET starts = 5 WHERE id = ?", id);
    runner().start();
    JsonNode ended = ended(begun);
    assertThat(ended.path("state").asText()).isEqualTo("FAILED");
    assertThat(ended.path("problem").asText()).contains("began 5 times");

    long whole = rehearsed(wish("OF_THEN")).path("id").asLong();
    assertThat(differencesKept(whole)).isEqualTo(2);
    jdbc.update("UPDATE rehearsal SET ended_at = ? WHERE id = ?", "2020-01-01T00:00:00Z", whole);
    purger.purge();
    assertThat(differencesKept(whole)).isZero();
    assertThat(send("GET", app("/api/rehearsals/" + whole), "", Map.of()).statusCode())
        .isEqualTo(404);
    assertThat(api("/rehearsals/" + id).path("state").asText()).isEqualTo("FAILED");
  }

  private long differencesKept(long rehearsal) {
    Long kept =
        jdbc.queryForObject(
            "SELECT COUNT(*) FROM rehearsal_difference WHERE rehearsal_id = ?",
            Long.class,
            rehearsal);
    return kept == null ? 0 : kept;
  }

  @Test
  void whatCannotBeRehearsedSaysWhy() throws Exception {
    assertThat(call("POST", "/rehearsals", wish("OF_THEN").put("most", 100_001)).body())
        .contains("1 to 100,000 events");
    assertThat(call("POST", "/rehearsals", wish("OF_THEN").put("version", 9999)).statusCode())
        .isEqualTo(404);
    since = Instant.parse("2026-11-24T10:00:00Z");
    assertThat(
            call("POST", "/rehearsals", wish("OF_THEN").put("until", "2026-11-24T10:00:00Z"))
                .body())
        .contains("not after its beginning");
    assertThat(call("POST", "/rehearsals", JSON.createObjectNode()).statusCode()).isEqualTo(400);
  }
}
