package org.ysthmos.app.store;

import java.sql.SQLException;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * Sees that the database lives. One that could not write to its file has closed for good, and
 * threads that were inside turn in it without end; nothing but a new start helps then. Everything
 * that was acknowledged is on the disk.
 */
@Component
class DatabaseWatch {

  private static final Logger LOG = LoggerFactory.getLogger(DatabaseWatch.class);

  /** Nothing that is written at once takes so long, on no disk that can be worked with. */
  private static final Duration LONGEST = Duration.ofSeconds(90);

  /** The error code of H2. */
  private static final int DATABASE_IS_CLOSED = 90098;

  private final Journal journal;
  private final Pulse pulse;
  private final LastResort resort;
  private @Nullable CompletableFuture<Integer> asked;
  private long askedAt;

  DatabaseWatch(Journal journal, Pulse pulse, LastResort resort) {
    this.journal = journal;
    this.pulse = pulse;
    this.resort = resort;
  }

  @Scheduled(initialDelay = 10_000, fixedDelay = 5_000)
  void look() {
    CompletableFuture<Integer> before = asked;
    if (before == null || before.isDone()) {
      if (before != null && isDead(before)) {
        end("The database has closed itself; the disk was probably full.");
        return;
      }
      askedAt = System.nanoTime();
      asked = journal.offer(pulse::beat);
    } else if (System.nanoTime() - askedAt > LONGEST.toNanos()) {
      end("The database has not answered for %d seconds.".formatted(LONGEST.toSeconds()));
    }
  }

  private static boolean isDead(CompletableFuture<Integer> answer) {
    try {
      Integer unused = answer.join();
      return false;
    } catch (CompletionException e) {
      for (Throwable cause = e; cause != null; cause = cause.getCause()) {
        if (cause instanceof SQLException sql && sql.getErrorCode() == DATABASE_IS_CLOSED) {
          return true;
        }
      }
      return false;
    }
  }

  private void end(String why) {
    LOG.error("{} This process ends with {} and must be started again.", why, LastResort.TRY_AGAIN);
    resort.end(LastResort.TRY_AGAIN);
  }
}
