package org.ysthmos.bench.load;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import javax.sql.DataSource;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;

/**
 * Lists, one trace, finding by value and Watch with many traces of a hundred bridges, all made by
 * the product's own code. Prints lines {@code name: value unit (goal)}.
 */
public final class Size {

  private static final int BRIDGES = 100;
  private static final int KINDS = 10;

  private Size() {}

  public static void main(String[] arguments) throws Exception {
    Path data = Path.of(arguments[1]);
    int traces = Integer.parseInt(arguments[2]);
    Path setup = setup(Path.of(arguments[0]), data.resolve("setup"));
    try (Running running = new Running(data, setup, "--ysthmos.work.per-bridge=2")) {
      make(running, traces);
      measure(running);
    }
    System.exit(0);
  }

  /** A hundred bridges, ten for each kind of event; one in ten makes tasks, the others pass by. */
  private static Path setup(Path from, Path to) throws IOException {
    Files.createDirectories(to.resolve("systems"));
    Files.createDirectories(to.resolve("bridges"));
    String source = Files.readString(from.resolve("systems/source.yaml"));
    StringBuilder kinds = new StringBuilder("{ ");
    for (int kind = 0; kind < KINDS; kind++) {
      kinds.append(kind == 0 ? "" : ", ").append("k").append(kind).append(": k").append(kind);
    }
    Files.writeString(
        to.resolve("systems/source.yaml"), source.replace("{ note.made: created }", kinds + " }"));
    Files.copy(from.resolve("systems/target.yaml"), to.resolve("systems/target.yaml"));
    String bridge = Files.readString(from.resolve("bridges/notes.yaml"));
    for (int i = 0; i < BRIDGES; i++) {
      String condition = i % 10 == 0 ? "present" : "empty";
      Files.writeString(
          to.resolve("bridges/notes-%02d.yaml".formatted(i)),
          bridge
              .replace("bridge: notes", "bridge: notes-%02d".formatted(i))
              .replace("name: Notes", "name: Notes %02d".formatted(i))
              .replace("event: [created]", "event: [k%d]".formatted(i / 10))
              .replace(
                  "match: [/id]", "when: { value: /title, is: " + condition + " }\nmatch: [/id]"));
    }
    return to;
  }

  private static void make(Running running, int traces) {
    IntakeWriter intake = running.context.getBean(IntakeWriter.class);
    long began = System.nanoTime();
    int events = traces / (BRIDGES / KINDS);
    for (int done = 0; done < events; ) {
      List<EventRow> page = new ArrayList<>();
      for (int i = 0; i < 200 && done < events; i++, done++) {
        Instant now = Instant.now();
        page.add(
            new EventRow(
                0,
                "source",
                "e-" + done,
                "notes",
                "k" + done % KINDS,
                "n-" + done,
                now,
                now,
                EventMapper.Origin.TOLD,
                running.body(done).getBytes(StandardCharsets.UTF_8)));
      }
      intake.keepPage(page, nothing -> {});
      while (count(running, "SELECT COUNT(*) FROM trace_work") > 20_000) {
        Load.pause(200);
      }
      if (done % (events / 10) == 0) {
        System.out.println(
            "made %,d of %,d traces, %.0f a second"
                .formatted(done * 10L, traces, done * 10 / ((System.nanoTime() - began) / 1e9)));
      }
    }
    while (count(running, "SELECT COUNT(*) FROM trace_work") > 0) {
      Load.pause(200);
    }
    // The last segments are made within some seconds.
    Load.pause(15_000);
    System.out.println("traces: %,d".formatted(count(running, "SELECT COUNT(*) FROM trace")));
    System.out.println("data file: %,.0f MB".formatted(running.fileBytes() / 1e6));
  }

  private static long count(Running running, String query) {
    try (Connection connection = running.context.getBean(DataSource.class).getConnection();
        Statement statement = connection.createStatement();
        ResultSet rows = statement.executeQuery(query)) {
      return rows.next() ? rows.getLong(1) : 0;
    } catch (SQLException e) {
      throw new IllegalStateException(e);
    }
  }

  private static void measure(Running running) {
    JsonNode first = running.get("/api/traces").path("traces").get(0);
    String id = first.path("id").asText();
    timed(running, "list, first page", "/api/traces?since=1970-01-02T00:00:00Z", 100);
    timed(
        running, "list of a bridge", "/api/traces?since=1970-01-02T00:00:00Z&bridge=notes-42", 100);
    timed(
        running, "list of a verdict", "/api/traces?since=1970-01-02T00:00:00Z&verdict=create", 100);
    timed(
        running,
        "list of a bridge and a verdict that it has not",
        "/api/traces?since=1970-01-02T00:00:00Z&bridge=notes-42&verdict=failed",
        100);
    timed(
        running,
        "failures that need a person",
        "/api/traces?since=1970-01-02T00:00:00Z&verdict=needs-you",
        100);
    timed(running, "under way", "/api/traces?since=1970-01-02T00:00:00Z&verdict=waiting", 100);
    timed(running, "one trace", "/api/traces/" + id, 100);
    timed(
        running,
        "by a value that one event has",
        "/api/traces?since=1970-01-02T00:00:00Z&text=n-777",
        300);
    timed(
        running,
        "by a value that many have",
        "/api/traces?since=1970-01-02T00:00:00Z&text=visitor.17%40mail.example",
        300);
    timed(
        running,
        "by a value that nobody has",
        "/api/traces?since=1970-01-02T00:00:00Z&text=nowhere",
        300);
    timed(
        running,
        "by two words in all of them",
        "/api/traces?since=1970-01-02T00:00:00Z&text=loose+plank",
        300);
    timed(running, "Watch", "/api/watch", 150);
  }

  private static void timed(Running running, String what, String path, int goal) {
    List<Double> millis = new ArrayList<>();
    JsonNode last = running.get(path);
    for (int i = 0; i < 15; i++) {
      long began = System.nanoTime();
      last = running.get(path);
      millis.add((System.nanoTime() - began) / 1e6);
    }
    Collections.sort(millis);
    System.out.println(
        "%s: %.0f ms median, %.0f most (goal < %d), %d rows"
            .formatted(what, millis.get(7), millis.getLast(), goal, last.path("traces").size()));
  }
}
