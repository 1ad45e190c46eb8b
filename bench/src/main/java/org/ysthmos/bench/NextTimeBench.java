package org.ysthmos.bench;

import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.ysthmos.core.recurrence.Occurrence;
import org.ysthmos.core.recurrence.Occurrences;
import org.ysthmos.core.recurrence.Recurrence;
import org.ysthmos.core.recurrence.RuleWords;

/**
 * What comes next, of 1,000 chores that began some time in the last ten years and come round in ten
 * ways, in one of three zones. The yardstick is the next Friday in a zone, by java.time alone.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class NextTimeBench {

  private static final int CHORES = 1_000;
  private static final Instant NOW = Instant.parse("2026-11-28T09:00:00Z");
  private static final List<String> WAYS =
      List.of(
          "daily",
          "every 10 days",
          "every Monday",
          "every fourth Friday",
          "every Monday, Wednesday and Friday",
          "the 1st and 15th of each month",
          "the fourth Friday of every month",
          "the last weekday of each month",
          "every 6 months",
          "each year on 24 December");
  private static final List<ZoneId> ZONES =
      List.of(
          ZoneId.of("Europe/Lisbon"), ZoneId.of("America/Halifax"), ZoneId.of("Pacific/Auckland"));

  private final List<Occurrences> chores = new ArrayList<>();
  private int next;

  @Setup
  public void fill() {
    Random random = new Random(16);
    for (int i = 0; i < CHORES; i++) {
      LocalDateTime start = LocalDateTime.parse("2016-12-01T06:00").plusDays(random.nextInt(3_600));
      chores.add(
          new Occurrences(
              Recurrence.of(
                  RuleWords.read(WAYS.get(i % WAYS.size())).rule(),
                  ZONES.get(i % ZONES.size()),
                  start),
              Optional.empty()));
    }
  }

  @Benchmark
  public Optional<Occurrence> nextOfAChore() {
    next = (next + 1) % CHORES;
    return chores.get(next).next(NOW);
  }

  @Benchmark
  public Instant nextFridayByHand() {
    next = (next + 1) % CHORES;
    return NOW.atZone(ZONES.get(next % ZONES.size()))
        .with(TemporalAdjusters.next(DayOfWeek.FRIDAY))
        .withHour(6)
        .toInstant();
  }
}
