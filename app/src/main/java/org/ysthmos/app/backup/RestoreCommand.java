package org.ysthmos.app.backup;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.time.InstantSource;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Comparator;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationInfo;
import org.flywaydb.core.api.MigrationState;
import org.ysthmos.app.command.CommandLine;
import org.ysthmos.app.command.Ends;
import org.ysthmos.app.command.Refused;
import org.ysthmos.app.gap.RestoredMark;

/**
 * {@code restore FILE}: puts a backup back. What was there is kept beside it. Until all is in its
 * place the folder {@code restoring} is there, and nothing starts on half of it.
 */
public final class RestoreCommand {

  static final String USAGE =
      """
      Usage: ./run restore FILE [--data FOLDER]

      Puts the backup FILE in the place of what is kept in a data folder, where Ysthmos must not
      run. What was there is moved to a folder beside it. The next start knows that the time since
      the backup is missing: it polls again, has pairs checked, and looks for each task before it
      makes it; Watch says how far that is, and what cannot be made up for.

        --data FOLDER   where everything is kept (default ./data)
      """;

  private static final DateTimeFormatter MOMENT =
      DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss'Z'").withZone(ZoneOffset.UTC);

  private final PrintStream out;
  private final InstantSource clock;

  RestoreCommand(PrintStream out, InstantSource clock) {
    this.out = out;
    this.clock = clock;
  }

  public static void main(String[] args) {
    Ends.with(args, (words, out) -> new RestoreCommand(out, InstantSource.system()).run(words));
  }

  private int run(List<String> args) throws IOException, SQLException {
    CommandLine line = CommandLine.of(args, USAGE, List.of(), List.of());
    if (line.help()) {
      out.print(USAGE);
    } else {
      restore(line.named(), line.data());
    }
    return Ends.FINE;
  }

  void restore(Path file, Path data) throws IOException, SQLException {
    Instant now = clock.instant();
    Instant taken = BackupFile.taken(file);
    Path restoring = Restoring.in(data);
    Files.createDirectories(data);
    refuseIfInUse(data);
    boolean brokenOff = Files.exists(restoring);
    remove(restoring);
    Files.createDirectories(restoring);
    try {
      BackupFile.unpack(file, restoring);
      check(restoring);
    } catch (Refused | IOException | SQLException e) {
      if (!brokenOff) {
        // Nothing of what is there was touched.
        remove(restoring);
      }
      throw e;
    }
    Path before = data.resolve("before-restore-" + MOMENT.format(now));
    moveAway(data, before);
    new RestoredMark(UUID.randomUUID().toString(), taken, now).write(RestoredMark.in(data));
    layDown(restoring, data);
    remove(restoring);
    out.printf(
        "Restored in %s, as of %s.%s%nStart it as always; Watch says what is missing since.%n",
        data,
        BackupCommand.second(taken),
        Files.exists(before) ? " What was there is in " + before + "." : "");
  }

  /** One that is damaged is in use by nobody. */
  private static void refuseIfInUse(Path data) {
    if (!Files.exists(data.resolve(BackupFile.DATABASE))) {
      return;
    }
    try (Connection database = Database.open(data)) {
      if (database.isReadOnly()) {
        throw new Refused(data + " can only be read.");
      }
    } catch (SQLException damaged) {
      // It is to be replaced, and kept as it is.
      return;
    }
  }

  /** Whether it opens, and is not newer than we are. */
  private static void check(Path restoring) throws SQLException {
    Database.open(restoring).close();
    Flyway flyway =
        Flyway.configure()
            .dataSource("jdbc:h2:file:" + restoring.resolve("ysthmos"), "ysthmos", "")
            .load();
    for (MigrationInfo one : flyway.info().all()) {
      if (one.getState() == MigrationState.FUTURE_SUCCESS) {
        throw new Refused(
            "The backup was made by a newer version. Restore it with that version or a later one.");
      }
    }
  }

  private static void moveAway(Path data, Path before) throws IOException {
    for (String name : List.of(BackupFile.DATABASE, BackupFile.KEY)) {
      if (Files.exists(data.resolve(name))) {
        Files.createDirectories(before);
        Files.move(data.resolve(name), before.resolve(name));
      }
    }
  }

  /** What was dropped stays where it is, and what lies there by now is not written over. */
  private static void layDown(Path restoring, Path data) throws IOException {
    Path drops = restoring.resolve(BackupFile.DROPS);
    if (Files.isDirectory(drops)) {
      try (Stream<Path> all = Files.walk(drops)) {
        for (Path dropped : all.filter(Files::isRegularFile).toList()) {
          Path to = data.resolve(restoring.relativize(dropped));
          if (!Files.exists(to)) {
            Files.createDirectories(to.getParent());
            Files.move(dropped, to);
          }
        }
      }
    }
    for (String name : List.of(BackupFile.KEY, BackupFile.DATABASE)) {
      if (Files.exists(restoring.resolve(name))) {
        Files.move(restoring.resolve(name), data.resolve(name), StandardCopyOption.ATOMIC_MOVE);
      }
    }
  }

  private static void remove(Path folder) throws IOException {
    if (!Files.exists(folder)) {
      return;
    }
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path one : all.sorted(Comparator.reverseOrder()).toList()) {
        Files.delete(one);
      }
    }
  }
}
