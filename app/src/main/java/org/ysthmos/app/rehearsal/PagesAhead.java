package org.ysthmos.app.rehearsal;

import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.ysthmos.app.event.EventMapper.EventRow;
import org.ysthmos.app.rehearsal.Past.PastEvent;
import org.ysthmos.app.rehearsal.PastMapper.Which;

/**
 * Gives events of the past page by page and reads ahead: while one page is decided, what became of
 * the events of the next is read, and the events of the one after that. Not for several threads.
 */
final class PagesAhead implements AutoCloseable {

  private final Past past;
  private final String bridge;
  private final Which which;

  /** Their own, since what all share may have one thread alone where there are few processors. */
  private final ExecutorService readers =
      Executors.newFixedThreadPool(2, Thread.ofPlatform().name("past-", 1).daemon().factory());

  private Page next;
  private Page afterNext;

  /**
   * @param rows its events alone
   * @param whole with what became of them
   */
  private record Page(
      CompletableFuture<List<EventRow>> rows, CompletableFuture<List<PastEvent>> whole) {}

  PagesAhead(Past past, String bridge, Which which) {
    this.past = past;
    this.bridge = bridge;
    this.which = which;
    this.next = page(CompletableFuture.supplyAsync(() -> past.rows(which), readers));
    this.afterNext = after(next);
  }

  private Page page(CompletableFuture<List<EventRow>> rows) {
    return new Page(rows, rows.thenApplyAsync(some -> past.whole(bridge, some), readers));
  }

  private Page after(Page page) {
    return page(
        page.rows()
            .thenApplyAsync(
                rows -> rows.isEmpty() ? rows : past.rows(which.from(rows.getLast().seq() + 1)),
                readers));
  }

  /**
   * The next page; empty once all were given.
   *
   * @throws RuntimeException what went wrong while it was read
   */
  List<PastEvent> next() {
    List<PastEvent> page = joined(next.whole());
    next = afterNext;
    afterNext = after(next);
    return page;
  }

  /** What is being read is read to its end, as nobody interrupts a thread in the database. */
  @Override
  public void close() {
    readers.shutdown();
  }

  private static <T> T joined(CompletableFuture<T> promised) {
    try {
      return promised.join();
    } catch (CompletionException e) {
      throw e.getCause() instanceof RuntimeException thrown ? thrown : e;
    }
  }
}
