package org.ysthmos.app.store;

import java.nio.file.Files;
import java.nio.file.Path;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationInfo;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.autoconfigure.flyway.FlywayMigrationStrategy;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;

/**
 * Keeps a copy of the data before it is changed to a new form, since the database cannot undo such
 * a change half way. The copy is a ZIP with the data file in it, for a person to put back and to
 * remove.
 */
@Component
class CopyBeforeMigration implements FlywayMigrationStrategy {

  private static final Logger LOG = LoggerFactory.getLogger(CopyBeforeMigration.class);

  private final Path data;

  CopyBeforeMigration(Settings settings) {
    this.data = settings.data();
  }

  @Override
  public void migrate(Flyway flyway) {
    MigrationInfo[] pending = flyway.info().pending();
    boolean anything = flyway.info().applied().length > 0;
    if (anything && pending.length > 0) {
      copy(flyway, pending[pending.length - 1]);
    }
    flyway.migrate();
  }

  private void copy(Flyway flyway, MigrationInfo last) {
    Path copy = data.resolve("ysthmos-before-%s.zip".formatted(last.getVersion()));
    if (Files.exists(copy)) {
      // The change broke off before; what was copied then is what was there before it.
      return;
    }
    new JdbcTemplate(flyway.getConfiguration().getDataSource())
        .update("BACKUP TO ?", copy.toString());
    LOG.info("The data is changed to a new form; a copy of what it was is in {}", copy);
  }
}
