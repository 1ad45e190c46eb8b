package org.ysthmos.app.check;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The command as someone runs it in their own build: what it prints and how it ends. */
class CheckCommandTest {

  private static final Path DEMO = Path.of("..", "demo");
  private static final Path BRIDGE = DEMO.resolve("bridges/hazard-to-grounds.yaml");
  private static final Path EVENTS = DEMO.resolve("samples/hazard-reports.events.ndjson");
  private static final Path RECORDS = DEMO.resolve("samples/hazard-reports.records.ndjson");

  private final ByteArrayOutputStream out = new ByteArrayOutputStream();
  private final ByteArrayOutputStream err = new ByteArrayOutputStream();

  @TempDir private Path folder;

  private int run(Object... args) {
    List<String> words = new ArrayList<>();
    for (Object arg : args) {
      words.add(arg.toString());
    }
    return new CheckCommand(
            new PrintStream(out, true, StandardCharsets.UTF_8),
            new PrintStream(err, true, StandardCharsets.UTF_8))
        .run(words);
  }

  private String printed() {
    return out.toString(StandardCharsets.UTF_8);
  }

  private String complained() {
    return err.toString(StandardCharsets.UTF_8);
  }

  private int runDemo(Object... more) {
    List<Object> args = new ArrayList<>(List.of(BRIDGE, "--events", EVENTS, "--records", RECORDS));
    args.addAll(List.of(more));
    return run(args.toArray());
  }

  @Test
  void printsVerdictsValuesWarningsAndRemedies() {
    assertThat(runDemo()).isZero();
    assertThat(printed())
        .contains("1  create  vd-20401")
        .contains("due        2026-11-30T17:00:00Z")
        .contains("3  passed by  vd-20403")
        .contains("it passes only when how dangerous is at least 2; it was “1”")
        .contains("“yesterday” is no day written")
        .contains("→ Correct the date at its source")
        .contains("warning: title: shortened from 147 to 120 characters")
        .contains("6  unchanged  vd-20401")
        .contains("6 events: 3 create, 1 unchanged, 1 passed by, 1 failed");
  }

  /** Both tasks of a pair, in the order in which they were changed. */
  @Test
  void eventsOfBothSidesAreDecidedAsPairsAndPinned() throws Exception {
    Path events = folder.resolve("both.ndjson");
    Files.writeString(
        events,
        String.join(
            "\n",
            both("1", "works", "created", "gb-1", "'title': 'Oil it', 'lane': 'wanted'"),
            both("2", "jobs", "changed", "new-1", "'title': 'Oil it', 'status': 'done'"),
            both("3", "jobs", "created", "wl-9", "'title': 'Elsewhere', 'status': 'open'"),
            both("4", "visits", "created", "x", "'title': 'X'")));
    Path bridge = DEMO.resolve("bridges/works-both-ways.yaml");
    Path pins = folder.resolve("pins.ndjson");
    assertThat(run(bridge, "--events", events, "--pin", pins)).isZero();
    assertThat(printed())
        .contains("1  create  gb-1")
        .contains("status  open")
        .contains("2  update  new-1")
        .contains("lane   finished")
        .contains("3  passed by  wl-9")
        .contains("the bridge listens to grounds-board/works and works-ledger/jobs");
    out.reset();
    assertThat(run(bridge, "--examples", pins)).as(printed()).isZero();
    assertThat(printed()).contains("3 examples: 3 as expected, 0 not");
  }

  private static String both(
      String id, String collection, String kind, String record, String fields) {
    String system = collection.equals("works") ? "grounds-board" : "works-ledger";
    return """
        {"specversion":"1.0","id":"%s","source":"/%s/%s","type":"%s","subject":"%s",
         "time":"2026-11-24T10:00:00Z","data":{"id":"%s",%s}}
        """
        .formatted(id, system, collection, kind, record, record, fields.replace('\'', '"'))
        .replace("\n", "");
  }

  @Test
  void examplesThatHoldEndWellAndOneThatDoesNotEndsWithOne() throws Exception {
    Path pins = folder.resolve("pins.ndjson");
    assertThat(runDemo("--pin", pins)).isZero();
    assertThat(run(BRIDGE, "--examples", pins)).isZero();
    assertThat(printed()).contains("6 examples: 6 as expected, 0 not");

    Files.writeString(
        pins,
        Files.readString(pins)
            .replace("\"due\":\"2026-11-30T17:00:00Z\"", "\"due\":\"2026-12-01T17:00:00Z\""));
    assertThat(run(BRIDGE, "--examples", pins)).isEqualTo(1);
    assertThat(printed())
        .contains("The example “vd-20401 created” does not hold:")
        .contains("due: expected “2026-12-01T17:00:00Z”, is “2026-11-30T17:00:00Z”");
  }

  @Test
  void examplesOfTheDemoHold() {
    assertThat(run(BRIDGE)).isZero();
    assertThat(printed()).contains("as expected, 0 not");
  }

  @Test
  void printsJsonThatAProgramCanRead() throws Exception {
    assertThat(runDemo("--json")).isZero();
    List<JsonNode> lines = new ArrayList<>();
    for (String line : printed().lines().toList()) {
      lines.add(new ObjectMapper().readTree(line));
    }
    assertThat(lines.getFirst().path("bridge").asText()).isEqualTo("hazard-to-grounds");
    JsonNode first = lines.get(1).path("decision");
    assertThat(first.path("verdict").asText()).isEqualTo("create");
    assertThat(first.at("/tasks/0/fields/priority/number").asText()).isEqualTo("1");
  }

  @Test
  void everyProblemOfADocumentIsPrintedWithFileLineAndColumn() throws Exception {
    Path bridge = folder.resolve("bridge.yaml");
    Files.writeString(
        bridge,
        Files.readString(BRIDGE)
            .replace("report/answers/seenOn\n", "report/answers/seen\n")
            .replace("always: reported", "always: [reported]"));
    assertThat(run(bridge, "--setup", DEMO)).isEqualTo(2);
    assertThat(complained().lines().toList())
        .hasSize(2)
        .allSatisfy(line -> assertThat(line).matches(".*bridge\\.yaml:\\d+:\\d+: fields/.*"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      value = {
        "--event x;no option is called “--event”; did you mean “--events”?",
        "--events;--events needs a file",
        "--events nowhere.ndjson;there is no such file",
        "more.yaml;One bridge document is checked at a time"
      })
  void whatCannotBeUsedSaysSoInOneLine(String more, String says) {
    List<Object> args = new ArrayList<>(List.of(BRIDGE));
    args.addAll(List.of(more.split(" ", -1)));
    assertThat(run(args.toArray())).isEqualTo(2);
    assertThat(complained().strip()).contains(says).doesNotContain("\n");
  }

  @Test
  void wrongLineOfEventsIsNamedByItsNumber() throws Exception {
    Path events = folder.resolve("events.ndjson");
    Files.writeString(
        events, Files.readAllLines(EVENTS).getFirst() + "\n{\"specversion\":\"1.0\"}\n");
    assertThat(run(BRIDGE, "--events", events)).isEqualTo(2);
    assertThat(complained()).contains("events.ndjson, line 2: the attribute");
  }
}
