package org.ysthmos.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;

/** What describes an installation, held against a folder and made as it says. */
class InstallationIT extends AppTestBase {

  private static final String BRIDGE = "bridges/hazard-to-grounds.yaml";
  private static final String OWNERS = "tables/fault-owners.yaml";

  private static final String EXAMPLES = "bridges/hazard-to-grounds.examples.ndjson";
  private static final String TITLE = "text: \"{report";

  @Autowired private JdbcTemplate jdbc;

  private ObjectNode before = JSON.createObjectNode();

  /** Whatever other tests made of it, it begins as the setup has it. */
  @BeforeEach
  void asTheSetup() throws Exception {
    before = documents();
    for (String path : List.of(BRIDGE, EXAMPLES, OWNERS)) {
      before.put(path, Files.readString(SETUP.resolve(path)));
    }
    JsonNode plan = plan(before);
    assertThat(plan.path("problems")).isEmpty();
    assertThat(apply(before, plan.path("id").asText()).statusCode()).isEqualTo(200);
    before = documents();
  }

  @AfterEach
  void asBefore() throws Exception {
    JsonNode plan = plan(before);
    assertThat(plan.path("problems")).isEmpty();
    assertThat(apply(before, plan.path("id").asText()).statusCode()).isEqualTo(200);
    assertThat(differing(before)).isEmpty();
  }

  private static ObjectNode documents() {
    return (ObjectNode) api("/installation").path("documents");
  }

  /** The paths of what is here otherwise than wanted. */
  private static List<String> differing(ObjectNode wanted) {
    ObjectNode here = documents();
    return Stream.concat(here.properties().stream(), wanted.properties().stream())
        .map(Map.Entry::getKey)
        .distinct()
        .filter(path -> !here.path(path).equals(wanted.path(path)))
        .map(path -> path + ":\n" + here.path(path).asText())
        .toList();
  }

  private static HttpResponse<String> call(String path, ObjectNode body) throws Exception {
    return send(
        "POST",
        app("/api/installation" + path),
        body.toString(),
        Map.of("Content-Type", "application/json"));
  }

  private static JsonNode plan(ObjectNode documents) throws Exception {
    HttpResponse<String> answer =
        call("/plan", JSON.createObjectNode().set("documents", documents));
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  private static HttpResponse<String> apply(ObjectNode documents, String plan) throws Exception {
    ObjectNode wish = JSON.createObjectNode().put("plan", plan);
    return call("/apply", wish.set("documents", documents));
  }

  private static List<String> lines(JsonNode plan) {
    return StreamSupport.stream(plan.path("lines").spliterator(), false)
        .map(line -> line.path("does").asText() + " " + line.path("path").asText())
        .toList();
  }

  private static String problems(JsonNode plan) {
    return plan.path("problems").toString();
  }

  /** With another text in one document. */
  private ObjectNode with(String path, String found, String instead) {
    ObjectNode folder = before.deepCopy();
    String text = folder.path(path).asText();
    assertThat(text).contains(found);
    return folder.put(path, text.replace(found, instead));
  }

  @Test
  void whatIsExportedIsAppliedWithoutAnyDifferenceAndHoldsNoSecret() throws Exception {
    JsonNode plan = plan(before);
    assertThat(lines(plan)).isEmpty();
    assertThat(problems(plan)).isEqualTo("[]");
    assertThat(before.properties())
        .extracting(Map.Entry::getKey)
        .contains(BRIDGE, OWNERS, "systems/visitor-desk.yaml", "calendars/garden.yaml", EXAMPLES)
        .doesNotContain("bridges/yard-north-to-south.yaml");
    assertThat(before.toString()).doesNotContain("whsec_");
  }

  /** The plan says how results would differ; what is done is just that. */
  @Test
  void changedRulesAndRowsAreShownWithTheirResultsThenDoneTogether() throws Exception {
    String number = report(Map.of("place", "Palm house", "danger", "6"));
    var unused = settled(number, 1);
    ObjectNode folder = with(BRIDGE, TITLE, "text: \"Danger! {report");
    folder.put(OWNERS, folder.path(OWNERS).asText().replace("owner: glass@", "owner: panes@"));
    folder.remove(EXAMPLES);
    JsonNode plan = plan(folder);
    assertThat(lines(plan))
        .containsExactly("CHANGED " + OWNERS, "CHANGED " + BRIDGE, "REMOVED " + EXAMPLES);
    assertThat(plan.path("lines").toString()).contains("Danger!").contains("changed");
    assertThat(plan.path("results").findValuesAsText("bridge"))
        .containsExactly("climate-job", "hazard-to-grounds");
    JsonNode result = plan.at("/results/1");
    assertThat(result.path("differing").asInt()).isPositive();
    assertThat(result.path("differences").toString()).contains("title otherwise in");
    // Nothing is done by looking.
    assertThat(differing(before)).isEmpty();

    assertThat(apply(folder, plan.path("id").asText()).statusCode()).isEqualTo(200);
    assertThat(differing(folder)).isEmpty();
    assertThat(lines(plan(folder))).isEmpty();
    String next = report(Map.of("place", "Palm house", "danger", "6"));
    assertThat(settled(next, 1).toString()).contains("Danger!");
  }

  @Test
  void anotherPlanThanTheOneThatWasSeenIsNotDone() throws Exception {
    ObjectNode folder = with(BRIDGE, TITLE, "text: \"Danger! {report");
    String seen = plan(folder).path("id").asText();
    ObjectNode other = with(BRIDGE, TITLE, "text: \"Beware! {report");
    assertThat(apply(other, seen).statusCode()).isEqualTo(409);
    assertThat(differing(before)).isEmpty();
  }

  @Test
  void whatIsMadeAndRemovedGoesTogetherAndBack() throws Exception {
    ObjectNode folder = before.deepCopy();
    folder.put("tables/moods.yaml", "table: moods\nname: Moods\nkeys: [k]\nvalues: { v: text }\n");
    folder.put(
        "register.yaml",
        "bridges:\n  hazard-to-grounds:\n    owner: Ada Lind\n    judged: needs-work\n");
    JsonNode plan = plan(folder);
    assertThat(lines(plan)).contains("MADE tables/moods.yaml");
    assertThat(apply(folder, plan.path("id").asText()).statusCode()).isEqualTo(200);
    assertThat(api("/register").toString()).contains("Ada Lind").contains("NEEDS_WORK");
    // It is written in one way, whoever wrote it how.
    assertThat(documents().path("tables/moods.yaml").asText())
        .startsWith("table: moods\nname: Moods");

    ObjectNode without = documents();
    without.remove("tables/moods.yaml");
    JsonNode back = plan(without);
    assertThat(lines(back)).containsExactly("REMOVED tables/moods.yaml");
    assertThat(apply(without, back.path("id").asText()).statusCode()).isEqualTo(200);
    assertThat(documents().has("tables/moods.yaml")).isFalse();
  }

  @Test
  void plannedTestsAreExportedAndWhatCameOfThemStays() throws Exception {
    JsonNode planned =
        tests(
            "",
            """
            {"what":"A report of danger 9","how":"BY_HAND","owner":"","everyDays":30,"rule":null,
             "firstOn":"2026-01-05","basedOn":0}
            """);
    String id = planned.at("/0/id").asText();
    var unused = tests("/" + id + "/results", "{\"passed\":true,\"words\":\"Went well\"}");
    String exported =
        """
              - what: A report of danger 9
                every: P30D
                from: 2026-01-05
        """;
    ObjectNode folder = documents();
    String register = folder.path("register.yaml").asText();
    assertThat(register).contains("  hazard-to-grounds:").contains(exported.indent(-2));

    folder.put(
        "register.yaml",
        register.replace("P30D", "P60D")
            + """
                  - what: All examples
                    by: pinned-examples
                    owner: Ada Lind
                    rule: the first Monday of each month
                    from: 2026-02-01
            """
                .indent(-2));
    JsonNode plan = plan(folder);
    assertThat(problems(plan)).isEqualTo("[]");
    assertThat(lines(plan)).containsExactly("CHANGED register.yaml");
    assertThat(plan.path("lines").toString()).contains("every=P30D", "every=P60D", "All examples");
    assertThat(apply(folder, plan.path("id").asText()).statusCode()).isEqualTo(200);
    assertThat(differing(folder)).isEmpty();
    JsonNode tests = api("/bridges/hazard-to-grounds/tests");
    assertThat(tests.findValuesAsText("what"))
        .containsExactly("A report of danger 9", "All examples");
    assertThat(tests.at("/0/id").asText()).isEqualTo(id);
    assertThat(tests.at("/0/results/0/words").asText()).isEqualTo("Went well");
    assertThat(tests.at("/1/how").asText()).isEqualTo("EXAMPLES");
    assertThat(tests.at("/1/dueOn").asText()).isEqualTo("2026-02-02");

    JsonNode back = plan(before);
    assertThat(apply(before, back.path("id").asText()).statusCode()).isEqualTo(200);
    assertThat(api("/bridges/hazard-to-grounds/tests")).isEmpty();
    assertThat(api("/bridges/hazard-to-grounds/tests/ended").toString()).contains("Went well");
  }

  private static JsonNode tests(String path, String body) throws Exception {
    HttpResponse<String> answer =
        send(
            "POST",
            app("/api/bridges/hazard-to-grounds/tests" + path),
            body,
            Map.of("Content-Type", "application/json"));
    assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
    return JSON.readTree(answer.body());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          every: P1M, from: 2026-01-05                     | no number of days, such as P30D
          every: P0D, from: 2026-01-05                     | 1 to 3,660 days
          every: P30D, from: Monday                        | no day, such as 2026-10-05
          every: P30D, rule: every Monday, from: 2026-01-05 | say how often
          rule: now and then, from: 2026-01-05             | now and then
          by: Ada Lind, every: P30D, from: 2026-01-05      | pinned-examples, or left out
          """)
  void testThatCannotBePlannedSoIsRefused(String said, String refused) throws Exception {
    ObjectNode folder = before.deepCopy();
    folder.put(
        "register.yaml",
        "bridges: { hazard-to-grounds: { tests: [{ what: All, %s }] } }".formatted(said));
    assertThat(problems(plan(folder))).contains("register.yaml", refused);
  }

  @Test
  void whatCannotBeDoneIsNamedByItsFileAndNothingIsDone() throws Exception {
    ObjectNode folder = before.deepCopy();
    folder.put(BRIDGE, "bridge: hazard-to-grounds\nnonsense: yes\n");
    assertThat(problems(plan(folder))).contains(BRIDGE, "nonsense");

    ObjectNode called = before.deepCopy();
    called.set("tables/other.yaml", called.path(OWNERS));
    assertThat(problems(plan(called))).contains("tables/other.yaml", "fault-owners");

    ObjectNode ofNone = before.deepCopy();
    ofNone.put("register.yaml", "bridges: { no-such: { owner: Ada Lind } }");
    assertThat(problems(plan(ofNone)))
        .contains("register.yaml", "the folder has no bridge no-such");

    ObjectNode unused = before.deepCopy();
    unused.remove(OWNERS);
    JsonNode needed = plan(unused);
    assertThat(problems(needed)).contains("bridges/climate-job.yaml", "fault-owners");
    HttpResponse<String> refused = apply(unused, needed.path("id").asText());
    assertThat(refused.statusCode()).isEqualTo(422);

    ObjectNode atWork = before.deepCopy();
    atWork.remove("bridges/pledge-follow-up.yaml");
    assertThat(problems(plan(atWork))).contains("pledge-follow-up", "hold it first");

    ObjectNode broken = with(BRIDGE, TITLE, "text: \"Danger! {report");
    assertThat(problems(plan(broken))).contains("pinned examples do not hold");
    assertThat(differing(before)).isEmpty();
  }

  /** A table that the database refuses in the middle leaves all as it was, in memory too. */
  @Test
  void whatBreaksInTheMiddleIsUndoneAsAWhole() throws Exception {
    ObjectNode folder = with(OWNERS, "owner: glass@", "owner: panes@");
    folder.put("tables/moods.yaml", "table: moods\nname: Moods\nkeys: [k]\nvalues: { v: text }\n");
    JsonNode plan = plan(folder);
    assertThat(lines(plan)).containsExactly("CHANGED " + OWNERS, "MADE tables/moods.yaml");
    int changes = api("/tables/fault-owners/about").path("changes").size();
    jdbc.execute("ALTER TABLE reference_table ADD CONSTRAINT no_moods CHECK (id <> 'moods')");
    try {
      assertThat(apply(folder, plan.path("id").asText()).statusCode()).isGreaterThanOrEqualTo(400);
    } finally {
      jdbc.execute("ALTER TABLE reference_table DROP CONSTRAINT no_moods");
    }
    assertThat(differing(before)).isEmpty();
    assertThat(api("/tables/fault-owners/about").path("changes")).hasSize(changes);
  }
}
