package org.ysthmos.bench.load;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import javax.sql.DataSource;
import org.ysthmos.app.event.EventMapper;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.intake.IntakeWriter;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.work.WorkSignals;

/**
 * A tick in which ten rows are due, of tables with more and more rows. The yardstick is the same
 * tick of the smallest table. From the minute that is set until the events of all ten are there.
 */
public final class ChoreTicks {

  /** The first is for warming up alone. */
  private static final List<Integer> TABLES = List.of(300, 300, 3_000, 10_000);

  private static final int DUE_AT_ONCE = 10;
  private static final int TICKS = 25;
  private static final String EVENTS = "SELECT COUNT(*) FROM event WHERE kind LIKE 'due for %'";

  private ChoreTicks() {}

  public static void main(String[] arguments) throws Exception {
    double yardstick = 0;
    for (int i = 0; i < TABLES.size(); i++) {
      int rows = TABLES.get(i);
      Path data = Path.of(arguments[1]).resolve("table-" + i);
      Path setup = setup(Path.of(arguments[0]), data.resolve("setup"));
      try (Running running = new Running(data, setup, "--ysthmos.settable-clock=true")) {
        long began = System.nanoTime();
        fill(running, rows);
        double seconds = (System.nanoTime() - began) / 1e9;
        double millis = ticks(running);
        if (i == 0) {
          continue;
        }
        yardstick = i == 1 ? millis : yardstick;
        System.out.println(
            "%,d rows: told and kept in %.0f s; a tick with %d due %.1f ms, %.2f of that of %,d rows"
                .formatted(
                    rows, seconds, DUE_AT_ONCE, millis, millis / yardstick, TABLES.getFirst()));
      }
    }
    System.exit(0);
  }

  private static Path setup(Path from, Path to) throws IOException {
    Files.createDirectories(to.resolve("systems"));
    Files.createDirectories(to.resolve("bridges"));
    Files.writeString(
        to.resolve("systems/source.yaml"),
        Files.readString(from.resolve("systems/source.yaml"))
            .replace("      /title:", "      /every: { name: every, type: text }\n      /title:"));
    Files.copy(from.resolve("systems/target.yaml"), to.resolve("systems/target.yaml"));
    Files.writeString(
        to.resolve("bridges/notes.yaml"),
        Files.readString(from.resolve("bridges/notes.yaml"))
            .replace(
                "event: [created] }",
                "event: [created], chores: { every: /every, zone: UTC } }\n"
                    + "when: { value: /title, is: empty }")
            .replace("match: [/id]", "match: [event/record, /occurrence/said]"));
    return to;
  }

  /** Ten come round in each minute of the day, one ten after the other. */
  private static void fill(Running running, int rows) {
    IntakeWriter intake = running.context.getBean(IntakeWriter.class);
    Instant now = running.context.getBean(AppClock.class).instant();
    for (int done = 0; done < rows; ) {
      List<EventRow> page = new ArrayList<>();
      for (int i = 0; i < 200 && done < rows; i++, done++) {
        LocalTime at = LocalTime.MIDNIGHT.plusMinutes(done / DUE_AT_ONCE);
        String body =
            "{\"id\":\"n-%d\",\"title\":\"Row %d\",\"every\":\"every day at %s\"}"
                .formatted(done, done, at);
        page.add(
            new EventRow(
                0,
                "source",
                "e-" + done,
                "notes",
                "created",
                "n-" + done,
                now,
                now,
                EventMapper.Origin.TOLD,
                body.getBytes(StandardCharsets.UTF_8)));
      }
      intake.keepPage(page, nothing -> {});
    }
    while (count(running, "SELECT COUNT(*) FROM chore") < rows) {
      Load.pause(200);
    }
  }

  private static double ticks(Running running) {
    AppClock clock = running.context.getBean(AppClock.class);
    WorkSignals signals = running.context.getBean(WorkSignals.class);
    LocalDate tomorrow = LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC).plusDays(1);
    // What comes round until then is behind it.
    clock.set(tomorrow.atTime(0, 0, 1).toInstant(ZoneOffset.UTC));
    signals.raiseAll();
    long known = -1;
    while (known != count(running, EVENTS)) {
      known = count(running, EVENTS);
      Load.pause(3_000);
    }
    List<Double> millis = new ArrayList<>();
    for (int minute = 1; minute <= TICKS; minute++) {
      clock.set(tomorrow.atTime(0, minute, 1).toInstant(ZoneOffset.UTC));
      long began = System.nanoTime();
      signals.toChores().raise();
      while (count(running, EVENTS) < known + (long) minute * DUE_AT_ONCE) {
        Thread.onSpinWait();
      }
      millis.add((System.nanoTime() - began) / 1e6);
      Load.pause(300);
    }
    Collections.sort(millis);
    return millis.get(TICKS / 2);
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
}
