package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.ysthmos.app.DeskIT.call;
import static org.ysthmos.app.DeskIT.live;
import static org.ysthmos.app.DeskIT.ok;
import static org.ysthmos.app.DeskIT.typed;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Samples that people add, pinned examples, and what is offered for field pairs. */
class DeskSamplesIT extends AppTestBase {

  private static final String DESK_OF_BRIDGE = "/drafts/hazard-to-grounds";

  private static JsonNode trial(ObjectNode document, String sample) throws Exception {
    return ok(call("POST", DESK_OF_BRIDGE + "/trial?sample=" + sample, typed(document, 0)));
  }

  private static List<String> add(String text) throws Exception {
    Map<String, String> wish = Map.of("document", live().toString(), "text", text);
    List<String> ids = new ArrayList<>();
    ok(call("POST", DESK_OF_BRIDGE + "/samples", wish))
        .path("ids")
        .forEach(id -> ids.add(id.asText()));
    return ids;
  }

  private static String remove(String path) throws Exception {
    var answer = send("DELETE", app("/api/desk" + DESK_OF_BRIDGE + path), "", Map.of());
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(204);
    return answer.body();
  }

  @Test
  void pastedEventIsDecidedWithItsLookupReallyAskedAndStaysUntilItIsRemoved() throws Exception {
    String number = report(Map.of("place", "Pasted place"));
    settled(number, 1);
    List<String> ids = add("{\"type\":\"submission.created\",\"submission\":\"" + number + "\"}\n");
    JsonNode trial = trial(live(), ids.getFirst());
    assertThat(trial.at("/samples/0/origin").asText()).isEqualTo("ADDED");
    assertThat(trial.at("/samples/0/record").asText()).isEqualTo(number);
    assertThat(trial.path("inView").asInt()).isZero();
    assertThat(trial.at("/samples/0/title").asText()).startsWith("Pasted place: ");
    assertThat(trial.at("/lookups/0/records").asInt()).isEqualTo(1);
    remove("/samples/" + ids.getFirst());
    assertThat(trial(live(), "").at("/samples/0/origin").asText()).isEqualTo("RECEIVED");
  }

  @Test
  void cloudEventsComeAsNdjsonEachWithItsOwnKind() throws Exception {
    String line =
        """
        {"specversion":"1.0","id":"m-%d","source":"/visitor-desk/hazard-reports","type":"changed","subject":"vd-%d","time":"2026-11-24T13:58:07Z","datacontenttype":"application/json","data":{"submission":"vd-%d","type":"submission.changed"}}
        """;
    List<String> ids = add(line.formatted(1, 1, 1) + line.formatted(2, 2, 2));
    assertThat(ids).hasSize(2);
    JsonNode trial = trial(live(), ids.getLast());
    assertThat(trial.at("/samples/" + trial.path("inView").asInt() + "/kind").asText())
        .isEqualTo("changed");
    // The report is not there, and that is said, not guessed.
    assertThat(trial.path("verdict").asText()).isEqualTo("failed");
    for (String id : ids) {
      remove("/samples/" + id);
    }
  }

  @Test
  void dataOfACloudEventThatAnotherMakerWroteIsTheBody() throws Exception {
    String number = report(Map.of("place", "Wrapped place"));
    settled(number, 1);
    List<String> ids =
        add(
            """
            {"specversion":"1.0","id":"a","source":"https://forms.example","type":"x.sent",
             "data":{"type":"submission.changed","submission":"%s"}}
            """
                .formatted(number));
    JsonNode trial = trial(live(), ids.getFirst());
    assertThat(trial.at("/samples/0/title").asText()).startsWith("Wrapped place: ");
    assertThat(trial.at("/samples/0/kind").asText()).isEqualTo("changed");
    remove("/samples/" + ids.getFirst());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          ''                                             | There is no event in it
          [1]                                            | Event 1 is no JSON object
          {"submission":"vd-1"} {                        | Line 1 cannot be read
          {"specversion":"1.0","id":"a","source":"https://x.example","data":1} | “data” is no JSON object
          {"specversion":"1.0","id":"a"}                 | the attribute “source” is missing
          {"specversion":"1.0","id":"a","source":"/x/y","type":"created","subject":"1","time":"2026-11-24T13:58:07Z"} | this bridge starts at /visitor-desk/hazard-reports
          {"specversion":"1.0","id":"a","source":"/visitor-desk/hazard-reports","type":"gone","subject":"1","time":"2026-11-24T13:58:07Z"} | this bridge carries created and changed
          """)
  void textThatIsNoSampleIsRefusedWithItsPlace(String text, String message) throws Exception {
    Map<String, String> wish = Map.of("document", live().toString(), "text", text);
    var refused = call("POST", DESK_OF_BRIDGE + "/samples", wish);
    assertThat(refused.statusCode()).isEqualTo(422);
    assertThat(JSON.readTree(refused.body()).path("detail").asText()).contains(message);
  }

  @Test
  void aBridgeWhoseKindNeverCameReadsItsSource() throws Exception {
    String number = report(Map.of("place", "Read at the source"));
    settled(number, 1);
    ObjectNode draft = live();
    // No event of this kind comes in these tests before the others change a report.
    ((ArrayNode) draft.at("/from/event")).removeAll().add("looked-at");
    JsonNode trial = trial(draft, "read-" + number);
    JsonNode read = trial.at("/samples/" + trial.path("inView").asInt());
    assertThat(read.path("origin").asText()).isEqualTo("READ");
    assertThat(read.path("record").asText()).isEqualTo(number);
    assertThat(trial.path("arriving").toString()).contains("Read at the source");
  }

  @Test
  void pinnedExampleKeepsADraftFromGoingLiveUntilItsNewResultIsAccepted() throws Exception {
    String number = report(Map.of("danger", "8"));
    settled(number, 1);
    String sample = trial(live(), "").at("/samples/0/id").asText();
    Map<String, String> wish =
        Map.of("document", live().toString(), "sample", sample, "name", "A loose plank");
    assertThat(call("POST", DESK_OF_BRIDGE + "/examples", wish).statusCode()).isEqualTo(204);

    ObjectNode draft = live();
    ((ObjectNode) draft.at("/fields/priority/steps/1/bands")).put("8..10", "2");
    JsonNode going = ok(call("POST", DESK_OF_BRIDGE + "/going", typed(draft, 0)));
    JsonNode example = going.at("/examples/" + (going.path("examples").size() - 1));
    assertThat(example.path("name").asText()).isEqualTo("A loose plank");
    assertThat(example.path("holds").asBoolean()).isFalse();
    assertThat(example.at("/differences/0/expected").asText()).isEqualTo("1");
    assertThat(example.at("/differences/0/found").asText()).isEqualTo("2");
    assertThat(going.path("changes")).hasSize(1);
    assertThat(going.at("/changes/0/part").asText()).isEqualTo("Priority");
    assertThat(going.at("/changes/0/before").asText()).contains("8–10 → 1");

    var refused = call("POST", DESK_OF_BRIDGE + "/live", typed(draft, 0));
    assertThat(refused.statusCode()).isEqualTo(409);
    assertThat(refused.body()).contains("A loose plank");
    ok(call("POST", DESK_OF_BRIDGE + "/live?acceptExamples=true", typed(draft, 1)));
    JsonNode again = ok(call("POST", DESK_OF_BRIDGE + "/going", typed(live(), 0)));
    assertThat(again.path("examples")).allMatch(one -> one.path("holds").asBoolean());
    String ndjson =
        send("GET", app("/api/desk" + DESK_OF_BRIDGE + "/examples"), "", Map.of()).body();
    assertThat(ndjson.lines())
        .last()
        .asString()
        .startsWith("{\"example\":\"A loose plank\"")
        .contains("\"priority\":\"2\"");
    remove("/examples/" + example.path("id").asText());
  }

  @Test
  void whatGoingLiveAsksOfEachSystemIsReckonedFromRealEvents() throws Exception {
    settled(report(Map.of("danger", "8")), 1);
    JsonNode going = ok(call("POST", DESK_OF_BRIDGE + "/going", typed(live(), 0)));
    assertThat(going.path("events").asInt()).isPositive();
    JsonNode board = null;
    for (JsonNode load : going.path("loads")) {
      board = load.path("system").asText().equals("Grounds Board") ? load : board;
    }
    assertThat(board).isNotNull();
    assertThat(board.path("limitCalls").asInt()).isEqualTo(90);
    assertThat(board.path("limitPerDay").asInt()).isEqualTo(129_600);
    // A task with notes and checklist takes two calls.
    assertThat(board.path("callsPerDay").asInt()).isGreaterThanOrEqualTo(2);
    assertThat(going.at("/ceiling/limits/0/most").asInt()).isEqualTo(9999);
    assertThat(going.at("/ceiling/limits/0/times").asInt()).isPositive();
    assertThat(going.path("changes")).isEmpty();
  }

  @Test
  void likelyFieldPairsAreOfferedForWhatHasNoRule() throws Exception {
    settled(report(Map.of("danger", "8")), 1);
    ObjectNode draft = live();
    ((ObjectNode) draft.path("fields")).remove("priority");
    ((ObjectNode) draft.path("fields")).remove("due");
    JsonNode offered = ok(call("POST", DESK_OF_BRIDGE + "/suggestions", typed(draft, 0)));
    assertThat(offered)
        .anySatisfy(
            pair -> {
              assertThat(pair.path("field").asText()).isEqualTo("priority");
              assertThat(pair.path("source").asText()).isEqualTo("how dangerous");
            })
        .anySatisfy(
            pair -> {
              assertThat(pair.path("field").asText()).isEqualTo("due");
              assertThat(pair.path("rule").asText()).contains("read-day").contains("17:00");
            })
        .noneSatisfy(pair -> assertThat(pair.path("field").asText()).isEqualTo("title"));
    // What is offered can be taken as it is.
    ((ObjectNode) draft.path("fields")).set("priority", JSON.readTree(rule(offered, "priority")));
    assertThat(trial(draft, "").path("problems")).isEmpty();
  }

  private static String rule(JsonNode offered, String field) {
    for (JsonNode pair : offered) {
      if (pair.path("field").asText().equals(field)) {
        return pair.path("rule").asText();
      }
    }
    throw new AssertionError("nothing is offered for " + field);
  }

  @Test
  void placesSayWhyTheyCannotBeUsedAndWhetherTheyAnswer() throws Exception {
    JsonNode places = api("/desk/places");
    assertThat(places.at("/sources/0/hindrance").asText()).isEmpty();
    assertThat(places.path("targets").toString())
        .contains("Its description names no call that makes a report (create).");
    assertThat(places.at("/lookups/0/by").toString()).contains("id");
    assertThat(api("/desk/places/grounds-board/paths-and-trees").path("seen").asBoolean()).isTrue();
    fault(BOARD.port(), "forbidden", "GET", "/api", 1);
    JsonNode hidden = api("/desk/places/grounds-board/paths-and-trees");
    assertThat(hidden.path("seen").asBoolean()).isFalse();
    assertThat(hidden.path("problem").asText()).isNotBlank();
  }
}
