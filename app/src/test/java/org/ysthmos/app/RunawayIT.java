package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.ysthmos.app.bridge.Bridges;
import org.ysthmos.app.system.Systems;
import org.ysthmos.app.who.By;

/** Two boards that feed each other: bounded, explained and taken back. */
class RunawayIT extends AppTestBase {

  private static final Duration LONG = Duration.ofSeconds(40);
  private static final int CEILING = 12;
  private static final List<String> BOTH = List.of("yard-north-to-south", "yard-south-to-north");

  @Autowired private Bridges bridges;
  @Autowired private Systems systems;

  @AfterEach
  void atRest() {
    for (String id : BOTH) {
      bridges.hold(id, "The test is over", By.PERSON);
    }
  }

  private static List<JsonNode> tasks(String yard) throws Exception {
    // The board counts the calls of all who ask it; a look of the test takes none from the bridges.
    BOARD.forgetCalls();
    JsonNode page = board("GET", "/api/boards/" + yard + "/tasks", "");
    return StreamSupport.stream(page.path("items").spliterator(), false).toList();
  }

  private static void delete(String task) throws Exception {
    String address = "http://localhost:%d/api/tasks/%s".formatted(BOARD.port(), task);
    assertThat(
            send("DELETE", address, "", Map.of("Authorization", "Bearer " + BOARD_TOKEN))
                .statusCode())
        .isBetween(200, 204);
  }

  private static Optional<JsonNode> incident() {
    return StreamSupport.stream(api("/incidents").path("open").spliterator(), false)
        .filter(one -> BOTH.contains(one.path("heldBridge").asText()))
        .findFirst();
  }

  private static JsonNode ask(String method, String path, String body) throws Exception {
    HttpResponse<String> answer =
        send(method, app("/api" + path), body, Map.of("Content-Type", "application/json"));
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
    return JSON.readTree(answer.body().isEmpty() ? "{}" : answer.body());
  }

  private void turns(String id, String from, String to) {
    bridges.put(
        """
        bridge: %s
        name: %s
        purpose: To be stopped
        from: { system: grounds-board, collection: %s, event: [created], own-writes: true }
        to: { system: grounds-board, collection: %s }
        match: [/task/id]
        fields:
          title: /task/title
          lane: { always: to-do }
        """
            .formatted(id, id, from, to),
        By.PERSON);
  }

  private static boolean isHeld(String id) {
    return !api("/bridges/" + id).at("/bridge/heldSince").isNull();
  }

  private static List<JsonNode> traces(String bridge) {
    JsonNode page = api("/traces?bridge=" + bridge);
    return StreamSupport.stream(page.path("traces").spliterator(), false).toList();
  }

  /** A bridge that states nothing of it never acts on what came of its own doing. */
  @Test
  void isHeldWhenItsOwnDoingComesBackAndSaysByWhichWay() throws Exception {
    turns("turn-north", "yard-north", "yard-south");
    turns("turn-south", "yard-south", "yard-north");
    board("POST", "/api/boards/yard-north/tasks", "{\"title\":\"Turn\",\"lane\":\"to-do\"}");

    await().atMost(LONG).until(() -> isHeld("turn-north"));
    assertThat(api("/bridges/turn-north").at("/bridge/heldBecause").asText())
        .isEqualTo(
            "What it did came back to it: “turn-north” → “turn-south” → “turn-north”. It acts on"
                + " its own doing never");
    assertThat(tasks("yard-south")).hasSize(1);
    assertThat(tasks("yard-north")).hasSize(2);
    JsonNode caused = traces("turn-south").getFirst();
    JsonNode chain = api("/traces/" + caused.path("id").asText()).path("chain");
    assertThat(chain.path("before").findValuesAsText("bridgeName")).containsExactly("turn-north");
    String before = chain.at("/before/0/id").asText();
    assertThat(api("/traces/" + before).at("/chain/caused").findValuesAsText("id"))
        .containsExactly(caused.path("id").asText());
    await()
        .atMost(LONG)
        .until(
            () ->
                api("/incidents")
                    .path("open")
                    .findValuesAsText("heldBridge")
                    .contains("turn-north"));

    // A person lets it go: that is one turn, and the next is stopped at the other bridge.
    bridges.release("turn-north", By.PERSON);
    await().atMost(LONG).until(() -> isHeld("turn-south"));
    assertThat(tasks("yard-south")).hasSize(2);
    assertThat(tasks("yard-north")).hasSize(2);
    for (String yard : List.of("yard-north", "yard-south")) {
      for (JsonNode task : tasks(yard)) {
        delete(task.path("id").asText());
      }
    }
    assertThat(tasks("yard-north")).isEmpty();
  }

  @Test
  void isHeldAtTheCeilingExplainedAndTakenBack() throws Exception {
    assertThat(api("/bridges/" + BOTH.getFirst()).at("/bridge/heldBy").asText()).isEqualTo("setup");
    assertThat(api("/watch").path("bridges").toString()).doesNotContain("yard-north");
    assertThat(incident()).isEmpty();

    ask("POST", "/practice/runaway", "");
    await().atMost(LONG).until(() -> incident().isPresent());
    JsonNode incident = incident().orElseThrow();
    JsonNode story = api("/incidents/" + incident.path("id").asText());
    assertThat(story.at("/findings/0/headline").asText())
        .contains("reacts to what it makes itself");
    assertThat(story.at("/findings/0/speaksFor").toString())
        .contains("North yard of Grounds Board → ", "South yard of Grounds Board");
    assertThat(incident.path("bridges").findValuesAsText("id"))
        .containsExactlyInAnyOrderElementsOf(BOTH);
    // What was decided before it held itself is still on its way.
    await()
        .atMost(LONG)
        .until(() -> tasks("yard-north").size() + tasks("yard-south").size() == 2 * CEILING + 1);
    List<JsonNode> north = tasks("yard-north");
    List<JsonNode> south = tasks("yard-south");
    assertThat(south).hasSizeLessThanOrEqualTo(CEILING);
    assertThat(north).hasSizeLessThanOrEqualTo(CEILING + 1);

    JsonNode list =
        ask("POST", "/recalls", "{\"incident\":%s}".formatted(incident.path("id").asText()));
    String path = "/recalls/" + list.path("id").asText();
    await().atMost(LONG).until(() -> api(path).at("/counts/unseen").asInt() == 0);
    int all = api(path).at("/counts/chosen").asInt();
    assertThat(all).isEqualTo(north.size() + south.size() - 1);
    // Its calls of a minute are used up by now; another address makes a new limiter.
    BOARD.forgetCalls();
    systems.connect("grounds-board", "address", URI.create("http://localhost:" + BOARD.port()));
    ask("POST", path + "/start", "{\"records\":%d,\"evenIfChanged\":false}".formatted(all));
    await().atMost(LONG).until(() -> api(path).path("state").asText().equals("ENDED"));
    assertThat(api(path).at("/counts/takenBack").asInt()).isEqualTo(all);
    assertThat(tasks("yard-south")).isEmpty();
    // The one that a person made stays.
    assertThat(tasks("yard-north")).hasSize(1);
    assertThat(api("/incidents/" + incident.path("id").asText()).path("lines").toString())
        .contains("Taking back %d of what was made".formatted(all))
        .contains("Taken back: %d".formatted(all));
  }
}
