package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

/** What hangs on what, as the API tells it of the bridges of the demo. */
class UsesIT extends AppTestBase {

  private static final String DANGER = "/answers/danger";

  private static JsonNode uses(String query) {
    return api("/uses?" + query).path("bridges");
  }

  private static List<String> bridges(JsonNode lines) {
    return lines.valueStream().map(line -> line.path("bridge").asText()).toList();
  }

  /** What a bridge does, and where, for example {@code READS Priority}. */
  private static List<String> deeds(JsonNode lines, String bridge) {
    return lines
        .valueStream()
        .filter(line -> line.path("bridge").asText().equals(bridge))
        .flatMap(line -> line.path("places").valueStream())
        .map(place -> place.path("how").asText() + " " + place.path("words").asText())
        .toList();
  }

  @Test
  void systemsCollectionsAndFieldsSayWhoUsesThem() {
    JsonNode desk = uses("kind=SYSTEM&system=visitor-desk");
    assertThat(bridges(desk)).containsExactly("hazard-to-grounds");
    assertThat(deeds(desk, "hazard-to-grounds"))
        .containsExactly("HEARS what it hears", "LOOKS_UP the lookup report");
    JsonNode jobs = uses("kind=COLLECTION&system=works-ledger&collection=jobs");
    assertThat(deeds(jobs, "works-both-ways"))
        .containsExactly(
            "HEARS what it keeps alike at Works Ledger",
            "WRITES what it keeps alike at Works Ledger");
    JsonNode danger = uses("kind=FIELD&system=visitor-desk&collection=hazard-reports&id=" + DANGER);
    assertThat(deeds(danger, "hazard-to-grounds"))
        .containsExactly("READS only when", "READS Priority");
    assertThat(uses("kind=FIELD&system=visitor-desk&collection=hazard-reports&id=/none")).isEmpty();
  }

  @Test
  void tablesCalendarsBridgesSecretsAndPeopleDo() {
    assertThat(bridges(uses("kind=TABLE&id=works-people"))).containsExactly("works-both-ways");
    assertThat(bridges(uses("kind=CALENDAR&id=garden"))).isNotEmpty();
    assertThat(bridges(uses("kind=SECRET&id=visitor-desk-token")))
        .containsExactly("hazard-to-grounds");
    assertThat(deeds(uses("kind=PERSON&id=paths%20crew"), "hazard-to-grounds"))
        .containsExactly("WRITES rule Given to");
    assertThat(uses("kind=PERSON&id=%20")).isEmpty();
    assertThat(
            new TreeSet<>(
                api("/uses/things").path("secrets").valueStream().map(JsonNode::asText).toList()))
        .contains("visitor-desk-token", "visitor-desk-hook");
  }

  @Test
  void whoeverIsAskedAboutABridgeIsAPersonItHangsOn() throws Exception {
    ObjectNode card = JSON.createObjectNode().put("owner", "Ada Quist").put("standIn", "");
    card.put("department", "").putNull("judged");
    int revision =
        api("/register")
            .path("rows")
            .valueStream()
            .filter(row -> row.path("id").asText().equals("partner-call"))
            .mapToInt(row -> row.path("revision").asInt())
            .sum();
    assertThat(
            call("PUT", "/api/register/bridges/partner-call", card.put("basedOn", revision))
                .statusCode())
        .isEqualTo(200);
    assertThat(deeds(uses("kind=PERSON&id=quist"), "partner-call"))
        .containsExactly("ASKS as its owner");
    JsonNode leaving = api("/uses/leaving?system=works-ledger");
    JsonNode partner =
        leaving
            .path("bridges")
            .valueStream()
            .filter(line -> line.path("bridge").asText().equals("partner-call"))
            .findFirst()
            .orElseThrow();
    assertThat(partner.path("owner").asText()).isEqualTo("Ada Quist");
    assertThat(partner.at("/needs/0/what").asText())
        .isEqualTo("a place where a job can be made and changed");
    assertThat(partner.at("/needs/0/fields").toString()).contains("without which none is made");
  }

  private static HttpResponse<String> call(String method, String path, JsonNode body)
      throws Exception {
    return send(method, app(path), body.toString(), Map.of("Content-Type", "application/json"));
  }

  private static ObjectNode renaming(String field, String to) {
    return JSON.createObjectNode()
        .put("system", "visitor-desk")
        .put("collection", "hazard-reports")
        .put("field", field)
        .put("to", to);
  }

  @Test
  void aFieldThatIsCalledOtherwiseGivesDraftsOfAllThatNameIt() throws Exception {
    String drafts = "/api/uses/renaming/drafts";
    assertThat(call("POST", drafts, renaming(DANGER, "risk")).body())
        .contains("Write another address");
    assertThat(call("POST", drafts, renaming("/none", "/risk")).statusCode()).isEqualTo(404);

    var seen = call("POST", "/api/uses/renaming", renaming(DANGER, "/answers/risk"));
    assertThat(JSON.readTree(seen.body()).at("/0/places").toString())
        .isEqualTo("[\"only when\",\"Priority\"]");
    String desk = "/desk/drafts/hazard-to-grounds";
    assertThat(api(desk).path("revision").asInt()).isZero();

    var kept = call("POST", drafts, renaming(DANGER, "/answers/risk"));
    assertThat(kept.statusCode()).as(kept.body()).isEqualTo(200);
    assertThat(api(desk).path("document").toString())
        .contains("report/answers/risk")
        .doesNotContain(DANGER);
    // What somebody is at work on is not written over.
    var again = call("POST", drafts, renaming(DANGER, "/answers/harm"));
    assertThat(again.statusCode()).isEqualTo(409);
    assertThat(again.body()).contains("Nothing was kept. Hazard report: somebody is at work");
    assertThat(send("DELETE", app("/api" + desk), "", Map.of()).statusCode()).isEqualTo(204);
  }
}
