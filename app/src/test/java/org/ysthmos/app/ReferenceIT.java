package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;

/** Tables and calendars that are made and looked after without any file. */
class ReferenceIT extends AppTestBase {

  private static HttpResponse<String> put(String path, JsonNode body) throws Exception {
    return send(
        "PUT", app("/api" + path), body.toString(), Map.of("Content-Type", "application/json"));
  }

  private static ObjectNode table(String rows, long basedOn) throws Exception {
    ObjectNode wish =
        (ObjectNode)
            JSON.readTree(
                """
                {"name": "Houses", "keys": ["house"], "values": [{"name": "crew", "type": "person"}],
                 "ignoreCase": "true", "notFound": "use", "use": "bu-11"}
                """);
    return wish.put("csv", "house,crew\r\n" + rows).put("basedOn", basedOn);
  }

  private static JsonNode ok(HttpResponse<String> answer) throws Exception {
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
    return JSON.readTree(answer.body().isEmpty() ? "{}" : answer.body());
  }

  private static String what(JsonNode about, int place) {
    return about.path("changes").path(place).path("what").asText();
  }

  private static String hazardsBy(String table) throws Exception {
    String document = Files.readString(SETUP.resolve("bridges").resolve("hazard-to-grounds.yaml"));
    return document.replace(
        "assignees: { always: [bu-11] }",
        "assignees: { value: report/answers/place, steps: [by-table: " + table + ", in-list] }");
  }

  @Test
  void tableIsMadeUsedChangedWithItsHistoryAndTakenAway() throws Exception {
    JsonNode made = ok(put("/tables/houses", table("Palm walk,bu-14\r\n", 0)));
    assertThat(what(made, 0)).isEqualTo("made");
    assertThat(made.path("users")).isEmpty();
    assertThat(putBridge(hazardsBy("houses")).statusCode()).isBetween(200, 204);
    assertThat(api("/tables/houses/about").at("/users/0/name").asText()).isEqualTo("Hazard report");
    String number = report(Map.of("place", "Palm walk"));
    settled(number, 1);
    assertThat(tasksOf(number).getFirst().path("assignees").toString()).isEqualTo("[\"bu-14\"]");

    long seen = made.path("basedOn").asLong();
    JsonNode more =
        ok(put("/tables/houses", table("Palm walk,bu-12\r\nFern gully,bu-14\r\n", seen)));
    assertThat(what(more, 0)).isEqualTo("1 row added; 1 row changed");
    String then =
        api("/tables/houses/changes/" + more.path("changes").path(1).path("seq").asText())
            .path("csv")
            .asText();
    assertThat(then).isEqualTo("house,crew\r\nPalm walk,bu-14\r\n");

    var stale = put("/tables/houses", table("Palm walk,bu-11\r\n", seen));
    assertThat(stale.statusCode()).isEqualTo(409);
    assertThat(stale.body()).contains("Somebody else changed the table");
    var used = send("DELETE", app("/api/tables/houses"), "", Map.of());
    assertThat(used.statusCode()).isEqualTo(409);
    assertThat(used.body()).contains("It is used by Hazard report");

    putBridge(Files.readString(SETUP.resolve("bridges").resolve("hazard-to-grounds.yaml")));
    ok(send("DELETE", app("/api/tables/houses"), "", Map.of()));
    assertThat(send("GET", app("/api/tables/houses"), "", Map.of()).statusCode()).isEqualTo(404);
  }

  @Test
  void changeThatALiveBridgeCouldNotBearIsRefusedAndKeepsNothing() throws Exception {
    JsonNode made = ok(put("/tables/beds", table("Palm walk,bu-14\r\n", 0)));
    putBridge(hazardsBy("beds"));
    ObjectNode other = table("", made.path("basedOn").asLong());
    other.withArray("values").removeAll().addObject().put("name", "crew").put("type", "day");
    other.put("notFound", "").put("csv", "house,crew\r\nPalm walk,2026-11-30\r\n");
    var refused = put("/tables/beds", other);
    assertThat(refused.statusCode()).isEqualTo(409);
    assertThat(refused.body()).contains("Hazard report").contains("Nothing was kept");
    assertThat(api("/tables/beds").at("/rows/0/1").asText()).isEqualTo("bu-14");
  }

  @Test
  void mistakesInRowsAreNamedWithTheirLine() throws Exception {
    var refused = put("/tables/walls", table("Palm walk,bu-14\r\n,bu-12\r\nPALM WALK,x\r\n", 0));
    assertThat(refused.statusCode()).isBetween(400, 422);
    assertThat(refused.body()).contains("a key is empty").contains("stands in line 2 already");
    assertThat(send("GET", app("/api/tables/walls"), "", Map.of()).statusCode()).isEqualTo(404);
  }

  @Test
  void calendarTakesHolidaysFromAFileAndSaysWhoUsesIt() throws Exception {
    String file =
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Harbour"
            + " day\r\nDTSTART;VALUE=DATE:20200803\r\nRRULE:FREQ=YEARLY\r\nEND:VEVENT\r\n"
            + "BEGIN:VEVENT\r\nUID:2\r\nDTSTART:20260803T090000Z\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
    var type = Map.of("Content-Type", "text/calendar");
    JsonNode read = ok(send("POST", app("/api/calendars/holidays"), file, type));
    assertThat(read.path("holidays")).hasSize(6);
    assertThat(read.at("/holidays/0/name").asText()).isEqualTo("Harbour day");
    assertThat(read.path("leftOut").asInt()).isEqualTo(1);
    assertThat(send("POST", app("/api/calendars/holidays"), "no file", type).statusCode())
        .isEqualTo(422);

    ObjectNode wish = JSON.createObjectNode().put("name", "Harbour").put("basedOn", 0);
    wish.putArray("weekdays").add("monday").add("tuesday");
    wish.set("holidays", read.path("holidays"));
    wish.putArray("closures")
        .addObject()
        .put("first", "2027-01-02")
        .put("last", "2027-01-05")
        .put("why", "repairs");
    JsonNode made = ok(put("/calendars/harbour", wish));
    assertThat(made.at("/calendar/holidays").asInt()).isEqualTo(6);
    assertThat(made.at("/calendar/lastYear").asInt()).isGreaterThan(2026);
    wish.put("basedOn", made.path("basedOn").asLong()).putArray("closures");
    assertThat(what(ok(put("/calendars/harbour", wish)), 0)).isEqualTo("1 closure taken out");
    wish.putArray("weekdays");
    assertThat(put("/calendars/harbour", wish).statusCode()).isEqualTo(409);
  }

  /** A calendar that live bridges count on is named before it runs out, with what of it does. */
  @Test
  void calendarIsNamedBeforeItRunsOut() throws Exception {
    ObjectNode garden = (ObjectNode) api("/calendars/garden");
    ObjectNode wish = JSON.createObjectNode().put("name", garden.at("/calendar/name").asText());
    for (String part : List.of("weekdays", "holidays", "closures", "basedOn")) {
      wish.set(part, garden.path(part));
    }
    wish.put("enteredUntil", garden.path("today").asText());
    JsonNode kept = ok(put("/calendars/garden", wish));
    assertThat(what(kept, 0)).isEqualTo("entered up to " + garden.path("today").asText());
    JsonNode ending = api("/watch").path("calendars");
    assertThat(ending.findValuesAsText("id")).containsExactly("garden");
    assertThat(ending.at("/0/part").asText()).isEqualTo("ALL");
    assertThat(ending.at("/0/last").asText()).isEqualTo(garden.path("today").asText());

    wish.putNull("enteredUntil").set("basedOn", kept.path("basedOn"));
    ok(put("/calendars/garden", wish));
    assertThat(api("/watch").path("calendars")).isEmpty();
  }

  @Test
  void calendarInUseIsNotTakenAway() throws Exception {

    assertThat(
            StreamSupport.stream(api("/calendars/garden").path("users").spliterator(), false)
                .map(user -> user.path("name").asText()))
        .contains("Climate ticket", "Exhibition");
    var used = send("DELETE", app("/api/calendars/garden"), "", Map.of());
    assertThat(used.statusCode()).isEqualTo(409);
  }

  @Test
  void bridgeIsRetiredWithWhatWaitsNamedAndComesBackWithAVersion() throws Exception {
    String path = "/api/bridges/hazard-to-grounds/";
    String number = report(Map.of());
    settled(number, 1);
    var unheld =
        send(
            "POST",
            app(path + "retirement"),
            "{\"because\":\"Closed\",\"events\":0}",
            Map.of("Content-Type", "application/json"));
    assertThat(unheld.statusCode()).isEqualTo(409);
    assertThat(unheld.body()).contains("Hold the bridge first");
    var json = Map.of("Content-Type", "application/json");
    ok(send("PUT", app(path + "hold"), "{\"because\":\"Closing\"}", json));
    String waits = report(Map.of());
    org.awaitility.Awaitility.await()
        .until(() -> api("/bridges/hazard-to-grounds/retirement").path("events").asInt() == 1);
    var more = send("POST", app(path + "retirement"), "{\"because\":\"x\",\"events\":0}", json);
    assertThat(more.statusCode()).isEqualTo(409);
    assertThat(more.body()).contains("1 event waits by now");
    ok(send("POST", app(path + "retirement"), "{\"because\":\"Board closed\",\"events\":1}", json));
    JsonNode passed = settled(waits, 1);
    assertThat(passed.path("verdict").asText()).isEqualTo("PASSED_BY");
    assertThat(passed.path("reason").asText()).contains("Its bridge was retired");
    assertThat(retired()).extracting(one -> one.path("because").asText()).contains("Board closed");
    assertThat(tracesOf(number)).hasSize(1);
    String silent = report(Map.of());

    putBridge(
        Files.readString(SETUP.resolve("bridges").resolve("hazard-to-grounds.yaml"))
            .replace("name: Hazard report", "name: Hazards"));
    assertThat(retired()).noneMatch(one -> one.path("id").asText().equals("hazard-to-grounds"));
    String heard = report(Map.of());
    assertThat(settled(heard, 1).path("verdict").asText()).isEqualTo("CREATE");
    assertThat(tracesOf(silent)).isEmpty();
  }

  private static JsonNode retired() {
    return api("/bridges/retired");
  }
}
