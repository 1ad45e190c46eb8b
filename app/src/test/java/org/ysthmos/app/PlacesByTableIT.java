package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.system.Systems;

/**
 * One bridge keeps many places alike: which project goes to which board is said by a reference
 * table, in which one more row is one more place.
 */
class PlacesByTableIT extends BothWaysTestBase {

  private static final String MANY = "projects-to-boards";

  @Autowired private Systems systems;
  @Autowired private Bridges bridges;

  @BeforeEach
  void oneBridgeForAllBoards() throws Exception {
    ok(
        send(
            "POST",
            "http://127.0.0.1:" + BOARD.port() + "/api/hooks",
            "{\"address\":\"%s\",\"secret\":\"%s\"}"
                .formatted(app("/hooks/all-boards/tasks"), SECRET),
            Map.of("Content-Type", "application/json", "Authorization", "Bearer " + BOARD_TOKEN)));
    systems.put(
        """
        system: all-boards
        name: All boards
        address: http://127.0.0.1:%d
        sign-in: { bearer: { secret: grounds-board-token } }
        problem: { message: /error, field: /field }
        collections:
          tasks:
            name: Tasks of all boards
            record: task
            title: title
            fields:
              title: { name: Title, type: text, required: true }
              lane: { name: Lane, type: choice, required: true, names: { to-do: To do, done: Done } }
              board: { name: Board, type: text, required: true }
            event-fields:
              /task/id: { name: number, type: text, required: true }
              /task/board: { name: board, type: text, required: true }
            find:
              - { by: [id], call: "GET /api/tasks/{id}" }
            created-id: /id
            create:
              - call: "POST /api/boards/{board}/tasks"
                fields: [title, lane]
                key-field: externalId
                answers-whole: true
            change:
              # Where a task stands is in the address, and is known of one that was never written.
              - call: "PATCH /api/tasks/{id}?board={board}"
                fields: [title, lane]
                answers-whole: true
            push:
              verify: { standard-webhooks: { secret: grounds-board-hook } }
              record: /task/id
              kind: /type
              kinds: { task.created: created, task.changed: changed }
              version: /task/revision
              whole: /task
        """
            .formatted(BOARD.port()));
    rows("greenhouse,beds-east\r\n");
    bridges.refresh();
    ok(
        putBridge(
            MANY,
            """
            bridge: projects-to-boards
            name: Projects to boards
            purpose: Each project has a board
            between:
              left:
                system: all-boards
                collection: tasks
                event: [created, changed]
                when: { all: [ { value: /board, contains: beds- } ] }
              right:
                system: works-ledger
                collection: jobs
                event: [created, changed]
                when: { all: [ { value: /labels, contains: project } ] }
            fields:
              title: { left: title, right: title }
              state:
                left: lane
                right: status
                to-right: { values: { to-do: open, done: done } }
                to-left: { values: { open: to-do, done: done } }
              place:
                left: board
                right: askedBy
                direction: both
                to-left: { steps: [ by-table: places ] }
                to-right: { steps: [ key-by-table: places ] }
            """));
  }

  private static HttpResponse<String> ok(HttpResponse<String> answer) {
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
    return answer;
  }

  private static void rows(String rows) throws Exception {
    long seen = api("/tables/places/about").path("basedOn").asLong();
    ObjectNode wish =
        (ObjectNode)
            JSON.readTree(
                """
            {"name": "Places", "keys": ["project"], "values": [{"name": "board", "type": "text"}],
             "ignoreCase": "", "notFound": "fail", "use": ""}
            """);
    wish.put("csv", "project,board\r\n" + rows).put("basedOn", seen);
    ok(
        send(
            "PUT",
            app("/api/tables/places"),
            wish.toString(),
            Map.of("Content-Type", "application/json")));
  }

  private static JsonNode newest() {
    return api("/traces?bridge=" + MANY).path("traces").path(0);
  }

  private static void settled() throws Exception {
    quiet();
    await()
        .atMost(Duration.ofSeconds(20))
        .until(
            () -> {
              for (JsonNode one : api("/traces?bridge=" + MANY).path("traces")) {
                if (one.path("verdict").asText().equals("WAITING")) {
                  return false;
                }
              }
              return true;
            });
  }

  private static String project(String title, String project) throws Exception {
    return makeJob(
            "{\"title\":\"%s\",\"labels\":[\"project\"],\"askedBy\":\"%s\"}"
                .formatted(title, project))
        .path("id")
        .asText();
  }

  private static String other(String id, String begins) {
    for (JsonNode pair : api("/kept-pairs?id=" + id)) {
      for (String side : new String[] {"left", "right"}) {
        String record = pair.path(side).path("record").asText();
        if (record.startsWith(begins)) {
          return record;
        }
      }
    }
    throw new AssertionError(id + " is in no pair: " + newest());
  }

  @Test
  void eachProjectGoesToItsBoardAndOneMoreRowIsOneMorePlace() throws Exception {
    String north = project("Wash the panes", "greenhouse");
    settled();
    assertThat(task(other(north, "gb-")).path("board").asText()).isEqualTo("beds-east");

    String south = project("Cut the stakes", "coppice");
    settled();
    assertThat(newest().path("verdict").asText()).isEqualTo("FAILED");
    assertThat(newest().path("reason").asText()).contains("“coppice” is not in the table Places");
    rows("greenhouse,beds-east\r\ncoppice,beds-west\r\n");
    resend(newest());
    settled();
    String task = other(south, "gb-");
    assertThat(task(task).path("board").asText()).isEqualTo("beds-west");

    changeTask(task, "{\"lane\":\"done\"}");
    await()
        .atMost(Duration.ofSeconds(20))
        .until(() -> job(south).path("status").asText().equals("done"));
  }

  @Test
  void taskOfAnyBoardBecomesAJobOfItsProjectAndIsChangedWhereItStands() throws Exception {
    rows("greenhouse,beds-east\r\ncoppice,beds-west\r\n");
    String task =
        board(
                "POST",
                "/api/boards/beds-west/tasks",
                "{\"title\":\"Bind the faggots\",\"lane\":\"to-do\"}")
            .path("id")
            .asText();
    await().atMost(Duration.ofSeconds(20)).until(() -> !api("/kept-pairs?id=" + task).isEmpty());
    settled();
    String job = other(task, "wl-");
    assertThat(job(job).path("askedBy").asText()).isEqualTo("coppice");

    changeJob(job, "{\"title\":\"Bind the bean poles\"}");
    settled();
    assertThat(task(task).path("title").asText()).isEqualTo("Bind the bean poles");
    assertThat(story(newestWrite()).toString()).contains("?board=beds-west");

    // A move between places is no change of a task: it is named, and nothing is lost.
    changeJob(job, "{\"askedBy\":\"greenhouse\"}");
    settled();
    assertThat(newest().path("verdict").asText()).isEqualTo("FAILED");
    assertThat(newest().path("reason").asText()).contains("cannot be changed from “beds-west”");
  }

  private static JsonNode newestWrite() {
    for (JsonNode one : api("/traces?bridge=" + MANY).path("traces")) {
      if (one.path("verdict").asText().equals("UPDATE")) {
        return one;
      }
    }
    throw new AssertionError("nothing was written");
  }
}
