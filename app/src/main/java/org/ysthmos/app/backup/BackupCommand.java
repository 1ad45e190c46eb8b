package org.ysthmos.app.backup;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.io.PrintStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.OptionalInt;

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

  /** Longer than copying takes on the slowest disk that holds as much as we keep. */
  private static final Duration LONGEST = Duration.ofHours(2);

  private final PrintStream out;
  private final InstantSource clock;

  BackupCommand(PrintStream out, InstantSource clock) {
    this.out = out;
    this.clock = clock;
  }

  public static void main(String[] args) {
    PrintStream out = new PrintStream(System.out, true, StandardCharsets.UTF_8);
    System.exit(
        Ends.of(out, () -> new BackupCommand(out, InstantSource.system()).run(List.of(args))));
  }

  private void run(List<String> args) throws IOException, SQLException, InterruptedException {
    Words words = Words.of(args, USAGE);
    if (words.help()) {
      out.print(USAGE);
      return;
    }
    take(words.file(), words.data(), words.port());
  }

  /**
   * @param port where the application runs that has the data folder; empty if none does
   */
  void take(Path file, Path data, OptionalInt port)
      throws IOException, SQLException, InterruptedException {
    Instant taken;
    if (port.isPresent()) {
      taken = ofRunning(file, data, port.getAsInt());
    } else {
      taken = clock.instant();
      if (!Files.exists(data.resolve(BackupFile.DATABASE))) {
        throw new Refused(
            "Nothing is kept in " + data + ". Say with --data where what is to be backed up is.");
      }
      try (Connection database = Database.open(data)) {
        BackupFile.take(database, data, file, taken);
      }
    }
    out.printf(
        "Backed up in %s, %,d KB, as of %s. It holds the secrets: keep it as you keep them.%n",
        file, (Files.size(file) + 1023) / 1024, second(taken));
  }

  /** As people read it. */
  static Instant second(Instant moment) {
    return moment.truncatedTo(ChronoUnit.SECONDS);
  }

  private static Instant ofRunning(Path file, Path data, int port)
      throws IOException, InterruptedException {
    URI address = URI.create("http://127.0.0.1:" + port + "/api/backups");
    HttpResponse<String> answer;
    try (HttpClient client = HttpClient.newHttpClient()) {
      answer =
          client.send(
              HttpRequest.newBuilder(address)
                  .timeout(LONGEST)
                  .POST(HttpRequest.BodyPublishers.noBody())
                  .build(),
              HttpResponse.BodyHandlers.ofString());
    } catch (java.net.ConnectException e) {
      throw new Refused(
          "%s is in use, but nothing answers on port %d. Try again once it has started."
              .formatted(data, port),
          e);
    }
    JsonNode said = new JsonMapper().readTree(answer.body());
    if (answer.statusCode() != 201) {
      throw new Refused(said.path("detail").asText("It answers " + answer.statusCode() + "."));
    }
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
