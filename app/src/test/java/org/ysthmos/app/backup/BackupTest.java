package org.ysthmos.app.backup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.time.Instant;
import java.util.List;
import java.util.OptionalInt;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import org.ysthmos.app.command.Refused;
import org.ysthmos.app.gap.RestoredMark;

/** Backups as files: taken, put back, and refused. */
class BackupTest {

  private static final Instant NOW = Instant.parse("2026-11-29T08:00:00Z");

  @TempDir private Path folder;
  private final ByteArrayOutputStream said = new ByteArrayOutputStream();
  private Path data;
  private Path file;

  @BeforeEach
  void keepSomething() throws IOException {
    data = Files.createDirectory(folder.resolve("data"));
    file = folder.resolve("backup.zip");
    var unused = Flyway.configure().dataSource(source(data)).load().migrate();
    add("before");
    Files.write(data.resolve("secret.key"), new byte[] {1, 2, 3});
    Files.createDirectories(data.resolve("drops/scans"));
    Files.writeString(data.resolve("drops/scans/letter.txt"), "Dear garden");
  }

  private static DriverManagerDataSource source(Path data) {
    return new DriverManagerDataSource("jdbc:h2:file:" + data.resolve("ysthmos"), "ysthmos", "");
  }

  private void add(String bridge) {
    new JdbcTemplate(source(data))
        .update("INSERT INTO bridge (id, live_version, state) VALUES (?, 1, 'live')", bridge);
  }

  private static List<String> bridges(Path data) {
    return new JdbcTemplate(source(data))
        .queryForList("SELECT id FROM bridge ORDER BY id", String.class);
  }

  private void backup() throws Exception {
    new BackupCommand(new PrintStream(said, true, StandardCharsets.UTF_8), () -> NOW)
        .take(file, data, OptionalInt.empty());
  }

  private void restore() throws Exception {
    new RestoreCommand(new PrintStream(said, true, StandardCharsets.UTF_8), () -> NOW)
        .restore(file, data);
  }

  @Test
  void whatIsPutBackIsWhatWasThereAndWhatWasThereLastIsKept() throws Exception {
    backup();
    add("after");
    Files.writeString(data.resolve("drops/scans/letter.txt"), "Written over since");
    restore();

    assertThat(bridges(data)).containsExactly("before");
    assertThat(bridges(data.resolve("before-restore-20261129T080000Z")))
        .containsExactly("after", "before");
    assertThat(data.resolve("secret.key")).hasBinaryContent(new byte[] {1, 2, 3});
    assertThat(data.resolve("drops/scans/letter.txt")).hasContent("Written over since");
    assertThat(RestoredMark.in(data)).content().contains(NOW.toString());
    assertThat(Restoring.in(data)).doesNotExist();
    assertThat(said.toString(StandardCharsets.UTF_8)).contains("Backed up in", "Restored in");
  }

  @Test
  void itIsReadableForItsOwnerAloneAndNothingIsLeftBesideIt() throws Exception {
    backup();
    assertThat(Files.getPosixFilePermissions(file))
        .isEqualTo(PosixFilePermissions.fromString("rw-------"));
    try (Stream<Path> beside = Files.list(folder)) {
      assertThat(beside).containsExactlyInAnyOrder(data, file);
    }
  }

  @Test
  void itIsPutIntoAFolderThatIsNotThereYet() throws Exception {
    backup();
    data = folder.resolve("another/machine");
    restore();
    assertThat(bridges(data)).containsExactly("before");
    assertThat(data.resolve("drops/scans/letter.txt")).hasContent("Dear garden");
  }

  /** What is committed before it is taken is in it, whole, whoever writes meanwhile. */
  @Test
  void oneTakenWhileOthersWriteHoldsWhatWasThereBefore() throws Exception {
    JdbcTemplate writer = new JdbcTemplate(source(data));
    writer.execute("CREATE TABLE written (n INT PRIMARY KEY, half INT, text VARCHAR(2000))");
    AtomicBoolean goesOn = new AtomicBoolean(true);
    try (Connection open = source(data).getConnection()) {
      Thread other =
          Thread.ofPlatform()
              .start(
                  () -> {
                    JdbcTemplate each =
                        new JdbcTemplate(
                            new org.springframework.jdbc.datasource.SingleConnectionDataSource(
                                open, true));
                    for (int n = 0; goesOn.get(); n += 2) {
                      each.update(
                          "INSERT INTO written VALUES (?, 1, ?), (?, 2, ?)",
                          n,
                          "x".repeat(2000),
                          n + 1,
                          "y".repeat(2000));
                    }
                  });
      while (written(writer) < 200) {
        Thread.onSpinWait();
      }
      int before = written(writer);
      BackupFile.take(open, data, file, NOW);
      goesOn.set(false);
      other.join();
      Path back = Files.createDirectory(folder.resolve("back"));
      BackupFile.unpack(file, back);
      int copied = written(new JdbcTemplate(source(back)));
      assertThat(copied).isBetween(before, written(writer)).isEven();
    }
  }

  private static int written(JdbcTemplate from) {
    Integer count = from.queryForObject("SELECT COUNT(*) FROM written", Integer.class);
    return count == null ? 0 : count;
  }

  @Test
  void oneThatIsDamagedIsRefusedAndNothingChanges() throws Exception {
    backup();
    try (RandomAccessFile bytes = new RandomAccessFile(file.toFile(), "rw")) {
      bytes.seek(bytes.length() / 2);
      bytes.write(new byte[] {0, 0, 0, 0, 0, 0, 0, 0});
    }
    assertThatThrownBy(this::restore).isInstanceOfAny(Refused.class, IOException.class);
    assertThat(bridges(data)).containsExactly("before");
    assertThat(Restoring.in(data)).doesNotExist();
    assertThat(RestoredMark.in(data)).doesNotExist();
  }

  @Test
  void whatIsNoBackupIsRefused() throws Exception {
    assertThatThrownBy(this::restore).isInstanceOf(Refused.class).hasMessageContaining("no file");
    Files.writeString(file, "Something else");
    assertThatThrownBy(this::restore).isInstanceOf(Refused.class).hasMessageContaining("no ZIP");
  }

  @Test
  void oneOfANewerVersionIsRefused() throws Exception {
    new JdbcTemplate(source(data))
        .update(
            """
            INSERT INTO "flyway_schema_history" VALUES
            (9999, '9999', 'later', 'SQL', 'V9999__later.sql', 1, 'ysthmos', CURRENT_TIMESTAMP, 1, TRUE)
            """);
    backup();
    assertThatThrownBy(this::restore)
        .isInstanceOf(Refused.class)
        .hasMessageContaining("newer version");
    assertThat(Restoring.in(data)).doesNotExist();
  }

  @Test
  void oneThatBrokeOffIsDoneAgain() throws Exception {
    backup();
    Files.createDirectories(Restoring.in(data));
    Files.writeString(Restoring.in(data).resolve("ysthmos.mv.db"), "half of it");
    Files.delete(data.resolve("ysthmos.mv.db"));
    assertThatThrownBy(() -> Restoring.refuseHalf(data)).hasMessageContaining("broken off");
    restore();
    assertThat(bridges(data)).containsExactly("before");
    Restoring.refuseHalf(data);
  }
}
