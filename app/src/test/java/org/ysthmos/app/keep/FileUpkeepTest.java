package org.ysthmos.app.keep;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.h2.jdbcx.JdbcConnectionPool;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.ysthmos.app.store.DiskRoom;
import org.ysthmos.app.store.Journal;

/** A file in which most is dead becomes small again while others write to it; nothing is lost. */
class FileUpkeepTest {

  private static final int MANY = 4_000;

  @TempDir private Path folder;
  private JdbcConnectionPool pool;
  private JdbcClient database;
  private FileUpkeep upkeep;

  @BeforeEach
  void open() {
    // The database's own upkeep does nothing, so that what is seen is ours.
    pool = JdbcConnectionPool.create(url() + ";AUTO_COMPACT_FILL_RATE=0", "ysthmos", "");
    database = JdbcClient.create(pool);
    upkeep = new FileUpkeep(pool, mock(Journal.class), mock(DiskRoom.class));
    database
        .sql("CREATE TABLE IF NOT EXISTS note (id INTEGER PRIMARY KEY, text VARCHAR(2000))")
        .update();
  }

  private String url() {
    return "jdbc:h2:file:" + folder.resolve("notes") + ";WRITE_DELAY=50;RETENTION_TIME=0";
  }

  @AfterEach
  void close() {
    pool.dispose();
  }

  private long size() throws IOException {
    return Files.size(folder.resolve("notes.mv.db"));
  }

  private static String text(int id) {
    Random random = new Random(id);
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < 150; i++) {
      text.append(Long.toString(random.nextLong(1_000_000), 36)).append(' ');
    }
    return text.toString();
  }

  private void write(int id) {
    int unused =
        database.sql("INSERT INTO note VALUES (?, ?)").param(id).param(text(id)).update()
            + database.sql("CHECKPOINT SYNC").update();
  }

  private void everyTenthStays() {
    for (int id = 0; id < MANY; id++) {
      write(id);
    }
    database.sql("DELETE FROM note WHERE MOD(id, 10) <> 0").update();
    database.sql("CHECKPOINT SYNC").update();
  }

  private void someSteps() {
    for (int i = 0; i < 100; i++) {
      upkeep.step();
      database.sql("CHECKPOINT SYNC").update();
    }
  }

  private List<String> texts() {
    return database.sql("SELECT text FROM note ORDER BY id").query(String.class).list();
  }

  @Test
  void whatIsDeadIsGivenBack() throws Exception {
    everyTenthStays();
    long before = size();
    someSteps();
    long after = size();
    assertThat(texts()).hasSize(MANY / 10).first().isEqualTo(text(0));
    database.sql("SHUTDOWN COMPACT").update();
    assertThat(after).isLessThan(before / 4).isLessThan(2 * size());
  }

  @Test
  void whoWritesMeanwhileLosesNothing() throws Exception {
    everyTenthStays();
    List<Future<?>> writers = new ArrayList<>();
    try (ExecutorService threads = Executors.newFixedThreadPool(3)) {
      for (int thread = 0; thread < 3; thread++) {
        int first = MANY * (thread + 1);
        writers.add(
            threads.submit(
                () -> {
                  for (int id = first; id < first + MANY / 4; id++) {
                    write(id);
                  }
                }));
      }
      while (!writers.stream().allMatch(Future::isDone)) {
        upkeep.step();
      }
      for (Future<?> writer : writers) {
        writer.get();
      }
    }
    List<String> before = texts();
    assertThat(before).hasSize(MANY / 10 + 3 * MANY / 4);
    // Nothing of it is in memory when it is read again.
    pool.dispose();
    open();
    assertThat(texts()).isEqualTo(before);
    assertThat(before.get(MANY / 10 + 7)).isEqualTo(text(MANY + 7));
  }

  @Test
  void nothingMovesWhileTheFileIsCopied() throws Exception {
    everyTenthStays();
    upkeep.still().lock();
    try {
      long before = size();
      Thread other = Thread.ofPlatform().start(this::someSteps);
      other.join();
      assertThat(size()).isGreaterThanOrEqualTo(before);
    } finally {
      upkeep.still().unlock();
    }
    long before = size();
    someSteps();
    assertThat(size()).isLessThan(before);
  }
}
