package org.ysthmos.core.sync;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.ysthmos.core.sync.FieldOutcome.Carried;
import org.ysthmos.core.sync.FieldOutcome.Conflict;
import org.ysthmos.core.value.ListValue;
import org.ysthmos.core.value.Nothing;
import org.ysthmos.core.value.Text;
import org.ysthmos.core.value.Value;

/**
 * People change both sides at random, each side stores things its own way, answers get lost, and
 * looks are repeated (Stevens, “Bidirectional model transformations in QVT”, 2010: correctness and
 * hippocraticness; nothing disappears unseen is our own law).
 */
class ReconcilerLawsTest {

  private static final int ROUNDS = 60;

  static LongStream seeds() {
    return LongStream.range(0, 500);
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void bothSidesStayTrue(long seed) {
    Play play = new Play(new Random(seed));
    IntStream.range(0, ROUNDS).forEach(round -> play.round());
  }

  /** Two tasks, the rules between them, and how each side stores what is written. */
  private static final class Play {
    private final Random random;
    private final List<SyncField> fields = new ArrayList<>();
    private final Map<Side, Map<String, Value>> held = new HashMap<>();
    private final Map<Side, UnaryOperator<Value>> stores = new HashMap<>();
    private final Reconciler reconciler;
    private Agreed agreed = new Agreed(Map.of(), Map.of());
    private final Map<Side, Optional<Instant>> changedAt = new HashMap<>();

    Play(Random random) {
      this.random = random;
      for (int i = 1 + random.nextInt(4); i > 0; i--) {
        fields.add(field("f" + i));
      }
      reconciler = new Reconciler(fields);
      for (Side side : Side.values()) {
        held.put(side, new LinkedHashMap<>());
        stores.put(side, random.nextBoolean() ? value -> value : Play::shortened);
      }
    }

    private SyncField field(String name) {
      return new SyncField(
          name,
          left(Direction.values()),
          left(BothChanged.values()),
          left(Drift.values()),
          random.nextBoolean() ? Way.SAME : Way.of(table()));
    }

    private <T> T left(T[] some) {
      return some[random.nextInt(some.length)];
    }

    private StatusTable table() {
      Map<String, String> there = new HashMap<>();
      Map<String, String> back = new HashMap<>();
      for (char letter = 'a'; letter < 'g'; letter++) {
        there.put("" + letter, "" + (char) ('a' + random.nextInt(6)));
        back.put("" + letter, "" + (char) ('a' + random.nextInt(6)));
      }
      return new StatusTable(there, back);
    }

    /** A side that keeps texts of three characters. */
    private static Value shortened(Value value) {
      return value instanceof Text text && text.text().length() > 3
          ? Text.of(text.text().substring(0, 3).strip())
          : value;
    }

    private TaskNow now(Side side) {
      return new TaskNow(held.get(side), changedAt.get(side));
    }

    void round() {
      for (Side side : Side.values()) {
        changedAt.put(
            side,
            Optional.of(Instant.ofEpochSecond(random.nextInt(3)))
                .filter(any -> random.nextInt(4) > 0));
      }
      for (int edits = random.nextInt(4); edits > 0; edits--) {
        edit();
      }
      Map<Side, Map<String, Value>> before = copy();
      Reconciliation came = look(Map.of());
      checkNothingIsLost(came, before);
      checkWhatAgreesIsNotTouched(came, before);
      if (random.nextInt(5) == 0) {
        // The answers to what was written got lost: the next look sees it as it is.
        write(came);
      } else {
        agreed = write(came);
      }
      if (random.nextInt(5) == 0) {
        follow(left(Side.values()));
      }
      settle();
    }

    /** One side follows the other: nothing of it is left to be asked, and all of it is named. */
    private void follow(Side leads) {
      Map<Side, Map<String, Value>> before = copy();
      Reconciliation came = reconciler.follow(agreed, now(Side.LEFT), now(Side.RIGHT), leads);
      checkWhatAgreesIsNotTouched(came, before);
      List<SyncField> led =
          fields.stream().filter(field -> field.direction().carries(leads)).toList();
      for (SyncField field : led) {
        assertThat(came.writes(leads)).doesNotContainKey(field.name());
        Value there = before.get(leads.across()).getOrDefault(field.name(), Nothing.NOTHING);
        if (came.writes(leads.across()).containsKey(field.name()) && there != Nothing.NOTHING) {
          assertThat(came.outcomes())
              .anyMatch(
                  one ->
                      one instanceof Carried carried && carried.over().equals(Optional.of(there)));
        }
      }
      agreed = write(came);
      assertThat(look(Map.of()).outcomes())
          .filteredOn(one -> led.stream().anyMatch(field -> field.name().equals(one.field())))
          .allMatch(FieldOutcome.Unchanged.class::isInstance);
    }

    private void edit() {
      SyncField field = fields.get(random.nextInt(fields.size()));
      held.get(left(Side.values())).put(field.name(), drawn(field));
    }

    private Value drawn(SyncField field) {
      if (field.way() != Way.SAME) {
        return Text.of("" + (char) ('a' + random.nextInt(6)));
      }
      String letters = "abcd".substring(0, random.nextInt(5));
      return switch (random.nextInt(4)) {
        case 0 -> Nothing.NOTHING;
        case 1 -> ListValue.ofTexts((letters + "x").split(""));
        default -> Text.of(String.join("\n\n", (letters + "y").split("")));
      };
    }

    private Reconciliation look(Map<String, Answer> answers) {
      TaskNow left = now(Side.LEFT);
      TaskNow right = now(Side.RIGHT);
      Reconciliation came = reconciler.reconcile(agreed, left, right, answers);
      assertThat(reconciler.reconcile(agreed, left, right, answers)).isEqualTo(came);
      return came;
    }

    private Agreed write(Reconciliation came) {
      Map<Side, Map<String, Value>> stored = new HashMap<>();
      for (Side side : Side.values()) {
        Map<String, Value> kept = new HashMap<>();
        came.writes(side).forEach((name, value) -> kept.put(name, stores.get(side).apply(value)));
        held.get(side).putAll(kept);
        stored.put(side, kept);
      }
      return came.after(stored.get(Side.LEFT), stored.get(Side.RIGHT));
    }

    private Map<Side, Map<String, Value>> copy() {
      Map<Side, Map<String, Value>> copy = new HashMap<>();
      held.forEach((side, fields) -> copy.put(side, new HashMap<>(fields)));
      return copy;
    }

    /** With nobody typing, the second look writes nothing; conflicts stand until answered. */
    private void settle() {
      for (int looks = 0; looks < 2; looks++) {
        agreed = write(look(Map.of()));
      }
      Reconciliation still = look(Map.of());
      assertThat(still.writes(Side.LEFT)).isEmpty();
      assertThat(still.writes(Side.RIGHT)).isEmpty();
      agreed = write(still);
      Map<String, Answer> answers = new HashMap<>();
      for (FieldOutcome outcome : still.outcomes()) {
        if (outcome instanceof Conflict) {
          answers.put(outcome.field(), new Answer.Wins(left(Side.values())));
        }
      }
      if (!answers.isEmpty() && random.nextBoolean()) {
        agreed = write(look(answers));
        Reconciliation after = look(Map.of());
        assertThat(after.outcomes()).noneMatch(Conflict.class::isInstance);
        assertThat(after.writes(Side.LEFT)).isEmpty();
        assertThat(after.writes(Side.RIGHT)).isEmpty();
      }
    }

    /** What a person entered and is written over is named; in a conflict nothing is written. */
    private void checkNothingIsLost(Reconciliation came, Map<Side, Map<String, Value>> before) {
      for (FieldOutcome outcome : came.outcomes()) {
        if (outcome instanceof Carried carried) {
          Value there = before.get(carried.to()).getOrDefault(carried.field(), Nothing.NOTHING);
          boolean entered = !there.equals(agreed.of(carried.to(), carried.field()));
          assertThat(carried.over()).isEqualTo(entered ? Optional.of(there) : Optional.empty());
        }
        if (outcome instanceof FieldOutcome.Merged merged) {
          for (Side side : Side.values()) {
            Value now = before.get(side).getOrDefault(merged.field(), Nothing.NOTHING);
            Value then = (side == Side.LEFT ? merged.left() : merged.right()).orElse(now);
            assertThat(parts(then)).containsAll(added(now, agreed.of(side, merged.field())));
          }
        }
      }
    }

    private static List<String> added(Value now, Value base) {
      List<String> added = new ArrayList<>(parts(now));
      added.removeAll(parts(base));
      return added;
    }

    private static List<String> parts(Value value) {
      return switch (value) {
        case ListValue list -> list.items().stream().map(Value::display).toList();
        case Nothing nothing -> List.of();
        default -> List.of(value.display().split("\n\n"));
      };
    }

    private void checkWhatAgreesIsNotTouched(
        Reconciliation came, Map<Side, Map<String, Value>> before) {
      for (SyncField field : fields) {
        Value left = before.get(Side.LEFT).getOrDefault(field.name(), Nothing.NOTHING);
        Value right = before.get(Side.RIGHT).getOrDefault(field.name(), Nothing.NOTHING);
        if (field.way().agree(left, right)) {
          assertThat(came.writes(Side.LEFT)).doesNotContainKey(field.name());
          assertThat(came.writes(Side.RIGHT)).doesNotContainKey(field.name());
        }
      }
    }
  }
}
