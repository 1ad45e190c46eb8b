package org.ysthmos.app.keep;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.util.concurrent.locks.Lock;
import java.util.concurrent.locks.ReentrantLock;
import javax.sql.DataSource;
import org.h2.engine.SessionLocal;
import org.h2.jdbc.JdbcConnection;
import org.h2.mvstore.MVStore;
import org.h2.mvstore.RandomAccessStore;
import org.springframework.stereotype.Component;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;
import org.ysthmos.app.work.KeptThread;
import org.ysthmos.app.work.WithThread;
import org.ysthmos.app.work.WorkSignals;

/**
 * Keeps the data file near the size of what is in it. With each forced commit the database writes
 * all pages that were touched as one chunk; the space of a chunk is free once none of its pages is
 * in use any more. The database's own upkeep ends for good when it was of no use once while little
 * was written, as at ten events a second, so that it is done here: small steps, many times a second
 * (decision 53).
 */
@Component
public class FileUpkeep implements WithThread {

  private static final Duration BETWEEN = Duration.ofMillis(200);

  /** After a step that broke, so that the log is not full of it. */
  private static final Duration AFTER_A_FAULT = Duration.ofMinutes(1);

  /**
   * What the file is to be like.
   *
   * @param inUse how much of all chunks is to be in use, in percent; pages in use are written
   *     together anew
   * @param filled how much of the file is to be chunks, in percent; else chunks move to its
   *     beginning
   */
  private record Aim(int inUse, int filled) {}

  private static final Aim CALM = new Aim(80, 80);

  /** While others wait for the disk again and again, who would wait for this, too. */
  private static final Aim BUSY = new Aim(60, 50);

  /** How many bytes of pages a step writes anew at first, for each ten percent that are missing. */
  private static final int REWRITTEN = 1 << 18;

  /** How many bytes of pages may be written anew at once. */
  private static final long MOST_REWRITTEN = 1 << 24;

  /** How many bytes of chunks move by a step at first; the file grows by them meanwhile. */
  private static final int MOVED = 1 << 18;

  /** However large the file is, nobody is to wait for more than this. */
  private static final long MOST_WAITED_FOR = 1 << 22;

  /** At rest nobody waits, but there must be room on the disk for it. */
  private static final long MOST_AT_REST = 1 << 25;

  private final DataSource source;
  private final Journal journal;
  private final DiskRoom room;
  private final KeptThread thread;
  private final ReentrantLock step = new ReentrantLock();
  private final Effort rewriting = new Effort(REWRITTEN);
  private final Effort moving = new Effort(MOVED);
  private boolean wroteBefore;
  private long versionBefore = -1;
  private boolean broke;

  FileUpkeep(DataSource source, Journal journal, DiskRoom room) {
    this.source = source;
    this.journal = journal;
    this.room = room;
    this.thread =
        KeptThread.ofRounds(
            "file-upkeep",
            new WorkSignals.Signal(),
            () -> broke ? AFTER_A_FAULT : BETWEEN,
            this::round,
            "The data file could not be kept small");
  }

  private void round() {
    // What is written together anew takes room before it gives any back.
    if (room.shortage().isEmpty()) {
      broke = true;
      step();
      broke = false;
    }
  }

  /** Does one step, unless the file is to be still. */
  void step() {
    if (!step.tryLock()) {
      return;
    }
    try (Connection database = source.getConnection()) {
      MVStore store = store(database);
      if (store.getFileStore() instanceof RandomAccessStore file && file.isSpaceReused()) {
        tidy(store, file);
      }
    } catch (SQLException e) {
      throw new IllegalStateException("the data file cannot be seen", e);
    } finally {
      step.unlock();
    }
  }

  private void tidy(MVStore store, RandomAccessStore file) {
    boolean writing = journal.isWriting();
    Aim aim = writing && wroteBefore ? BUSY : CALM;
    wroteBefore = writing;
    long chunks = file.size() / 100 * file.getFillRate();
    int missing = aim.inUse() - file.getChunksFillRate();
    if (missing > 0) {
      rewrite(store, aim, missing, chunks);
    }
    if (file.getFillRate() < aim.filled()) {
      boolean atRest = store.getCurrentVersion() == versionBefore;
      move(store, file, aim, chunks, atRest);
    }
    versionBefore = store.getCurrentVersion();
  }

  private void rewrite(MVStore store, Aim aim, int missing, long chunks) {
    if (!rewriting.isWorth(chunks, MOST_REWRITTEN)) {
      return;
    }
    long wanted = rewriting.bytes(MOST_REWRITTEN) * (1 + missing / 10);
    long bytes = Math.min(MOST_REWRITTEN, wanted);
    boolean ofUse = store.compact(aim.inUse(), (int) bytes);
    if (ofUse || aim.equals(CALM)) {
      // It does nothing either where others hold the file, and then more would be of no use.
      rewriting.was(ofUse, chunks, MOST_REWRITTEN);
    }
  }

  private void move(MVStore store, RandomAccessStore file, Aim aim, long chunks, boolean atRest) {
    // While others write, it must not grow by more than what could be won.
    long most =
        atRest
            ? Math.min(chunks, MOST_AT_REST)
            : Math.clamp(file.size() - chunks, MOVED, MOST_WAITED_FOR);
    if (moving.isWorth(chunks, most)) {
      long before = file.size();
      file.compactMoveChunks(aim.filled(), moving.bytes(most), store);
      moving.was(file.size() < before, chunks, most);
    }
  }

  private static MVStore store(Connection database) throws SQLException {
    SessionLocal session = (SessionLocal) database.unwrap(JdbcConnection.class).getSession();
    return session.getDatabase().getStore().getMvStore();
  }

  /** While somebody holds it, nothing moves in the file. */
  public Lock still() {
    return step;
  }

  @Override
  public KeptThread thread() {
    return thread;
  }
}
