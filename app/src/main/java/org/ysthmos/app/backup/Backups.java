package org.ysthmos.app.backup;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;
import javax.sql.DataSource;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.ysthmos.app.Settings;
import org.ysthmos.app.keep.FileUpkeep;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.store.FreeSpace;
import org.ysthmos.app.time.AppClock;

/** Takes backups while the application runs. */
@Component
class Backups {

  /** A backup that was taken, and where it lies. */
  record Taken(Path file, Instant taken, long bytes) {}

  /**
   * How many copies of the database are there at once while one is taken: the copy, and the ZIP.
   */
  private static final int COPIES = 2;

  private static final String NAME = "ysthmos-";

  private final Path data;
  private final long reserve;
  private final DataSource source;
  private final FreeSpace space;
  private final Lock still;
  private final AppClock clock;
  private final ReentrantLock one = new ReentrantLock();

  Backups(
      DataSource source, FreeSpace space, FileUpkeep upkeep, AppClock clock, Settings settings) {
    this.data = settings.data().toAbsolutePath().normalize();
    this.reserve = settings.reserve().toBytes();
    this.source = source;
    this.space = space;
    this.still = upkeep.still();
    this.clock = clock;
  }

  /**
   * Takes one into the data folder, from where whoever asked for it takes it.
   *
   * @throws ApiProblem if one is being taken, or there is no room for it
   */
  Taken take() throws IOException, SQLException {
    if (!one.tryLock()) {
      throw new ApiProblem(
          HttpStatus.CONFLICT, "Under way already", "A backup is being taken just now.");
    }
    try (Connection database = source.getConnection()) {
      Path folder = folder();
      needRoom();
      Instant taken = clock.instant();
      Path file = folder.resolve(NAME + taken.toEpochMilli() + ".zip");
      still.lock();
      try {
        BackupFile.take(database, data, file, taken);
      } finally {
        still.unlock();
      }
      return new Taken(file.toRealPath(), taken, Files.size(file));
    } finally {
      one.unlock();
    }
  }

  /**
   * Where they are made; nobody else puts anything there. What of ours lies there was never taken
   * away: the one who asked is gone.
   */
  private Path folder() throws IOException {
    Path folder = data.resolve("backup-under-way");
    if (!Files.exists(folder)) {
      Files.createDirectory(
          folder,
          PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
    }
    try (DirectoryStream<Path> left = Files.newDirectoryStream(folder, NAME + "*")) {
      for (Path file : left) {
        Files.delete(file);
      }
    }
    return folder;
  }

  private void needRoom() throws IOException {
    long needed = COPIES * Files.size(data.resolve(BackupFile.DATABASE)) + reserve;
    if (space.bytes() < needed) {
      throw new ApiProblem(
          HttpStatus.INSUFFICIENT_STORAGE,
          "No room",
          "A backup needs %,d MB on the disk of %s while it is taken; %,d MB are free."
              .formatted(needed >> 20, data, space.bytes() >> 20));
    }
  }
}
