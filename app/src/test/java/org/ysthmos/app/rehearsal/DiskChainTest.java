package org.ysthmos.app.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.ysthmos.core.decide.Verdict;
import org.ysthmos.core.pair.MatchKey;
import org.ysthmos.core.rehearsal.Outcome;
import org.ysthmos.core.rehearsal.PairChain;
import org.ysthmos.core.rehearsal.WrittenFields;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;

class DiskChainTest {

  @TempDir private Path folder;

  private static String key(int number) {
    return MatchKey.of("bridge", List.of(new Text("record " + number))).hash();
  }

  /** Now and then one that is longer than what is held back. */
  private static Outcome.Task task(Random random, String key) {
    String text = "word ".repeat(random.nextInt(200) == 0 ? 20_000 : random.nextInt(8));
    return new Outcome.Task(
        "",
        Verdict.CREATE,
        key,
        Optional.of("T-" + random.nextInt()),
        WrittenFields.of(Map.of("Text", new Text(text), "Other", Nothing.NOTHING)),
        WrittenFields.of(Map.of()));
  }

  @Test
  void pairsStandAsTheyWouldInMemory() {
    Random random = new Random(7);
    Map<Long, Outcome> decided = new HashMap<>();
    Path file = folder.resolve("pairs");
    PairChain memory = PairChain.inMemory();
    try (DiskChain disk = new DiskChain(file, seq -> Optional.ofNullable(decided.get(seq)))) {
      for (int i = 1; i <= 20_000; i++) {
        String key = key(random.nextInt(5_000));
        Outcome.Task task = task(random, key);
        switch (random.nextInt(5)) {
          case 0 -> {
            decided.put((long) i, new Outcome(Verdict.CREATE, "", List.of(task)));
            disk.at(i);
            disk.putAsThen(task);
            memory.putAsThen(task);
          }
          case 1 -> {
            disk.put(task);
            memory.put(task);
          }
          case 2 -> {
            disk.putNone(key);
            memory.putNone(key);
          }
          default -> {
            assertThat(disk.knows(key)).isEqualTo(memory.knows(key));
            assertThat(disk.find(key)).isEqualTo(memory.find(key));
          }
        }
      }
      for (int i = 0; i < 5_000; i++) {
        assertThat(disk.find(key(i))).isEqualTo(memory.find(key(i)));
      }
    }
    assertThat(file).doesNotExist();
  }

  @Test
  void whatAnotherLeftIsNotRead() throws Exception {
    Path file = Files.writeString(folder.resolve("pairs"), "left by a kill");
    try (DiskChain disk = new DiskChain(file, seq -> Optional.empty())) {
      assertThat(disk.find(key(1))).isEmpty();
      disk.put(task(new Random(1), key(1)));
      assertThat(disk.find(key(1))).isPresent();
    }
    assertThat(file).doesNotExist();
  }
}
