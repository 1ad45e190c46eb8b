package org.ysthmos.app.backup;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.time.InstantSource;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.OptionalInt;
import org.ysthmos.app.command.CommandLine;
import org.ysthmos.app.command.Ends;
import org.ysthmos.app.command.Refused;
import org.ysthmos.app.command.Running;

/** {@code backup FILE}: takes a backup, while the application runs or not. */
public final class BackupCommand {

  static final String USAGE =
      """
      Usage: ./run backup FILE [--data FOLDER]

      Writes all that is kept in a data folder to FILE, whether Ysthmos runs there or not. What is
      being carried across meanwhile goes on. FILE holds the secrets and the key to them: keep it
      as you keep those.

        --data FOLDER   where everything is kept (default ./data)
      """;

  private final PrintStream out;
  private final InstantSource clock;

  BackupCommand(PrintStream out, InstantSource clock) {
    this.out = out;
    this.clock = clock;
  }

  public static void main(String[] args) {
    Ends.with(args, (words, out) -> new BackupCommand(out, InstantSource.system()).run(words));
  }

  private int run(List<String> args) throws IOException, SQLException, InterruptedException {
    CommandLine line = CommandLine.of(args, USAGE, List.of(), List.of());
    if (line.help()) {
      out.print(USAGE);
    } else {
      take(line.named(), line.data(), line.port());
    }
    return Ends.FINE;
  }

  /**
   * @param port where the application runs that has the data folder; empty if none does
   */
  void take(Path file, Path data, OptionalInt port)
      throws IOException, SQLException, InterruptedException {
    Instant taken = port.isPresent() ? ofRunning(file, data, port.getAsInt()) : ofOne(file, data);
    out.printf(
        "Backed up in %s, %,d KB, as of %s. It holds the secrets: keep it as you keep them.%n",
        file, (Files.size(file) + 1023) / 1024, second(taken));
  }

  /** Of one that does not run. */
  private Instant ofOne(Path file, Path data) throws IOException, SQLException {
    if (!Files.exists(data.resolve(BackupFile.DATABASE))) {
      throw new Refused(
          "Nothing is kept in " + data + ". Say with --data where what is to be backed up is.");
    }
    Instant taken = clock.instant();
    try (Connection database = Database.open(data)) {
      BackupFile.take(database, data, file, taken);
    }
    return taken;
  }

  /** As people read it. */
  static Instant second(Instant moment) {
    return moment.truncatedTo(ChronoUnit.SECONDS);
  }

  private static Instant ofRunning(Path file, Path data, int port)
      throws IOException, InterruptedException {
    JsonNode said = new Running(port).ask("POST", "/api/backups", null);
    Path made = Path.of(said.path("file").asText());
    if (!made.startsWith(data.toRealPath())) {
      Files.deleteIfExists(made);
      throw new Refused(
          "What runs on port %d keeps its data in another folder than %s.".formatted(port, data));
    }
    // It may be another disk: it has its name only once it is whole there.
    Path part = file.resolveSibling(file.getFileName() + ".part");
    Files.move(made, part, StandardCopyOption.REPLACE_EXISTING);
    Files.move(part, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
    return Instant.parse(said.path("taken").asText());
  }
}
