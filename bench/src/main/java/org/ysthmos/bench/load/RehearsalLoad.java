package org.ysthmos.bench.load;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.sun.management.OperatingSystemMXBean;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.ysthmos.app.desk.sample.SampleWorld;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.bench.TicketMapping;
import org.ysthmos.core.bridge.BridgeCompiler;
import org.ysthmos.core.bridge.BridgeVersion;
import org.ysthmos.core.bridge.Catalog;
import org.ysthmos.core.decide.Decider;
import org.ysthmos.core.decide.Mode;
import org.ysthmos.core.decide.World;
import org.ysthmos.core.event.Event;

/**
 * Rehearsals over many events that crossed a bridge with twelve fields, each of 2 KB. The yardstick
 * is the sum of plain decisions of the same events by the same rules, already in memory.
 */
public final class RehearsalLoad {

  private static final int WARMING = 4;
  private static final int ROUNDS = 9;
  private static final int IN_MEMORY = 2_000;
  private static final ObjectMapper JSON = new ObjectMapper();

  private RehearsalLoad() {}

  public static void main(String[] arguments) throws Exception {
    Path data = Path.of(arguments[1]);
    int events = Integer.parseInt(arguments[2]);
    boolean crossed = Files.exists(data.resolve("data/ysthmos.mv.db"));
    Path setup = setup(Path.of(arguments[0]), data.resolve("setup"));
    if (!crossed) {
      try (Running running = new Running(data.resolve("data"), setup)) {
        cross(running, events);
      }
    }
    // Opened anew, so that nothing that the crossing left to be tidied up goes on beside it.
    try (Running running = new Running(data.resolve("data"), setup)) {
      // One that an earlier run left goes on by itself.
      while (state(running).equals("RUNNING")) {
        Load.pause(500);
      }
      Plain plain = new Plain(running, events);
      compare("the version that decided then", running, plain, "\"version\":1,");
      compare("a draft of which each differs", running, plain, "");
    }
    System.exit(0);
  }

  private static void cross(Running running, int events) throws IOException {
    long began = System.nanoTime();
    takeIn(running, events);
    while (running.waiting() > 0) {
      Load.pause(500);
    }
    System.out.printf("%,d events crossed in %.0f s%n", events, seconds(began));
    String draft = rules().replace("case: upper", "case: lower");
    running.put(
        "/api/desk/drafts/climate-ticket",
        JSON.createObjectNode().put("document", json(draft)).put("revision", 0).toString());
  }

  private static JsonNode newest(Running running) {
    return running.get("/api/rehearsals?bridge=climate-ticket").at("/rehearsals/0");
  }

  private static String state(Running running) {
    return newest(running).path("state").asText();
  }

  private static double seconds(long began) {
    return (System.nanoTime() - began) / 1e9;
  }

  /**
   * Both in turns; the first rounds warm both up, as an application that runs for a day is warm.
   * What counts is the median of the rounds, as the two halves of a round meet the same machine; a
   * single round that a shared machine favours or robs says nothing. The fastest of each are told
   * beside.
   */
  private static void compare(String what, Running running, Plain plain, String wish)
      throws IOException {
    List<Double> decided = new ArrayList<>();
    List<Double> rehearsed = new ArrayList<>();
    List<Double> ratios = new ArrayList<>();
    List<Double> processors = new ArrayList<>();
    for (int round = 0; round < WARMING + ROUNDS; round++) {
      double one = plain.seconds();
      double before = processorSeconds();
      double other = rehearse(running, plain.events, wish);
      double processor = processorSeconds() - before;
      if (round == 0) {
        System.out.printf("first rehearsal of %s: %.2f s%n", what, other);
      } else if (round >= WARMING) {
        decided.add(one);
        rehearsed.add(other);
        ratios.add(other / one);
        processors.add(processor);
      }
    }
    Collections.sort(decided);
    Collections.sort(rehearsed);
    Collections.sort(ratios);
    Collections.sort(processors);
    System.out.printf(
        "rehearsal of %s: %.2f s against %.2f s, medians of the rounds (%.2f times, goal <= 3)%n",
        what, rehearsed.get(ROUNDS / 2), decided.get(ROUNDS / 2), ratios.get(ROUNDS / 2));
    System.out.printf(
        "fastest of the rounds: %.2f s against %.2f s (%.2f times)%n",
        rehearsed.getFirst(), decided.getFirst(), rehearsed.getFirst() / decided.getFirst());
    System.out.printf(
        "processor for an event: %.1f us, median of the rounds%n",
        processors.get(ROUNDS / 2) * 1e6 / plain.events);
  }

  /** What all threads of this process took of the processors. */
  private static double processorSeconds() {
    return ManagementFactory.getPlatformMXBean(OperatingSystemMXBean.class).getProcessCpuTime()
        / 1e9;
  }

  private static String rules() {
    return TicketMapping.BRIDGE
        .replace("climate-desk", "source")
        .replace("works-ledger", "target")
        .replace("creates: 100,", "creates: 1000000,");
  }

  private static String json(String yaml) throws IOException {
    return new ObjectMapper(new com.fasterxml.jackson.dataformat.yaml.YAMLFactory())
        .readTree(yaml)
        .toString();
  }

  private static Path setup(Path from, Path to) throws IOException {
    Files.createDirectories(to.resolve("systems"));
    Files.createDirectories(to.resolve("bridges"));
    Files.createDirectories(to.resolve("tables"));
    Files.writeString(to.resolve("bridges/climate-ticket.yaml"), rules());
    table(to, "stewards", "mail", "person", TicketMapping.STEWARDS, "ignore-case: true\n");
    table(to, "areas", "area", "choice", TicketMapping.AREAS, "");
    String fields =
        List.of(
                "number",
                "status",
                "subject",
                "requester/mail",
                "requester/name",
                "place/house",
                "place/bench",
                "seenOn",
                "visit",
                "severity",
                "area",
                "form",
                "labels",
                "description",
                "channel")
            .stream()
            .map(one -> "      /%s: { name: %s, type: text }\n".formatted(one, one))
            .collect(Collectors.joining());
    String source = Files.readString(from.resolve("systems/source.yaml"));
    int at = source.indexOf("      /id:");
    int end = source.indexOf("    push:");
    Files.writeString(
        to.resolve("systems/source.yaml"),
        (source.substring(0, at)
                + fields
                + "      /readings:\n"
                + "        name: readings\n"
                + "        type: list of record\n"
                + "        fields:\n"
                + "          /probe: { name: probe, type: text }\n"
                + "          /degrees: { name: degrees, type: number }\n"
                + source.substring(end))
            .replace("  notes:", "  tickets:")
            .replace("record: /id", "record: /number")
            .replace("{ note.made: created }", "{ made: opened }"));
    String target = Files.readString(from.resolve("systems/target.yaml"));
    int first = target.indexOf("      title: {");
    int after = target.indexOf("    find-by-key:");
    Files.writeString(
        to.resolve("systems/target.yaml"),
        (target.substring(0, first)
                + """
                      title: { name: Title, type: text, required: true, longest: 120 }
                      summary: { name: Summary, type: text }
                      fault: { name: Fault, type: text }
                      due: { name: Due, type: moment }
                      visit: { name: Visit, type: day }
                      priority: { name: Priority, type: number }
                      owner: { name: Owner, type: person }
                      status: { name: Status, type: choice }
                      labels: { name: Labels, type: list of text }
                      link: { name: Link, type: link }
                      readings: { name: Readings, type: list of text }
                      notes: { name: Notes, type: text }
                """
                + target.substring(after))
            .replace("  tasks:", "  jobs:")
            .replace(
                "[title, notes, priority, owner]",
                "[title, summary, fault, due, visit, priority, owner, status, labels, link,"
                    + " readings, notes]"));
    return to;
  }

  private static void table(
      Path to, String id, String key, String type, Map<String, String> rows, String more)
      throws IOException {
    StringBuilder table =
        new StringBuilder(
            "table: %s\nname: %s\nkeys: [%s]\nvalues: { value: %s }\n%snot-found: fail\nrows:\n"
                .formatted(id, id, key, type, more));
    rows.forEach(
        (from, value) -> table.append("  - { %s: %s, value: %s }\n".formatted(key, from, value)));
    Files.writeString(to.resolve("tables/" + id + ".yaml"), table);
  }

  private static String body(int number) {
    return TicketMapping.EVENT
        .replace("CD-20418", "CD-" + number)
        .replace("palm house fails", "palm house fails (" + number % 977 + ")");
  }

  private static void takeIn(Running running, int count) {
    IntakeWriter intake = running.context.getBean(IntakeWriter.class);
    for (int done = 0; done < count; ) {
      List<EventRow> page = new ArrayList<>();
      for (int i = 0; i < 500 && done < count; i++, done++) {
        page.add(row(done));
      }
      intake.keepPage(page, nothing -> {});
      while (running.waiting() > 5_000) {
        Load.pause(200);
      }
    }
  }

  private static EventRow row(int number) {
    Instant now = Instant.now();
    return new EventRow(
        0,
        "source",
        "e-" + number,
        "tickets",
        "opened",
        "CD-" + number,
        now,
        now,
        EventMapper.Origin.TOLD,
        body(number).getBytes(StandardCharsets.UTF_8));
  }

  /** Plain decisions of as many events, of some that are in memory. */
  private static final class Plain {
    private final BridgeVersion bridge;
    private final World world;
    private final List<Event> some = new ArrayList<>();
    private final int events;

    Plain(Running running, int events) throws IOException {
      this.bridge = BridgeCompiler.compile(rules(), 1, running.context.getBean(Catalog.class));
      this.world = running.context.getBean(SampleWorld.class);
      this.events = events;
      for (int i = 0; i < IN_MEMORY; i++) {
        JsonNode data = JSON.readTree(body(i));
        some.add(
            new Event("e-" + i, "source", "tickets", "opened", "CD-" + i, Instant.now(), data));
      }
    }

    double seconds() {
      long began = System.nanoTime();
      int made = 0;
      for (int i = 0; i < events; i++) {
        made += Decider.decide(bridge, some.get(i % IN_MEMORY), world, Mode.PLAIN).tasks().size();
      }
      if (made != events) {
        throw new IllegalStateException(made + " tasks of " + events + " events");
      }
      return RehearsalLoad.seconds(began);
    }
  }

  /** The seconds that a rehearsal takes. */
  private static double rehearse(Running running, int events, String wish) {
    long began = System.nanoTime();
    String id =
        running
            .post(
                "/api/rehearsals",
                "{\"bridge\":\"climate-ticket\",%s\"answers\":\"OF_THEN\"}".formatted(wish))
            .path("id")
            .asText();
    JsonNode state;
    do {
      Load.pause(20);
      state = running.get("/api/rehearsals/" + id);
    } while (state.path("state").asText().equals("RUNNING"));
    double took = seconds(began);
    int expected = wish.isEmpty() ? events : 0;
    if (!state.path("state").asText().equals("ENDED")
        || state.path("done").asInt() != events
        || state.path("differing").asInt() != expected) {
      throw new IllegalStateException("it came to " + ((ObjectNode) state).toString());
    }
    return took;
  }
}
