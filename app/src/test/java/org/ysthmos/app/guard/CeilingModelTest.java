package org.ysthmos.app.guard;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.springframework.transaction.support.TransactionSynchronizationUtils;
import org.ysthmos.core.bridge.BridgeDefinition;
import org.ysthmos.core.delivery.EffectKind;
import org.ysthmos.core.guard.Ceiling;

/**
 * Seeded schedules of events, workers that decide and store at other times, commits of several
 * changes, crashes with pauses of any length, steps of the clock and other versions of the bridge:
 * in no span is more stored than the ceiling allows, in time as it really went by.
 */
class CeilingModelTest {

  private static final String BRIDGE = "runaway";
  private static final int STEPS = 300;

  /** What was stored and committed, with when it really was. */
  private record Stored(long at, EffectKind kind, int effects) {}

  static LongStream seeds() {
    return LongStream.range(0, 1000);
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void neverMoreThanTheCeiling(long seed) {
    Run run = new Run(seed);
    IntStream.range(0, STEPS).forEach(step -> run.step());
    run.commit();
    run.end();
    run.check();
    assertThat(run.refused).as("a schedule that never reaches the ceiling shows nothing").isTrue();
  }

  private static final class Run {
    private final Random random;
    private final CountsInMemory database = new CountsInMemory();
    private final Ceiling ceiling;
    private final List<Map<EffectKind, Integer>> decided = new ArrayList<>();
    private final List<Stored> committed = new ArrayList<>();
    private final List<Stored> open = new ArrayList<>();
    private final int workers;
    private long millis = 1_000_000;
    private Duration clockIsOff = Duration.ZERO;
    private Ceilings ceilings;
    private boolean refused;

    Run(long seed) {
      random = new Random(seed);
      workers = 1 + random.nextInt(16);
      Duration per = Duration.ofSeconds(1L + random.nextInt(7200));
      ceiling = ceiling(per, 1 + random.nextInt(40), 1 + random.nextInt(40));
      ceilings = start();
    }

    private static Ceiling ceiling(Duration per, int creates, int changes) {
      Map<EffectKind, Integer> most = new EnumMap<>(EffectKind.class);
      most.put(EffectKind.CREATE, creates);
      most.put(EffectKind.CHANGE, changes);
      return Ceiling.of(Optional.of(new BridgeDefinition.Ceiling(most, per)), Map.of());
    }

    private Ceilings start() {
      return new Ceilings(
          database,
          new EffectCounts(database, this::clock),
          this::clock,
          false,
          () -> millis * 1_000_000 + 17);
    }

    private Instant clock() {
      return Instant.ofEpochMilli(millis).plus(clockIsOff);
    }

    void step() {
      millis += random.nextLong(ceiling.per().toMillis() / 20 + 2);
      switch (random.nextInt(20)) {
        case 0 -> crash();
        case 1 -> clockIsOff = Duration.ofMinutes(random.nextInt(10_000) - 5_000);
        case 2, 3, 4 -> commit();
        default -> {
          while (decided.size() < workers) {
            decided.add(decision());
          }
          store(decided.remove(random.nextInt(decided.size())));
        }
      }
    }

    private Map<EffectKind, Integer> decision() {
      Map<EffectKind, Integer> more = new EnumMap<>(EffectKind.class);
      more.put(EffectKind.CREATE, 1 + random.nextInt(4));
      if (random.nextBoolean()) {
        more.put(EffectKind.CHANGE, 1 + random.nextInt(4));
      }
      return more;
    }

    private void store(Map<EffectKind, Integer> more) {
      if (!TransactionSynchronizationManager.isSynchronizationActive()) {
        TransactionSynchronizationManager.initSynchronization();
      }
      if (ceilings.take(BRIDGE, ceiling, more).isPresent()) {
        refused = true;
        return;
      }
      more.forEach((kind, effects) -> open.add(new Stored(millis, kind, effects)));
    }

    void commit() {
      if (TransactionSynchronizationManager.isSynchronizationActive()) {
        TransactionSynchronizationUtils.triggerBeforeCommit(false);
      }
      database.commit();
      end();
      committed.addAll(open);
      open.clear();
    }

    /** The commit that is open, if any, is over: all of it or nothing is kept. */
    void end() {
      if (TransactionSynchronizationManager.isSynchronizationActive()) {
        TransactionSynchronizationUtils.triggerAfterCompletion(
            TransactionSynchronization.STATUS_UNKNOWN);
        TransactionSynchronizationManager.clearSynchronization();
      }
    }

    /** What was not committed is gone, whatever was decided too; then it stands still a while. */
    private void crash() {
      database.crash();
      end();
      open.clear();
      decided.clear();
      millis += random.nextLong(ceiling.per().toMillis() * 2);
      ceilings = start();
    }

    void check() {
      for (EffectKind kind : List.of(EffectKind.CREATE, EffectKind.CHANGE)) {
        for (Stored first : committed) {
          long end = first.at() + ceiling.per().toMillis();
          long within =
              committed.stream()
                  .filter(one -> one.kind() == kind && one.at() >= first.at() && one.at() < end)
                  .mapToLong(Stored::effects)
                  .sum();
          assertThat(within).isLessThanOrEqualTo(ceiling.limit(kind).most());
        }
      }
    }
  }
}
