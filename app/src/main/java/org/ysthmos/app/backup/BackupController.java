package org.ysthmos.app.backup;

import java.io.IOException;
import java.sql.SQLException;
import java.time.Instant;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Backups. What is in one is never given out here: who may read the data folder may have it. */
@RestController
class BackupController {

  /**
   * A backup that was taken.
   *
   * @param file where it lies on the machine of the application, until the next one is taken
   * @param taken what was written later is not in it
   */
  record BackupView(String file, Instant taken, long bytes) {}

  private final Backups backups;

  BackupController(Backups backups) {
    this.backups = backups;
  }

  /** Takes one, and answers when it is on the disk. */
  @PostMapping(path = "/api/backups", produces = MediaType.APPLICATION_JSON_VALUE)
  @ResponseStatus(HttpStatus.CREATED)
  BackupView take() throws IOException, SQLException {
    Backups.Taken taken = backups.take();
    return new BackupView(taken.file().toString(), taken.taken(), taken.bytes());
  }
}
