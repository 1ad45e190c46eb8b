package org.ysthmos.app.store;

import java.sql.SQLException;
import org.h2.api.DatabaseEventListener;
import org.h2.mvstore.DataUtils;
import org.h2.mvstore.MVStoreException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Ends the process when the database could not write to its file, before anything else is done in
 * it. The database itself goes on: it undoes what failed, which fails as well, and later writes
 * that find room keep a row without its index entries, so that the row can never be changed again.
 * What is on the disk at the moment of the failure is whole (decision 22).
 *
 * <p>The database makes it by its name, which stands in the address of the database.
 */
public final class StorageFailures implements DatabaseEventListener {

  private static final Logger LOG = LoggerFactory.getLogger(StorageFailures.class);

  private final LastResort resort;

  /** As the database makes it. */
  public StorageFailures() {
    this(status -> Runtime.getRuntime().halt(status));
  }

  StorageFailures(LastResort resort) {
    this.resort = resort;
  }

  @Override
  public void exceptionThrown(SQLException e, String sql) {
    for (Throwable cause = e; cause != null; cause = cause.getCause()) {
      if (cause instanceof MVStoreException failed
          && failed.getErrorCode() == DataUtils.ERROR_WRITING_FAILED) {
        LOG.error(
            "The database could not write to its file ({}). This process ends with {} and must be"
                + " started again.",
            failed.getMessage(),
            LastResort.TRY_AGAIN);
        resort.end(LastResort.TRY_AGAIN);
        return;
      }
    }
  }
}
