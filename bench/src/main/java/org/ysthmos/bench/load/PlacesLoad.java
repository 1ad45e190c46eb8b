package org.ysthmos.bench.load;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import org.springframework.jdbc.core.JdbcTemplate;
import org.ysthmos.app.trace.TraceEnds;

/**
 * A bridge that hears eighty places against the same rules at one, and the page that shows what
 * became of each, with ten weeks and a million traces behind it.
 */
public final class PlacesLoad {

  private static final int PLACES = 80;
  private static final int EVENTS = 4_000;
  private static final int ROUNDS = 4;
  private static final int LOOKS = 40;
  private static final int TRACES = 1_000_000;

  /** As long as it is kept what came of each place. */
  private static final int SLOTS = 70 * 48;

  private PlacesLoad() {}

  public static void main(String[] arguments) throws Exception {
    Path data = Path.of(arguments[1]);
    Path setup = setup(Path.of(arguments[0]), data.resolve("setup"));
    String seconds = "--ysthmos.retry.first=PT1S";
    try (Target target = new Target();
        Running running =
            new Running(data.resolve("data"), setup, Map.of("lists", target.address()), seconds)) {
      carry(running);
      fill(running);
      look(running);
    }
    System.exit(0);
  }

  /** Carries the same events at one place and at eighty, in turns. */
  private static void carry(Running running) {
    List<Double> ratios = new ArrayList<>();
    for (int round = 0; round <= ROUNDS; round++) {
      double one = carried(running, "notes", "source", any -> "notes");
      double many = carried(running, "places", "lists", i -> "notes:list-" + (1 + i % PLACES));
      if (round > 0) {
        ratios.add(many / one);
        System.out.printf(
            "%,d events at one place: %.1f s; at %d: %.1f s (%.2f times)%n",
            EVENTS, one, PLACES, many, many / one);
      }
    }
    Collections.sort(ratios);
    System.out.printf("median: %.2f times the yardstick%n", ratios.get(ROUNDS / 2));
  }

  private static double carried(
      Running running, String bridge, String system, IntFunction<String> collection) {
    running.hold(bridge, true);
    double unused = running.takeIn(EVENTS, system, collection);
    long began = System.nanoTime();
    running.hold(bridge, false);
    while (running.waitingInAll() > 0) {
      Load.pause(20);
    }
    return (System.nanoTime() - began) / 1e9;
  }

  private static void fill(Running running) {
    JdbcTemplate jdbc = running.context.getBean(JdbcTemplate.class);
    long first = TraceEnds.slot(Instant.now()) - SLOTS;
    for (String verdict : List.of("CREATE", "PASSED_BY")) {
      int unused =
          jdbc.update(
              """
              MERGE INTO place_count KEY (bridge_id, collection_id, slot, verdict)
              SELECT 'places', 'notes:list-' || p.x, ? + s.x, ?, 1 + MOD(s.x, 5)
              FROM SYSTEM_RANGE(1, ?) p, SYSTEM_RANGE(0, ?) s
              """,
              first,
              verdict,
              PLACES,
              SLOTS - 1);
    }
    int unused =
        jdbc.update(
            """
            INSERT INTO trace_place
            SELECT 1000000000 + x, 'places', 'notes:list-' || (1 + MOD(x, ?)),
              DATEADD('SECOND', -6 * x, CURRENT_TIMESTAMP)
            FROM SYSTEM_RANGE(1, ?)
            """,
            PLACES,
            TRACES);
  }

  private static void look(Running running) throws IOException {
    ObjectMapper json = new ObjectMapper();
    List<Double> page = new ArrayList<>();
    List<Double> yardstick = new ArrayList<>();
    for (int i = 0; i <= LOOKS; i++) {
      long began = System.nanoTime();
      JsonNode answer = running.get("/api/bridges/places/places");
      double millis = (System.nanoTime() - began) / 1e6;
      if (answer.path("places").size() != PLACES) {
        throw new IllegalStateException("not all places are told of");
      }
      if (i == 0) {
        System.out.printf("the first look, which learns what is usual: %.0f ms%n", millis);
        continue;
      }
      page.add(millis);
      began = System.nanoTime();
      byte[] again = json.writeValueAsBytes(json.readTree(answer.toString()));
      yardstick.add((System.nanoTime() - began) / 1e6);
      if (again.length == 0) {
        throw new IllegalStateException("nothing was written");
      }
    }
    Collections.sort(page);
    Collections.sort(yardstick);
    System.out.printf(
        "the page of %d places, %,d traces: median %.1f ms, most %.1f ms (%.1f times the"
            + " yardstick)%n",
        PLACES,
        TRACES,
        page.get(LOOKS / 2),
        page.getLast(),
        page.get(LOOKS / 2) / yardstick.get(LOOKS / 2));
  }

  /** The load's own bridge, and beside it one that hears eighty places by the same rules. */
  private static Path setup(Path from, Path to) throws IOException {
    for (String one : List.of("systems/source.yaml", "systems/target.yaml", "bridges/notes.yaml")) {
      Files.createDirectories(to.resolve(one).getParent());
      Files.writeString(to.resolve(one), Files.readString(from.resolve(one)));
    }
    String source = Files.readString(from.resolve("systems/source.yaml"));
    Files.writeString(
        to.resolve("systems/lists.yaml"),
        source
            .replace("system: source", "system: lists")
            .replace("name: Source", "name: Lists")
            .replace(
                "collections:",
                "directories: { all: { call: GET /lists, items: /items, id: /id, name: /name } }\n"
                    + "collections:")
            .replace("    record: note", "    places: all\n    record: note")
            .replace("      record: /id", "      place: /list\n      record: /id"));
    Files.createDirectories(to.resolve("tables"));
    StringBuilder table =
        new StringBuilder(
            "table: lists\nname: Lists\nkeys: [list]\nvalues: { crew: text }\nrows:\n");
    for (int i = 1; i <= PLACES; i++) {
      table.append("  - { list: list-%d, crew: crew %d }%n".formatted(i, i % 7));
    }
    Files.writeString(to.resolve("tables/lists.yaml"), table);
    Files.writeString(
        to.resolve("bridges/places.yaml"),
        Files.readString(from.resolve("bridges/notes.yaml"))
            .replace("bridge: notes", "bridge: places")
            .replace("name: Notes", "name: Places")
            .replace(
                "system: source, collection: notes",
                "system: lists, places: { of: notes, table: lists }")
            .replace("match: [/id]", "match: [place/id, /id]")
            .replace("{ value: /by, steps: [trim] }", "place/crew"));
    return to;
  }
}
