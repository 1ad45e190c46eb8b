package org.ysthmos.app.store;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Through which all that must not be lost is written: many changes in one transaction, then the
 * disk is forced once, then all who wait learn that it is done. One thread writes, so that no two
 * of its changes ever wait for each other's rows, and each sees what the ones before it did.
 *
 * <p>What a kill may undo, since it would be done again, is written with the others and not forced
 * for its own sake.
 *
 * <p>The database writes a chunk of all pages touched for each commit; few and large commits are
 * what keeps its file small and the path quick (decision 18).
 */
@Component
public class Journal implements SmartLifecycle {

  private static final Logger LOG = LoggerFactory.getLogger(Journal.class);
  private static final int LARGEST_BATCH = 128;
  private static final int LONGEST_QUEUE = 20_000;

  /** There is no room for more changes just now, or none is taken any more. */
  public static final class Full extends IllegalStateException {
    Full(String message) {
      super(message);
    }
  }

  private static final class Entry<T> {
    private final Supplier<T> change;
    private final boolean forced;
    private final CompletableFuture<T> done = new CompletableFuture<>();

    Entry(Supplier<T> change, boolean forced) {
      this.change = change;
      this.forced = forced;
    }

    /** Makes the change; gives what completes the promise once it is on the disk. */
    Runnable make() {
      T result = change.get();
      return () -> done.complete(result);
    }
  }

  private final BlockingQueue<Entry<?>> queue = new ArrayBlockingQueue<>(LONGEST_QUEUE);
  private final TransactionTemplate transaction;
  private final KeptConnection connection;
  private final DiskForce disk;
  private final DiskRoom room;
  private final boolean forces;
  private volatile boolean open;
  private volatile boolean writing;
  private Thread thread = new Thread();

  /**
   * @param forces whether anything is forced at all; if not, what was committed is on the disk half
   *     a second later. False only where a data folder is made that nobody uses yet
   */
  Journal(
      TransactionTemplate transaction,
      KeptConnection connection,
      DiskForce disk,
      DiskRoom room,
      @Value("${ysthmos.disk-forced:true}") boolean forces) {
    this.transaction = transaction;
    this.connection = connection;
    this.disk = disk;
    this.room = room;
    this.forces = forces;
  }

  /**
   * Makes a change together with others. If one of them throws, all are undone and each is made
   * again alone, so a change must have no effect but on the database.
   *
   * @return completes when the change is on the disk; fails with what the change threw, or with
   *     {@link Full}
   */
  public <T> CompletableFuture<T> write(Supplier<T> change) {
    return offer(new Entry<>(change, true));
  }

  /** The same for what a kill may undo, not waited for. */
  <T> CompletableFuture<T> offer(Supplier<T> change) {
    return offer(new Entry<>(change, false));
  }

  private <T> CompletableFuture<T> offer(Entry<T> entry) {
    if (!open) {
      entry.done.completeExceptionally(new Full("nothing is written any more, we are stopping"));
    } else if (room.isNone()) {
      entry.done.completeExceptionally(new Full("the disk is full"));
    } else if (!queue.offer(entry)) {
      entry.done.completeExceptionally(new Full("no room for more just now"));
    }
    return entry.done;
  }

  /**
   * The same, waited for. Interrupting who waits has no effect on what is written.
   *
   * @throws RuntimeException what the change threw
   */
  public <T> T now(Supplier<T> change) {
    return joined(write(change));
  }

  /**
   * The same for what a kill may undo, as it would be done again: it is waited for until it is
   * committed. It is on the disk with the next change that is forced, or half a second later.
   */
  public <T> T soon(Supplier<T> change) {
    return joined(offer(change));
  }

  private static <T> T joined(CompletableFuture<T> offered) {
    try {
      return offered.join();
    } catch (CompletionException e) {
      if (e.getCause() instanceof RuntimeException thrown) {
        throw thrown;
      }
      throw e;
    }
  }

  /** {@link #now} for a change that gives nothing. */
  public void run(Runnable change) {
    boolean unused = now(() -> done(change));
  }

  /** {@link #soon} for a change that gives nothing. */
  public void runSoon(Runnable change) {
    boolean unused = soon(() -> done(change));
  }

  private static boolean done(Runnable change) {
    change.run();
    return true;
  }

  private void loop() {
    List<Entry<?>> batch = new ArrayList<>(LARGEST_BATCH);
    while (open || !queue.isEmpty()) {
      try {
        Entry<?> first = queue.poll(100, TimeUnit.MILLISECONDS);
        if (first == null) {
          continue;
        }
        writing = true;
        batch.add(first);
        queue.drainTo(batch, LARGEST_BATCH - 1);
        write(batch);
      } catch (InterruptedException unwanted) {
        // Nobody interrupts this thread: an interrupt inside the database would close its file.
        LOG.warn("the journal was interrupted and goes on");
      } catch (Throwable broken) {
        // Whoever waits must learn of it, and the thread must live on.
        batch.forEach(entry -> entry.done.completeExceptionally(broken));
        LOG.error("the journal could not write", broken);
      } finally {
        batch.clear();
        writing = false;
      }
    }
    connection.release();
  }

  /** Whether somebody waits for the disk just now. */
  public boolean isWriting() {
    return writing;
  }

  private void write(List<Entry<?>> batch) {
    List<Runnable> done = new ArrayList<>(batch.size());
    try {
      connection.keep();
      transaction.executeWithoutResult(status -> batch.forEach(entry -> done.add(entry.make())));
    } catch (RuntimeException e) {
      connection.release();
      if (batch.size() == 1) {
        batch.getFirst().done.completeExceptionally(e);
      } else {
        // What cannot be written must not take the others with it.
        batch.forEach(entry -> write(List.of(entry)));
      }
      return;
    }
    if (forces && batch.stream().anyMatch(entry -> entry.forced)) {
      disk.force();
    }
    done.forEach(Runnable::run);
  }

  @Override
  public void start() {
    open = true;
    thread = Thread.ofPlatform().name("journal").daemon().start(this::loop);
  }

  /** Writes what was offered, then ends; nothing inside the database is interrupted. */
  @Override
  public void stop() {
    open = false;
    try {
      thread.join(TimeUnit.SECONDS.toMillis(20));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  @Override
  public boolean isRunning() {
    return open;
  }

  /** It is there before all who write, and goes after them. */
  @Override
  public int getPhase() {
    return 0;
  }
}
