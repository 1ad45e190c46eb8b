package org.ysthmos.core.recall;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.ysthmos.core.recall.PutBack.Undone;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

class PutBackTest {

  private static final List<String> FIELDS = List.of("title", "lane", "due");

  private static Map<String, Value> of(String... pairs) {
    Map<String, Value> fields = new TreeMap<>();
    for (int i = 0; i < pairs.length; i += 2) {
      fields.put(pairs[i], Text.of(pairs[i + 1]));
    }
    return fields;
  }

  @Test
  void whatWasHeldBeforeTheFirstOfSeveralChanges() {
    PutBack back =
        PutBack.of(
            List.of(
                new Undone(of("title", "B"), of("title", "A")),
                new Undone(of("title", "C", "lane", "x"), of("title", "B"))),
            of("title", "C", "lane", "x"),
            Set.of());
    assertThat(back.fields()).containsExactlyEntriesOf(of("title", "A"));
    assertThat(back.unknown()).containsExactly("lane");
    assertThat(back.isWhole()).isFalse();
  }

  @Test
  void whatWasWrittenAnewSinceStays() {
    PutBack back =
        PutBack.of(
            List.of(new Undone(of("title", "B", "due", "1"), of("title", "A", "due", "0"))),
            of("title", "later", "due", "1"),
            Set.of());
    assertThat(back.since()).containsExactly("title");
    assertThat(back.fields()).containsExactlyEntriesOf(of("due", "0"));
    assertThat(back.isWhole()).isTrue();
  }

  /** What was emptied is not kept as agreed, and is put back all the same. */
  @Test
  void whatWasEmptiedIsFilledAgain() {
    PutBack back =
        PutBack.of(
            List.of(new Undone(Map.of("due", Nothing.NOTHING), of("due", "0"))),
            Map.of(),
            Set.of());
    assertThat(back.fields()).containsExactlyEntriesOf(of("due", "0"));
  }

  @Test
  void whatOthersWriteTooIsLeft() {
    PutBack back =
        PutBack.of(
            List.of(new Undone(of("title", "B"), of("title", "A"))),
            of("title", "B"),
            Set.of("title"));
    assertThat(back.fields()).isEmpty();
    assertThat(back.unknown()).containsExactly("title");
  }

  /** Against a history that is played through again without what is undone. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
  void asIfItHadNeverBeen(long seed) {
    Random random = new Random(seed);
    for (int round = 0; round < 200; round++) {
      Map<String, Value> held = new HashMap<>();
      Map<String, Value> without = new HashMap<>();
      FIELDS.forEach(field -> held.put(field, Text.of("made")));
      without.putAll(held);
      List<Undone> undone = new ArrayList<>();
      Set<String> changedByUndone = new java.util.HashSet<>();
      for (int step = 0; step < 6; step++) {
        boolean undo = random.nextBoolean();
        Map<String, Value> write = new TreeMap<>();
        for (String field : FIELDS) {
          // Only what differs is ever written.
          Value value = Text.of(round + "/" + step + "/" + field);
          if (random.nextInt(3) == 0) {
            write.put(field, value);
          }
        }
        if (write.isEmpty()) {
          continue;
        }
        Map<String, Value> before = new HashMap<>(held);
        before.keySet().retainAll(write.keySet());
        held.putAll(write);
        if (undo) {
          undone.add(new Undone(write, before));
          changedByUndone.addAll(write.keySet());
        } else {
          without.putAll(write);
        }
      }
      if (undone.isEmpty()) {
        continue;
      }
      PutBack back = PutBack.of(undone, held, Set.of());
      held.putAll(back.fields());
      assertThat(held).isEqualTo(without);
      assertThat(back.unknown()).isEmpty();
      assertThat(back.fields().size() + back.since().size()).isEqualTo(changedByUndone.size());
    }
  }
}
