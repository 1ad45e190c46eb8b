package org.ysthmos.bench.load;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import javax.sql.DataSource;

/**
 * The yardstick: the rows that intake writes for an event of one live bridge, written by plain JDBC
 * through the same pool, in group commits that are forced to the disk. Nothing is verified, parsed
 * or looked up.
 */
final class GroupCommits {

  private static final String EVENT =
      "INSERT INTO event (seq, system_id, source_id, collection_id, kind, record_id, happened_at, received_at, origin, body) VALUES (?,?,?,?,?,?,?,?,?,?)";
  private static final String TRACE =
      "INSERT INTO trace (seq, id, event_seq, bridge_id, order_key, tries, received_at, is_try) VALUES (?,?,?,?,?,0,?,FALSE)";
  private static final String WORK =
      "INSERT INTO trace_work (trace_seq, queue_id, order_key, state, tries, breaks) VALUES (?,?,?,?,0,0)";
  private static final String WORDS = "INSERT INTO seen_words (trace_seq, words) VALUES (?,?)";

  private final DataSource pool;
  private final Running running;
  private final AtomicLong next = new AtomicLong(1_000_000_000L);

  GroupCommits(DataSource pool, Running running) {
    this.pool = pool;
    this.running = running;
  }

  private record Offer(long number, CompletableFuture<Boolean> kept) {}

  /** So many senders, each waiting for its row to be on the disk; gives the seconds. */
  double write(int senders, int count) {
    BlockingQueue<Offer> queue = new ArrayBlockingQueue<>(10_000);
    AtomicBoolean open = new AtomicBoolean(true);
    Thread writer = Thread.ofPlatform().start(() -> loop(queue, open));
    AtomicLong left = new AtomicLong(count);
    long began = System.nanoTime();
    try (ExecutorService threads = Executors.newFixedThreadPool(senders)) {
      for (int i = 0; i < senders; i++) {
        threads.execute(
            () -> {
              while (left.getAndDecrement() > 0) {
                Offer offer = new Offer(next.incrementAndGet(), new CompletableFuture<>());
                queue.add(offer);
                boolean unused = offer.kept().join();
              }
            });
      }
    }
    double seconds = (System.nanoTime() - began) / 1e9;
    open.set(false);
    try {
      writer.join();
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
    return seconds;
  }

  /**
   * The same rows, each sender committing and forcing its own through the pool, so that it is the
   * database that groups; gives the seconds.
   */
  double writeEachAlone(int senders, int count) {
    AtomicLong left = new AtomicLong(count);
    long began = System.nanoTime();
    try (ExecutorService threads = Executors.newFixedThreadPool(senders)) {
      for (int i = 0; i < senders; i++) {
        threads.execute(() -> commitEach(left));
      }
    }
    return (System.nanoTime() - began) / 1e9;
  }

  private void commitEach(AtomicLong left) {
    while (left.getAndDecrement() > 0) {
      try (Connection connection = pool.getConnection()) {
        connection.setAutoCommit(false);
        insert(connection, List.of(next.incrementAndGet()));
        connection.setAutoCommit(true);
      } catch (SQLException e) {
        throw new IllegalStateException(e);
      }
    }
  }

  private void loop(BlockingQueue<Offer> queue, AtomicBoolean open) {
    try (Connection connection = pool.getConnection()) {
      connection.setAutoCommit(false);
      while (open.get() || !queue.isEmpty()) {
        Offer first = queue.poll(20, java.util.concurrent.TimeUnit.MILLISECONDS);
        if (first == null) {
          continue;
        }
        List<Offer> batch = new ArrayList<>(List.of(first));
        queue.drainTo(batch, 127);
        insert(connection, batch.stream().map(Offer::number).toList());
        batch.forEach(offer -> offer.kept().complete(true));
      }
      connection.setAutoCommit(true);
    } catch (SQLException | InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  /** All rows of one page in one commit; the yardstick of a poll. */
  double pages(int count, int page) {
    long began = System.nanoTime();
    try (Connection connection = pool.getConnection()) {
      connection.setAutoCommit(false);
      for (int done = 0; done < count; done += page) {
        List<Long> numbers = new ArrayList<>();
        for (int i = 0; i < page; i++) {
          numbers.add(next.incrementAndGet());
        }
        insert(connection, numbers);
      }
      connection.setAutoCommit(true);
    } catch (SQLException e) {
      throw new IllegalStateException(e);
    }
    return (System.nanoTime() - began) / 1e9;
  }

  private void insert(Connection connection, List<Long> numbers) throws SQLException {
    OffsetDateTime now = OffsetDateTime.now(ZoneOffset.UTC);
    try (PreparedStatement event = connection.prepareStatement(EVENT);
        PreparedStatement trace = connection.prepareStatement(TRACE);
        PreparedStatement work = connection.prepareStatement(WORK);
        PreparedStatement words = connection.prepareStatement(WORDS);
        Statement force = connection.createStatement()) {
      for (long number : numbers) {
        String key = "source/notes/n-" + number;
        set(
            event,
            number,
            "source",
            "y-" + number,
            "notes",
            "created",
            "n-" + number,
            now,
            now,
            "TOLD");
        event.setBytes(10, running.body(number).getBytes(StandardCharsets.UTF_8));
        event.addBatch();
        set(trace, number, "y" + number, number, "yardstick", key, now);
        trace.addBatch();
        // Under a queue that nobody works off.
        set(work, number, "yardstick", key, "READY");
        work.addBatch();
        set(words, number, "y" + number + " n-" + number);
        words.addBatch();
      }
      event.executeBatch();
      trace.executeBatch();
      work.executeBatch();
      words.executeBatch();
      connection.commit();
      force.execute("CHECKPOINT SYNC");
    }
  }

  private static void set(PreparedStatement statement, Object... values) throws SQLException {
    for (int i = 0; i < values.length; i++) {
      statement.setObject(i + 1, values[i]);
    }
  }
}
