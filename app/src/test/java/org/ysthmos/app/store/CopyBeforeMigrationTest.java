package org.ysthmos.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.ZipFile;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationVersion;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.DriverManagerDataSource;
import org.ysthmos.app.Settings;

class CopyBeforeMigrationTest {

  @TempDir private Path folder;
  private DriverManagerDataSource source;
  private CopyBeforeMigration strategy;

  @BeforeEach
  void begin() {
    source = new DriverManagerDataSource("jdbc:h2:file:" + folder.resolve("ysthmos"), "sa", "");
    Settings settings = mock(Settings.class);
    when(settings.data()).thenReturn(folder);
    strategy = new CopyBeforeMigration(settings);
  }

  private Flyway upTo(String version) {
    return Flyway.configure()
        .dataSource(source)
        .target(MigrationVersion.fromVersion(version))
        .load();
  }

  @Test
  void dataIsCopiedBeforeItChangesAndCanBePutBack() throws Exception {
    strategy.migrate(upTo("6"));
    assertThat(Files.list(folder).map(Path::toString)).noneMatch(name -> name.endsWith(".zip"));
    new JdbcTemplate(source)
        .update("INSERT INTO bridge (id, live_version, state) VALUES ('mine', 1, 'live')");
    strategy.migrate(upTo("8"));
    strategy.migrate(upTo("8"));

    Path back = Files.createDirectory(folder.resolve("back"));
    try (ZipFile zip = new ZipFile(folder.resolve("ysthmos-before-8.zip").toFile())) {
      Files.copy(zip.getInputStream(zip.getEntry("ysthmos.mv.db")), back.resolve("ysthmos.mv.db"));
    }
    JdbcTemplate old =
        new JdbcTemplate(
            new DriverManagerDataSource("jdbc:h2:file:" + back.resolve("ysthmos"), "sa", ""));
    assertThat(old.queryForList("SELECT id FROM bridge", String.class)).containsExactly("mine");
    assertThat(
            old.queryForObject(
                "SELECT MAX(CAST(\"version\" AS INT)) FROM \"flyway_schema_history\"",
                Integer.class))
        .isEqualTo(6);
  }
}
