package org.ysthmos.app.rehearsal;

import java.util.ArrayDeque;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.rehearsal.Past.PastEvent;
import org.ysthmos.app.rehearsal.PastMapper.Which;

/**
 * Gives events of the past piece by piece and reads ahead: rows in long pages, as each question to
 * the database has its price, and what they hold in short pieces, as trees of JSON that wait are
 * large, grow cold in the processor's cache and are moved about by the garbage collector. Not for
 * several threads.
 */
final class PagesAhead implements AutoCloseable {

  private static final int PAGE = 300;
  private static final int PIECE = 50;

  /**
   * So many pieces are read beside the one that is decided: more than are decided while the thread
   * that reads them waits for its turn at a processor.
   */
  private static final int AHEAD = 4;

  private final Past past;
  private final String bridge;
  private final Which which;

  /**
   * One, which takes about as long as the one that decides; with two they would be more than the
   * processors of a small machine. Its own, since what all share may be one thread alone there.
   */
  private final ExecutorService reader =
      Executors.newSingleThreadExecutor(Thread.ofPlatform().name("past").daemon().factory());

  private final Queue<CompletableFuture<List<PastEvent>>> pieces = new ArrayDeque<>();

  /** What is not in pieces yet of the page at hand. */
  private List<EventRow> rows = List.of();

  private CompletableFuture<List<EventRow>> nextRows;

  PagesAhead(Past past, String bridge, Which which) {
    this.past = past;
    this.bridge = bridge;
    this.which = which;
    this.nextRows = rowsOf(which);
  }

  private CompletableFuture<List<EventRow>> rowsOf(Which some) {
    return CompletableFuture.supplyAsync(() -> past.rows(some, PAGE), reader);
  }

  /**
   * The next piece; empty once all were given.
   *
   * @throws RuntimeException what went wrong while it was read
   */
  List<PastEvent> next() {
    for (List<EventRow> piece = piece(); !piece.isEmpty(); piece = piece()) {
      List<EventRow> one = piece;
      pieces.add(CompletableFuture.supplyAsync(() -> past.whole(bridge, one), reader));
      if (pieces.size() > AHEAD) {
        break;
      }
    }
    return pieces.isEmpty() ? List.of() : joined(pieces.remove());
  }

  /** The rows of the next piece; none once all were given. */
  private List<EventRow> piece() {
    if (rows.isEmpty()) {
      rows = joined(nextRows);
      if (rows.isEmpty()) {
        return rows;
      }
      nextRows = rowsOf(which.from(rows.getLast().seq() + 1));
    }
    List<EventRow> piece = rows.subList(0, Math.min(PIECE, rows.size()));
    rows = rows.subList(piece.size(), rows.size());
    return piece;
  }

  /** What is being read is read to its end, as nobody interrupts a thread in the database. */
  @Override
  public void close() {
    reader.shutdown();
  }

  private static <T> T joined(CompletableFuture<T> promised) {
    try {
      return promised.join();
    } catch (CompletionException e) {
      throw e.getCause() instanceof RuntimeException thrown ? thrown : e;
    }
  }
}
