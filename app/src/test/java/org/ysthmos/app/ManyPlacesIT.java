package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.ysthmos.app.health.Health;
import org.ysthmos.app.keep.Purger;
import org.ysthmos.app.system.Systems;

/**
 * One bridge hears many boards of one system, which are described alike, and writes to the board
 * that a table names; one that appears over there is offered and heard once it is taken.
 */
class ManyPlacesIT extends AppTestBase {

  private static final Duration LONGEST = Duration.ofSeconds(30);
  private static final String BRIDGE = "beds";

  private static final String DOCUMENT =
      """
      bridge: beds
      name: Beds
      purpose: Work in a bed becomes work in its yard
      from: { system: bed-boards, places: { of: boards, table: bed-yards }, event: [created, changed] }
      to: { system: bed-boards, collection: { of: boards, take: yard } }
      match: [place/id, /task/id]
      fields:
        title: { text: "{/task/title} ({place/name}, {place/crew})" }
        lane: { always: to-do }
      """;

  @Autowired private Systems systems;
  @Autowired private Health health;
  @Autowired private JdbcTemplate jdbc;
  @Autowired private Purger purger;

  private static final String TOLD =
      """
          event-fields:
            /task/id: { name: number, type: text, required: true }
            /task/title: { name: title, type: text, required: true }
          push:
            verify: { standard-webhooks: { secret: grounds-board-hook } }
            place: /board
            record: /task/id
            kind: /type
            kinds: { task.created: created, task.changed: changed }
            version: /task/revision
      """;

  private static final String ASKED =
      """
          event-fields:
            /id: { name: number, type: text, required: true }
            /title: { name: title, type: text, required: true }
          poll:
            call: "GET /api/boards/{place}/tasks"
            items: /items
            id: /id
            version: /revision
            changed: /changedAt
            created: /createdAt
            since: { parameter: changedSince }
            every: PT10S
      """;

  /** All boards, described once, with how what happens there is learned of. */
  private static String boards(String id, String learned) {
    return """
          %s:
            places: boards
            name: Board
            record: task
            title: title
            page: "/boards/{place}#{id}"
            fields:
              title: { name: Title, type: text, required: true }
              lane: { name: Lane, type: choice, required: true, names: { to-do: To do, done: Done } }
            find:
              - { by: [id], call: "GET /api/tasks/{id}" }
            find-by-key:
              call: "GET /api/boards/{place}/tasks?externalId={key}"
              items: /items
              id: /id
            created-id: /id
            create:
              - call: "POST /api/boards/{place}/tasks"
                fields: [title, lane]
                key-field: externalId
            change:
              - call: "PATCH /api/tasks/{id}?board={place}"
                fields: [title, lane]
        """
            .formatted(id)
        + learned;
  }

  @BeforeEach
  void theBoardsAreKnown() throws Exception {
    BOARD.forgetCalls();
    Set<String> there = new TreeSet<>();
    board("GET", "/api/boards", "")
        .path("items")
        .forEach(one -> there.add(one.path("id").asText()));
    for (String bed : List.of("Bed one", "Bed two", "Bed three")) {
      if (!there.contains(bed.toLowerCase(Locale.ROOT).replace(' ', '-'))) {
        makeBoard(bed);
      }
    }
    systems.put(
        """
        system: bed-boards
        name: Bed boards
        address: http://127.0.0.1:%d
        sign-in: { bearer: { secret: grounds-board-token } }
        problem: { message: /error, field: /field }
        directories:
          boards: { call: GET /api/boards, items: /items, id: /id, name: /name }
        collections:
        """
                .formatted(BOARD.port())
            + boards("boards", TOLD)
            + boards("asked", ASKED));
    health.lookAt("bed-boards");
  }

  /** What they ask of the board would count against what other tests may ask it. */
  @AfterEach
  void nothingGoesOn() throws Exception {
    for (String bridge : List.of(BRIDGE, "asked-beds")) {
      String at = app("/api/bridges/" + bridge);
      Map<String, String> json = Map.of("Content-Type", "application/json");
      if (send("GET", at, "", Map.of()).statusCode() == 200) {
        HttpResponse<String> unused = send("PUT", at + "/hold", "{\"because\":\"Over\"}", json);
        await()
            .atMost(LONGEST)
            .until(
                () -> {
                  int waiting = api("/bridges/" + bridge + "/retirement").path("events").asInt();
                  String wish = "{\"because\":\"Over\",\"events\":%d}".formatted(waiting);
                  return send("POST", at + "/retirement", wish, json).statusCode() == 204;
                });
      }
    }
  }

  private static void makeBoard(String name) throws Exception {
    String unused = form(BOARD, "/boards", Map.of("name", name));
  }

  private static HttpResponse<String> ok(HttpResponse<String> answer) {
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
    return answer;
  }

  private static void rows(String rows) throws Exception {
    ok(
        send(
            "PUT",
            app("/api/tables/bed-yards/rows"),
            "bed,yard,crew\r\n" + rows,
            Map.of("Content-Type", "text/csv")));
  }

  private static void table(String rows) throws Exception {
    JsonNode about = api("/tables/bed-yards/about");
    ObjectNode wish =
        (ObjectNode)
            JSON.readTree(
                """
                {"name": "Beds", "keys": ["bed"], "ignoreCase": "", "notFound": "fail", "use": "",
                 "values": [{"name": "yard", "type": "text"}, {"name": "crew", "type": "text"}]}
                """);
    wish.put("csv", "bed,yard,crew\r\n" + rows).put("basedOn", about.path("basedOn").asLong());
    ok(
        send(
            "PUT",
            app("/api/tables/bed-yards"),
            wish.toString(),
            Map.of("Content-Type", "application/json")));
  }

  private void live(String rows) throws Exception {
    table(rows);
    ok(putBridge(BRIDGE, DOCUMENT));
  }

  private static JsonNode place(JsonNode places, String id) {
    for (JsonNode one : places.path("places")) {
      if (one.path("id").asText().equals(id)) {
        return one;
      }
    }
    throw new AssertionError("no place " + id + " in " + places);
  }

  private static List<String> ids(JsonNode places) {
    List<String> ids = new ArrayList<>();
    places.forEach(one -> ids.add(one.path("id").asText()));
    return ids;
  }

  private static JsonNode places() {
    return api("/bridges/" + BRIDGE + "/places");
  }

  private static JsonNode post(String what, ObjectNode wish) throws Exception {
    wish.put("version", places().path("version").asInt());
    return JSON.readTree(
        ok(send(
                "POST",
                app("/api/bridges/" + BRIDGE + "/places/" + what),
                wish.toString(),
                Map.of("Content-Type", "application/json")))
            .body());
  }

  private static ObjectNode ids(List<String> ids) {
    ObjectNode wish = JSON.createObjectNode();
    ArrayNode list = wish.putArray("ids");
    ids.forEach(list::add);
    return wish;
  }

  private static String work(String board, String title) throws Exception {
    return board(
            "POST",
            "/api/boards/" + board + "/tasks",
            "{\"title\":\"%s\",\"lane\":\"to-do\"}".formatted(title))
        .path("id")
        .asText();
  }

  /** Tells of a task as the board's webhook does. */
  private static HttpResponse<String> told(String board, String id, String type) throws Exception {
    JsonNode task = board("GET", "/api/tasks/" + id, "");
    ObjectNode body = JSON.createObjectNode().put("type", type).put("board", board);
    body.set("task", task);
    return hook(
        "bed-boards/boards",
        "msg_" + id + task.path("revision"),
        body.toString(),
        Instant.now(),
        SECRET);
  }

  /** What stands on a board as people see it, which is no call of its API. */
  private static String page(String board) throws Exception {
    return send("GET", "http://127.0.0.1:" + BOARD.port() + "/boards/" + board, "", Map.of())
        .body();
  }

  private static void arrives(String board, String title) {
    BOARD.forgetCalls();
    await().atMost(LONGEST).until(() -> page(board).contains("<h3>" + title + "</h3>"));
  }

  @Test
  void eachBedGoesToItsYardAndIsSeenByItself() throws Exception {
    Instant since = Instant.now();
    live("bed-one,beds-east,rakes\r\nbed-two,beds-west,spades\r\n");
    ok(told("bed-one", work("bed-one", "Weed the path"), "task.created"));
    ok(told("bed-two", work("bed-two", "Dig the edge"), "task.created"));
    arrives("beds-east", "Weed the path (Bed one, rakes)");
    arrives("beds-west", "Dig the edge (Bed two, spades)");

    await().atMost(LONGEST).until(() -> place(places(), "bed-two").path("made").asInt() > 0);
    JsonNode one = place(places(), "bed-one");
    assertThat(one.path("name").asText()).isEqualTo("Bed one");
    assertThat(one.path("to").asText()).isEqualTo("East beds");
    assertThat(one.path("creates").asLong()).isPositive();
    assertThat(one.path("last").asText()).isNotEmpty();
    JsonNode traces = api("/traces?bridge=" + BRIDGE + "&place=boards:bed-two").path("traces");
    assertThat(traces).isNotEmpty();
    traces.forEach(trace -> assertThat(trace.path("place").asText()).isEqualTo("Bed two"));

    // A past of several places is rehearsed in the order in which it came.
    ObjectNode wish = JSON.createObjectNode().put("bridge", BRIDGE).put("answers", "OF_THEN");
    wish.put("version", places().path("version").asInt()).put("since", since.toString());
    HttpResponse<String> begun =
        send(
            "POST",
            app("/api/rehearsals"),
            wish.toString(),
            Map.of("Content-Type", "application/json"));
    assertThat(begun.statusCode()).as(begun.body()).isEqualTo(202);
    String rehearsal = "/rehearsals/" + JSON.readTree(begun.body()).path("id");
    await().atMost(LONGEST).until(() -> !api(rehearsal).path("state").asText().equals("RUNNING"));
    assertThat(api(rehearsal).path("state").asText()).isEqualTo("ENDED");
    assertThat(api(rehearsal).path("done").asInt()).isEqualTo(2);
    assertThat(api(rehearsal).path("differing").asInt()).isZero();

    // What a field of one place is called, it is called at each that is described alike.
    JsonNode uses =
        api("/uses?kind=FIELD&system=bed-boards&collection=boards:bed-nine&id=/task/title");
    assertThat(uses.toString()).contains("Beds");

    // An id alone names none of many; that none was asked is said.
    JsonNode found = api("/where?text=gb-0&ask=true");
    assertThat(found.path("notAsked").toString()).isEqualTo("[\"Board of Bed boards\"]");

    // The row names another yard from now on: what is there already is changed where it stands.
    String task = work("bed-one", "Edge the lawn");
    ok(told("bed-one", task, "task.created"));
    arrives("beds-east", "Edge the lawn (Bed one, rakes)");
    rows("bed-one,beds-west,rakes\r\nbed-two,beds-west,spades\r\n");
    JsonNode unused = board("PATCH", "/api/tasks/" + task, "{\"title\":\"Edge the long lawn\"}");
    ok(told("bed-one", task, "task.changed"));
    arrives("beds-east", "Edge the long lawn (Bed one, rakes)");
    JsonNode changed = api("/traces?bridge=" + BRIDGE + "&text=" + task).path("traces").path(0);
    assertThat(api("/traces/" + changed.path("id").asText()).path("targetPage").asText())
        .contains("/boards/beds-east#");
    ok(told("bed-one", work("bed-one", "Oil the shears"), "task.created"));
    arrives("beds-west", "Oil the shears (Bed one, rakes)");
  }

  @Test
  void aPlaceThatAppearsIsOfferedAndHeardOnceItIsTaken() throws Exception {
    live("bed-one,beds-east,rakes\r\n");
    List<String> others = ids(places().path("offered"));
    assertThat(others).contains("bed-three", "education").doesNotContain("bed-one");
    others.remove("bed-three");
    JsonNode left = post("leave-out", ids(others));
    assertThat(ids(left.path("offered"))).containsExactly("bed-three");
    JsonNode watched = api("/watch").path("places").path(0);
    assertThat(watched.path("bridge").asText()).isEqualTo(BRIDGE);
    assertThat(watched.path("names").toString()).isEqualTo("[\"Bed three\"]");

    // Nothing of it is taken before somebody says so.
    String early = work("bed-three", "Turn the heap");
    JsonNode kept = JSON.readTree(ok(told("bed-three", early, "task.created")).body());
    assertThat(kept.path("bridges").asInt()).isZero();

    ObjectNode wish = JSON.createObjectNode();
    ObjectNode taken = wish.putArray("places").addObject().put("id", "bed-three");
    taken.putObject("cells").put("yard", "beds-west").put("crew", "forks");
    JsonNode now = post("take", wish);
    assertThat(ids(now.path("places"))).containsExactly("bed-one", "bed-three");
    assertThat(now.path("offered")).isEmpty();
    assertThat(api("/tables/bed-yards").path("rows").toString()).contains("bed-three");
    ok(told("bed-three", work("bed-three", "Sieve the soil"), "task.created"));
    arrives("beds-west", "Sieve the soil (Bed three, forks)");
    assertThat(page("beds-west")).doesNotContain("Turn the heap");

    // What would change of the places is told by their names.
    String other =
        DOCUMENT
            .replace("table: bed-yards }", "named: [bed-one, bed-two] }")
            .replace("{ of: boards, take: yard }", "\"boards:beds-east\"")
            .replace(", {place/crew}", "");
    ObjectNode draft = JSON.createObjectNode().put("document", other).put("revision", 0);
    int number = places().path("version").asInt();
    JsonNode differences =
        JSON.readTree(
            send(
                    "POST",
                    app("/api/desk/versions/" + BRIDGE + "/" + number + "/differences"),
                    draft.toString(),
                    Map.of("Content-Type", "application/json"))
                .body());
    assertThat(differences.path(0).toString())
        .isEqualTo("{\"part\":\"Places\",\"before\":\"Bed three\",\"after\":\"Bed two\"}");

    // One that appears over there.
    makeBoard("Bed nine");
    health.lookAt("bed-boards");
    assertThat(ids(places().path("offered"))).contains("bed-nine");
    JsonNode again = post("offer-again", ids(List.of("education")));
    assertThat(ids(again.path("offered"))).contains("education");
  }

  @Test
  void aRowThatCannotBeUsedIsRefusedAndWhatWaitsOfAPlaceThatWentPassesBy() throws Exception {
    live("bed-one,beds-east,rakes\r\nbed-two,beds-west,spades\r\n");
    HttpResponse<String> refused =
        send(
            "PUT",
            app("/api/tables/bed-yards/rows"),
            "bed,yard,crew\r\nbed-one,,rakes\r\n",
            Map.of("Content-Type", "text/csv"));
    assertThat(refused.statusCode()).isEqualTo(409);
    assertThat(refused.body()).contains("says nothing under “yard”");
    assertThat(ids(places().path("places"))).containsExactly("bed-one", "bed-two");

    ok(
        send(
            "PUT",
            app("/api/bridges/" + BRIDGE + "/hold"),
            "{\"because\":\"The yard is shut\"}",
            Map.of("Content-Type", "application/json")));
    String task = work("bed-two", "Lift the dahlias");
    ok(told("bed-two", task, "task.created"));
    rows("bed-one,beds-east,rakes\r\n");
    ok(send("DELETE", app("/api/bridges/" + BRIDGE + "/hold"), "", Map.of()));
    await()
        .atMost(LONGEST)
        .until(
            () ->
                api("/traces?bridge=" + BRIDGE + "&text=" + task)
                    .path("traces")
                    .path(0)
                    .path("verdict")
                    .asText()
                    .equals("PASSED_BY"));
    JsonNode trace = api("/traces?bridge=" + BRIDGE + "&text=" + task).path("traces").path(0);
    assertThat(trace.path("reason").asText()).contains("none of the bridge's");
  }

  @Test
  void whatCameOfAPlaceLongAgoIsKeptNoLonger() throws Exception {
    live("bed-one,beds-east,rakes\r\n");
    ok(told("bed-one", work("bed-one", "Scrub the pots"), "task.created"));
    arrives("beds-east", "Scrub the pots (Bed one, rakes)");
    await().atMost(LONGEST).until(() -> counts() > 0);
    int kept = counts();
    jdbc.update("INSERT INTO place_count VALUES ('beds', 'boards:bed-one', 1, 'CREATE', 5)");
    jdbc.update("INSERT INTO place_effect VALUES ('beds', 'boards:bed-one', 'CREATE', 1, 5)");
    purger.purge();
    await().atMost(LONGEST).until(() -> counts() == kept);
    assertThat(jdbc.queryForObject("SELECT MIN(slot) FROM place_effect", Integer.class))
        .isGreaterThan(1);
  }

  private int counts() {
    return Objects.requireNonNull(
        jdbc.queryForObject("SELECT COUNT(*) FROM place_count", Integer.class));
  }

  @Test
  void placesThatAreAskedAreEachReadByThemselves() throws Exception {
    ok(
        putBridge(
            "asked-beds",
            """
            bridge: asked-beds
            name: Asked beds
            purpose: Work in two beds becomes work in the east
            from:
              system: bed-boards
              places: { of: asked, all: [bed-one, bed-two], left-out: [education] }
              event: [created, changed]
            to: { system: bed-boards, collection: "boards:beds-east" }
            match: [place/id, /id]
            fields:
              title: { text: "{place/name}: {/title}" }
              lane: { always: to-do }
            """));
    await().atMost(LONGEST).until(() -> isAsked("bed-one") && isAsked("bed-two"));
    String unused = work("bed-one", "Prune the pear");
    String unusedToo = work("bed-two", "Tie the beans");
    arrives("beds-east", "Bed one: Prune the pear");
    arrives("beds-east", "Bed two: Tie the beans");
    JsonNode asked = api("/bridges/asked-beds/places");
    assertThat(asked.path("how").asText()).isEqualTo("all");
    assertThat(ids(asked.path("offered"))).contains("bed-three").doesNotContain("education");
  }

  private static boolean isAsked(String bed) {
    for (JsonNode poll : api("/polls")) {
      if (poll.path("collection").asText().equals("asked:" + bed)) {
        return !poll.path("askedAt").isNull();
      }
    }
    return false;
  }
}
