package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Files;
import java.util.Map;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Names of lanes and people that are read where they are kept, and kept fresh. */
class DirectoryIT extends AppTestBase {

  private static JsonNode look() throws Exception {
    var looked = send("POST", app("/api/systems/grounds-board/look"), "", Map.of());
    assertThat(looked.statusCode()).as(looked.body()).isEqualTo(200);
    return JSON.readTree(looked.body());
  }

  private static void rename(String lane, String name) throws Exception {
    form(BOARD, "/boards/paths-and-trees/lanes/" + lane, Map.of("name", name));
  }

  @AfterEach
  void asItWas() throws Exception {
    rename("reported", "Reported");
    look();
  }

  private static String laneShown() {
    return StreamSupport.stream(
            api("/bridges/hazard-to-grounds").path("fields").spliterator(), false)
        .filter(field -> field.path("field").asText().equals("lane"))
        .map(field -> field.path("source").toString())
        .findFirst()
        .orElseThrow();
  }

  @Test
  void laneThatIsRenamedOverThereIsCalledSoHereAndNamedWithTheRuleThatUsesIt() throws Exception {
    look();
    assertThat(laneShown()).contains("Reported");
    rename("reported", "Just come in");
    JsonNode system = look();
    assertThat(laneShown()).contains("Just come in");
    JsonNode finding = system.path("names").path(0);
    assertThat(finding.path("was").asText()).isEqualTo("Reported");
    assertThat(finding.path("name").asText()).isEqualTo("Just come in");
    assertThat(finding.path("uses").toString()).contains("rule Lane").contains("Hazard report");
    // The key is the same, so that what is carried goes where it went.
    String number = report(Map.of());
    settled(number, 1);
    assertThat(tasksOf(number).getFirst().path("lane").asText()).isEqualTo("reported");
  }

  @Test
  void keysInATableHaveTheirNamesBesideThem() throws Exception {
    look();
    String document = Files.readString(SETUP.resolve("bridges").resolve("pledge-follow-up.yaml"));
    var answer = putBridge("pledge-follow-up", document);
    assertThat(answer.statusCode()).as(answer.body()).isBetween(200, 204);
    JsonNode names = api("/tables/stewards/about").path("names").path(0);
    assertThat(names.path("column").asText()).isEqualTo("person");
    assertThat(names.at("/names/bu-22").asText()).isEqualTo("Tomás Abara");
  }

  @Test
  void keyThatIsInNoDirectoryIsWarnedOfWithWhatIsKnown() throws Exception {
    look();
    String document = Files.readString(SETUP.resolve("bridges").resolve("hazard-to-grounds.yaml"));
    putBridge(document.replace("lane: { always: reported }", "lane: { always: reportd }"));
    String number = report(Map.of());
    JsonNode trace = settled(number, 1);
    assertThat(story(trace).path("warnings").toString())
        .contains("“reportd” is none of the known choices");
  }

  @Test
  void namesThatCannotBeReadAreToldAndThoseOfBeforeStay() throws Exception {
    look();
    fault(BOARD.port(), "forbidden", "GET", "/api/people", 10);
    JsonNode system = look();
    assertThat(system.path("unreadNames").path("people").asText()).contains("Grounds Board");
    assertThat(laneShown()).contains("Reported");
    fault(BOARD.port(), "forbidden", "GET", "/api/people", 0);
  }

  @Test
  void fieldNamesADirectoryThatIsDescribed() throws Exception {
    String document = Files.readString(SETUP.resolve("systems").resolve("grounds-board.yaml"));
    var refused =
        send(
            "POST",
            app("/api/connect/descriptions"),
            JSON.createObjectNode()
                .put("document", document.replace("names-from: people", "names-from: peple"))
                .toString(),
            Map.of("Content-Type", "application/json"));
    assertThat(refused.body()).contains("no directory is called “peple”; did you mean “people”?");
  }
}
